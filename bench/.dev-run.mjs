import { createRequire } from "node:module"; const require = createRequire(import.meta.url);

// packages/core/src/colour/ciede2000.ts
var DEGREE = Math.PI / 180;
function ciede2000(one, two) {
  const c1 = Math.sqrt(one.a * one.a + one.b * one.b);
  const c2 = Math.sqrt(two.a * two.a + two.b * two.b);
  const g = 0.5 * (1 - chromaWeight((c1 + c2) / 2));
  const a1 = (1 + g) * one.a;
  const a2 = (1 + g) * two.a;
  const C1 = Math.sqrt(a1 * a1 + one.b * one.b);
  const C2 = Math.sqrt(a2 * a2 + two.b * two.b);
  const h1 = hue(a1, one.b);
  const h2 = hue(a2, two.b);
  const grey = C1 * C2 === 0;
  const dL = two.L - one.L;
  const dC = C2 - C1;
  const dh = grey ? 0 : shortest(h2 - h1);
  const dH = 2 * Math.sqrt(C1 * C2) * Math.sin(dh / 2 * DEGREE);
  const L = (one.L + two.L) / 2;
  const C = (C1 + C2) / 2;
  const h = grey ? h1 + h2 : meanHue(h1, h2);
  const T = 1 - 0.17 * Math.cos((h - 30) * DEGREE) + 0.24 * Math.cos(2 * h * DEGREE) + 0.32 * Math.cos((3 * h + 6) * DEGREE) - 0.2 * Math.cos((4 * h - 63) * DEGREE);
  const turn = 30 * Math.exp(-(((h - 275) / 25) ** 2));
  const RT = -2 * chromaWeight(C) * Math.sin(2 * turn * DEGREE);
  const l50 = (L - 50) ** 2;
  const sL = dL / (1 + 0.015 * l50 / Math.sqrt(20 + l50));
  const sC = dC / (1 + 0.045 * C);
  const sH = dH / (1 + 0.015 * C * T);
  return Math.sqrt(sL * sL + sC * sC + sH * sH + RT * sC * sH);
}
function chromaWeight(c) {
  const c7 = c ** 7;
  return Math.sqrt(c7 / (c7 + 6103515625));
}
function hue(a, b) {
  if (a === 0 && b === 0) return 0;
  const h = Math.atan2(b, a) / DEGREE;
  return h < 0 ? h + 360 : h;
}
function shortest(dh) {
  if (dh > 180) return dh - 360;
  return dh < -180 ? dh + 360 : dh;
}
function meanHue(h1, h2) {
  if (Math.abs(h1 - h2) <= 180) return (h1 + h2) / 2;
  return h1 + h2 < 360 ? (h1 + h2 + 360) / 2 : (h1 + h2 - 360) / 2;
}

// packages/core/src/colour/srgb.ts
function toLinear(encoded) {
  return encoded <= 0.04045 ? encoded / 12.92 : Math.pow((encoded + 0.055) / 1.055, 2.4);
}
function toEncoded(linear) {
  return linear <= 31308e-7 ? 12.92 * linear : 1.055 * Math.pow(linear, 1 / 2.4) - 0.055;
}
var LINEAR_OF_CODE = Float32Array.from(
  { length: 256 },
  (_, code) => toLinear(code / 255)
);
var STEPS = 4096;
var CODE_OF_LINEAR = Uint8Array.from(
  { length: STEPS + 1 },
  (_, i) => Math.round(toEncoded(i / STEPS) * 255)
);

// packages/core/src/colour/lab.ts
var WHITE = { X: 0.95047, Y: 1, Z: 1.08883 };
function labOfSrgb(red, green, blue) {
  return labOfLinear(toLinear(red), toLinear(green), toLinear(blue));
}
function labOfLinear(r, g, b) {
  const fx = response((0.4124564 * r + 0.3575761 * g + 0.1804375 * b) / WHITE.X);
  const fy = response((0.2126729 * r + 0.7151522 * g + 0.072175 * b) / WHITE.Y);
  const fz = response((0.0193339 * r + 0.119192 * g + 0.9503041 * b) / WHITE.Z);
  return { L: 116 * fy - 16, a: 500 * (fx - fy), b: 200 * (fy - fz) };
}
function response(t) {
  return t > 216 / 24389 ? Math.cbrt(t) : (24389 / 27 * t + 16) / 116;
}

// packages/core/src/raster/raster.ts
function whiteOf(samples) {
  const depth = depthOf(samples);
  return depth === "u8" ? 255 : depth === "u16" ? 65535 : 1;
}
function depthOf(samples) {
  const size = samples.BYTES_PER_ELEMENT;
  return size === 1 ? "u8" : size === 2 ? "u16" : "f32";
}
function bytesPerSample(depth) {
  return depth === "u8" ? 1 : depth === "u16" ? 2 : 4;
}
function colourChannels(channels) {
  return channels >= 3 ? 3 : 1;
}
function samplesOf(depth, source) {
  if (typeof source === "number") {
    if (depth === "u8") return new Uint8Array(source);
    return depth === "u16" ? new Uint16Array(source) : new Float32Array(source);
  }
  if (depth === "u8") return new Uint8Array(source);
  return depth === "u16" ? new Uint16Array(source) : new Float32Array(source);
}
function createRaster(width, height, channels, depth = "u8") {
  if (!Number.isInteger(width) || !Number.isInteger(height) || width < 1 || height < 1)
    throw new RangeError(`a raster needs positive whole sides, got ${width} x ${height}`);
  return { width, height, channels, data: samplesOf(depth, width * height * channels) };
}

// packages/core/src/raster/rect.ts
var EMPTY_RECT = { x: 0, y: 0, width: 0, height: 0 };
function intersect(a, b) {
  const x = Math.max(a.x, b.x);
  const y = Math.max(a.y, b.y);
  const width = Math.min(a.x + a.width, b.x + b.width) - x;
  const height = Math.min(a.y + a.height, b.y + b.height) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : EMPTY_RECT;
}
function grow(r, by) {
  return { x: r.x - by, y: r.y - by, width: r.width + 2 * by, height: r.height + 2 * by };
}
function frameOf(r) {
  return { x: 0, y: 0, width: r.width, height: r.height };
}
function crop(raster, rect) {
  const { width, height, channels, data } = raster;
  if (rect.x < 0 || rect.y < 0 || rect.x + rect.width > width || rect.y + rect.height > height)
    throw new RangeError("crop reaches outside the raster");
  const out = createRaster(rect.width, rect.height, channels, depthOf(data));
  const run = rect.width * channels;
  for (let y = 0; y < rect.height; y++) {
    const from = ((rect.y + y) * width + rect.x) * channels;
    out.data.set(data.subarray(from, from + run), y * run);
  }
  return out;
}

// packages/core/src/random/random.ts
function seededRandom(seed) {
  let s = Math.imul((seed | 0) ^ 1831565813, 2246822507) ^ 2654435769;
  s = Math.imul(s ^ s >>> 15, 739982445) || 19088743;
  const next = () => {
    s ^= s << 13;
    s ^= s >>> 17;
    s ^= s << 5;
    return s >>> 0;
  };
  const unit2 = () => next() / 4294967296;
  return { next, unit: unit2, between: (low, high) => low + Math.floor(unit2() * (high - low + 1)) };
}

// packages/core/src/shape/depth.ts
function depthsOf(hole, width, height) {
  const far = 1e6;
  const diagonal = 4 / 3;
  const d = new Float32Array(hole.length);
  for (let y = 0, p2 = 0; y < height; y++)
    for (let x = 0; x < width; x++, p2++) {
      if (!hole[p2]) continue;
      let least = far;
      if (x > 0) least = Math.min(least, d[p2 - 1] + 1);
      if (y > 0) {
        least = Math.min(least, d[p2 - width] + 1);
        if (x > 0) least = Math.min(least, d[p2 - width - 1] + diagonal);
        if (x + 1 < width) least = Math.min(least, d[p2 - width + 1] + diagonal);
      }
      d[p2] = least;
    }
  for (let y = height - 1, p2 = hole.length - 1; y >= 0; y--)
    for (let x = width - 1; x >= 0; x--, p2--) {
      if (!hole[p2]) continue;
      let least = d[p2];
      if (x + 1 < width) least = Math.min(least, d[p2 + 1] + 1);
      if (y + 1 < height) {
        least = Math.min(least, d[p2 + width] + 1);
        if (x + 1 < width) least = Math.min(least, d[p2 + width + 1] + diagonal);
        if (x > 0) least = Math.min(least, d[p2 + width - 1] + diagonal);
      }
      d[p2] = least;
    }
  return d;
}

// packages/core/src/task/task.ts
var Cancelled = class extends Error {
  constructor() {
    super("cancelled");
    this.name = "Cancelled";
  }
};
function checkpoint(task, share) {
  if (task?.signal?.aborted) throw new Cancelled();
  task?.progress?.(share);
}

// packages/core/src/fill/confidence.ts
var PATCH_VALUES = 49 * 4;

// packages/core/src/find/grey.ts
function greyOf({ width, height, channels, data }) {
  const grey = new Float32Array(width * height);
  const scale = 255 / whiteOf(data);
  const colours2 = colourChannels(channels);
  for (let p2 = 0, i = 0; p2 < grey.length; p2++, i += channels)
    grey[p2] = scale * (colours2 === 1 ? data[i] : 0.299 * data[i] + 0.587 * data[i + 1] + 0.114 * data[i + 2]);
  return grey;
}

// packages/core/src/shape/parts.ts
function partsOf(mask, width) {
  const height = mask.length / width;
  const open2 = Uint8Array.from(mask);
  const parts = [];
  let pixels = new Int32Array(1024);
  for (let first = 0; first < mask.length; first++) {
    if (!open2[first]) continue;
    open2[first] = 0;
    pixels[0] = first;
    let count = 1;
    for (let k = 0; k < count; k++) {
      const p2 = pixels[k];
      const x = p2 % width;
      const y = p2 / width | 0;
      if (count + 8 > pixels.length) {
        const more = new Int32Array(2 * pixels.length);
        more.set(pixels);
        pixels = more;
      }
      for (let b = Math.max(0, y - 1); b <= Math.min(height - 1, y + 1); b++)
        for (let a = Math.max(0, x - 1); a <= Math.min(width - 1, x + 1); a++) {
          const q = b * width + a;
          if (!open2[q]) continue;
          open2[q] = 0;
          pixels[count++] = q;
        }
    }
    parts.push(pixels.slice(0, count).sort());
  }
  return parts;
}

// packages/core/src/solve/small.ts
function solveSmall(a, b) {
  const n = b.length;
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(a[i][k]) > Math.abs(a[pivot][k])) pivot = i;
    [a[k], a[pivot]] = [a[pivot], a[k]];
    [b[k], b[pivot]] = [b[pivot], b[k]];
    const top = a[k][k];
    if (Math.abs(top) < 1e-300) continue;
    for (let i = k + 1; i < n; i++) {
      const share = a[i][k] / top;
      if (share === 0) continue;
      for (let j = k; j < n; j++) a[i][j] -= share * a[k][j];
      b[i] -= share * b[k];
    }
  }
  const x = new Array(n).fill(0);
  for (let k = n - 1; k >= 0; k--) {
    let sum = b[k];
    for (let j = k + 1; j < n; j++) sum -= a[k][j] * x[j];
    x[k] = Math.abs(a[k][k]) < 1e-300 ? 0 : sum / a[k][k];
  }
  return x;
}

// packages/core/src/raster/median.ts
function medianOf(values) {
  if (!values.length) return 0;
  const sorted = Float64Array.from(values).sort();
  const half = sorted.length >> 1;
  return sorted.length & 1 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
}

// packages/core/src/raster/plane.ts
function halved({ width, height, values }) {
  const w = Math.max(1, width >> 1);
  const h = Math.max(1, height >> 1);
  const out = new Float32Array(w * h);
  const right = width > 1 ? 1 : 0;
  const down = height > 1 ? width : 0;
  for (let y = 0, i = 0; y < h; y++)
    for (let x = 0, p2 = 2 * y * width; x < w; x++, p2 += 2, i++)
      out[i] = (values[p2] + values[p2 + right] + values[p2 + down] + values[p2 + right + down]) / 4;
  return { width: w, height: h, values: out };
}
function blurred({ width, height, values }, sigma) {
  const radius = Math.max(1, Math.ceil(3 * sigma));
  const taps = new Float32Array(radius + 1);
  let sum = 0;
  for (let k = 0; k <= radius; k++) {
    taps[k] = Math.exp(-k * k / (2 * sigma * sigma));
    sum += k ? 2 * taps[k] : taps[k];
  }
  for (let k = 0; k <= radius; k++) taps[k] /= sum;
  const across = new Float32Array(values.length);
  const row = new Float32Array(width + 2 * radius);
  const sums = new Float64Array(width);
  for (let y = 0; y < height; y++) {
    const from = y * width;
    row.set(values.subarray(from, from + width), radius);
    row.fill(values[from], 0, radius);
    row.fill(values[from + width - 1], radius + width);
    for (let x = 0; x < width; x++) sums[x] = taps[0] * row[x + radius];
    for (let k = 1; k <= radius; k++) {
      const tap = taps[k];
      for (let x = 0, l = radius - k, r = radius + k; x < width; x++, l++, r++)
        sums[x] += tap * (row[l] + row[r]);
    }
    across.set(sums, from);
  }
  const out = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    const to = out.subarray(y * width, (y + 1) * width);
    for (let k = 0; k <= radius; k++) {
      const up = Math.max(0, y - k) * width;
      const down = Math.min(height - 1, y + k) * width;
      const tap = taps[k];
      if (k === 0) for (let x = 0; x < width; x++) to[x] = tap * across[up + x];
      else for (let x = 0; x < width; x++) to[x] += tap * (across[up + x] + across[down + x]);
    }
  }
  return { width, height, values: out };
}
function boxMean({ width, height, values }, radius) {
  const rows = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    const from = y * width;
    let sum = 0;
    for (let x = 0; x < Math.min(radius, width); x++) sum += values[from + x];
    for (let x = 0; x < width; x++) {
      if (x + radius < width) sum += values[from + x + radius];
      if (x - radius - 1 >= 0) sum -= values[from + x - radius - 1];
      const n = Math.min(width - 1, x + radius) - Math.max(0, x - radius) + 1;
      rows[from + x] = sum / n;
    }
  }
  const out = new Float32Array(values.length);
  const sums = new Float64Array(width);
  for (let y = 0; y < Math.min(radius, height); y++)
    for (let x = 0; x < width; x++) sums[x] += rows[y * width + x];
  for (let y = 0; y < height; y++) {
    const into = y + radius;
    const outof = y - radius - 1;
    if (into < height) for (let x = 0; x < width; x++) sums[x] += rows[into * width + x];
    if (outof >= 0) for (let x = 0; x < width; x++) sums[x] -= rows[outof * width + x];
    const n = Math.min(height - 1, into) - Math.max(0, y - radius) + 1;
    for (let x = 0; x < width; x++) out[y * width + x] = sums[x] / n;
  }
  return { width, height, values: out };
}
function sampleAt({ width, height, values }, x, y) {
  const cx = x < 0 ? 0 : x > width - 1 ? width - 1 : x;
  const cy = y < 0 ? 0 : y > height - 1 ? height - 1 : y;
  const ix = cx | 0;
  const iy = cy | 0;
  const fx = cx - ix;
  const fy = cy - iy;
  const p2 = iy * width + ix;
  const r = ix < width - 1 ? 1 : 0;
  const d = iy < height - 1 ? width : 0;
  return (values[p2] * (1 - fx) + values[p2 + r] * fx) * (1 - fy) + (values[p2 + d] * (1 - fx) + values[p2 + r + d] * fx) * fy;
}

// packages/core/src/raster/layers.ts
function layerAt(picture, level) {
  const { width, channels, data } = picture;
  const side = 1 << level;
  const w = Math.max(1, width >> level);
  const h = Math.max(1, picture.height >> level);
  const count = colourChannels(channels) < 3 ? 1 : 3;
  const planes = Array.from({ length: count }, () => new Float32Array(w * h));
  const scale = 255 / whiteOf(data) / (side * side);
  for (let c = 0; c < count; c++) blockMeans(picture, c, level, planes[c], scale);
  return layerFrom(planes, w, h);
}
function blockMeans(picture, channel, level, out, scale) {
  const { data, width, channels } = picture;
  const side = 1 << level;
  const w = Math.max(1, width >> level);
  const rows = Math.max(1, picture.height >> level) * side;
  for (let y = 0; y < rows; y++) {
    const from = y * width * channels + channel;
    const to = (y >> level) * w;
    if (side === 1) {
      for (let x = 0, i = from; x < w; x++, i += channels) out[to + x] = data[i] * scale;
      continue;
    }
    for (let x = 0, i = from; x < w; x++) {
      let sum = 0;
      for (let u = 0; u < side; u++, i += channels) sum += data[i];
      out[to + x] = out[to + x] + sum * scale;
    }
  }
}
function layersFrom(picture, level, levels) {
  const layers = [layerAt(picture, level)];
  while (layers.length < levels) {
    const { grey, colours: colours2 } = layers.at(-1);
    if (Math.min(grey.width, grey.height) < 32) break;
    layers.push({ grey: halved(grey), colours: colours2.map(halved) });
  }
  return layers;
}
function layerFrom(planes, width, height) {
  if (planes.length < 3) return { grey: { width, height, values: planes[0] }, colours: [] };
  const [r, g, b] = planes;
  const values = new Float32Array(r.length);
  for (let p2 = 0; p2 < values.length; p2++) values[p2] = 0.299 * r[p2] + 0.587 * g[p2] + 0.114 * b[p2];
  return {
    grey: { width, height, values },
    colours: planes.map((v) => ({ width, height, values: v }))
  };
}

// packages/core/src/intake/paper-edge.ts
var RUN = 4;
var OUTSIDE = 8;
var MARGIN = OUTSIDE + RUN;

// packages/core/src/intake/detail.ts
var LENGTH = 128;
var HALF2 = LENGTH / 2;
var COS = Float64Array.from({ length: LENGTH }, (_, k) => Math.cos(2 * Math.PI * k / LENGTH));
var WINDOW = COS.map((c) => 0.5 - 0.5 * c);

// packages/core/src/intake/tilt.ts
var DEGREE2 = Math.PI / 180;

// packages/core/src/register/align.ts
var HALF3 = 7;
var N = (2 * HALF3 + 1) ** 2;
var patch = new Float32Array(N);
var seen = new Float32Array(N);
var spotX = new Float32Array(N);
var spotY = new Float32Array(N);
var slopeX = new Float32Array(N);
var slopeY = new Float32Array(N);

// packages/core/src/register/features.ts
var CELLS = 4;
var WAYS = 8;
var SIZE = CELLS * CELLS * WAYS;

// packages/core/src/register/match.ts
var GLANCE = SIZE / 4;

// packages/core/src/intake/unglare.ts
var LIGHT = 1 / 10;

// packages/core/src/join/blend.ts
var LEVELS = 5;
var EDGE = 1 << LEVELS;

// packages/core/src/join/evened.ts
var STEPS2 = 2048;
var LINEAR = Float32Array.from({ length: STEPS2 + 2 }, (_, i) => toLinear(i / STEPS2));
var REACH = 1.5;
var ENCODED = Float32Array.from(
  { length: STEPS2 + 2 },
  (_, i) => toEncoded((REACH * (i / STEPS2)) ** 2)
);

// packages/core/src/survey/judge.ts
function evidenceOf(t, level) {
  const height = Math.max(1, t.height);
  const long = Math.log(t.length / 40);
  const high = Math.log(height / 20);
  return [
    long,
    long * long,
    high,
    t.whole,
    Math.log(t.unsteady + 0.05),
    Math.log((t.ground + 2) / 10),
    Math.log(t.lopsided + 0.05),
    Math.log((t.busy + 1) / 6),
    Math.log(height / (t.busy + 1)),
    10 * t.crowd,
    Math.log(t.turn + 5e-3),
    t.straight,
    t.width / 3,
    t.uneven,
    t.extreme,
    level === 0 ? 1 : 0,
    level === 1 ? 1 : 0,
    level >= 2 ? 1 : 0,
    10 * t.unsteady / (t.ground + 4),
    long * high
  ];
}
var SCRATCH_WEIGHTS = {
  bias: 1.46,
  weights: [
    -0.026,
    -0.3,
    0.723,
    3.702,
    -0.982,
    1.24,
    0.12,
    -1.404,
    1.046,
    -0.124,
    0.713,
    -1.631,
    -6.406,
    -0.421,
    1.211,
    -0.15,
    0.052,
    0.294,
    0.078,
    1.245
  ]
};
var WIRE_WEIGHTS = {
  bias: -5.821,
  weights: [
    1.019,
    -0.038,
    -0.961,
    -1.453,
    -3.231,
    1.724,
    -0.686,
    -1.245,
    -0.85,
    -0.047,
    -0.66,
    1.179,
    -3.123,
    0.127,
    0.053,
    -0.764,
    0.104,
    1.767,
    0.55,
    0.501
  ]
};
function oddsOf({ traits, level }, { bias, weights }) {
  const evidence = evidenceOf(traits, level);
  let sum = bias;
  for (let k = 0; k < weights.length; k++) sum += weights[k] * evidence[k];
  return sum;
}
function scoreOf(odds) {
  return 1 / (1 + Math.exp(-odds));
}

// packages/core/src/survey/chains.ts
var FACING = 0.94;
var STEADY = 6;
function chained2(strands, frame, { judge: judge2, part, gap }) {
  const judged = strands.map((strand) => ({ ...strand, odds: judge2(strand) })).filter(({ odds }) => odds >= part).sort((a, b) => b.odds + weight(b) - a.odds - weight(a));
  const kept = withoutEchoes(judged, frame);
  const chains = linkedUp(kept, gap).map(
    (members) => members.length === 1 ? members[0] : united(members, judge2)
  );
  return chains.sort((a, b) => b.odds - a.odds);
}
function weight({ xs, level }) {
  return Math.log(xs.length * 2 ** level);
}
function withoutEchoes(strands, { width, height }) {
  const [w, h] = [(width >> 1) + 1, (height >> 1) + 1];
  const covered = new Uint8Array(w * h);
  const kept = [];
  for (const strand of strands) {
    const { xs, ys, widths } = strand;
    let met = 0;
    for (let i = 0; i < xs.length; i++) {
      const p2 = (Math.round(ys[i]) >> 1) * w + (Math.round(xs[i]) >> 1);
      if (covered[p2]) met++;
    }
    if (met > xs.length / 2) continue;
    kept.push(strand);
    for (let i = 0; i < xs.length; i++) {
      const r = Math.max(1, Math.round((widths[i] + 3) / 4));
      const [cx, cy] = [Math.round(xs[i]) >> 1, Math.round(ys[i]) >> 1];
      for (let y = Math.max(0, cy - r); y <= Math.min(h - 1, cy + r); y++)
        covered.fill(1, y * w + Math.max(0, cx - r), y * w + Math.min(w - 1, cx + r) + 1);
    }
  }
  return kept;
}
function endOf({ xs, ys }, end) {
  const n = xs.length;
  const reach = Math.min(n - 1, 24);
  const [a, b] = end ? [n - 1 - reach, n - 1] : [reach, 0];
  const [dx, dy] = [xs[b] - xs[a], ys[b] - ys[a]];
  const d = Math.hypot(dx, dy) || 1;
  return { x: xs[b], y: ys[b], way: [dx / d, dy / d] };
}
function linkedUp(strands, gap) {
  const ends = strands.map((s) => [endOf(s, 0), endOf(s, 1)]);
  const widths = strands.map(({ traits, level }) => traits.width * 2 ** level);
  const pairs = [];
  for (let s = 0; s < strands.length; s++)
    for (let t = s + 1; t < strands.length; t++) {
      if (strands[s].polarity !== strands[t].polarity) continue;
      const [wide, narrow] = [Math.max(widths[s], widths[t]), Math.min(widths[s], widths[t])];
      if (wide > 2.2 * narrow) continue;
      const reach = Math.min(gap.most, gap.widths * wide);
      for (const e of [0, 1])
        for (const f2 of [0, 1]) {
          const [p2, q] = [ends[s][e], ends[t][f2]];
          const [vx, vy] = [q.x - p2.x, q.y - p2.y];
          const d = Math.hypot(vx, vy);
          if (d > reach) continue;
          const facing2 = -(p2.way[0] * q.way[0] + p2.way[1] * q.way[1]);
          const out = d < 3 ? 1 : (vx * p2.way[0] + vy * p2.way[1]) / d;
          const back = d < 3 ? 1 : -(vx * q.way[0] + vy * q.way[1]) / d;
          if (facing2 < FACING || out < FACING || back < FACING) continue;
          pairs.push({ a: 2 * s + e, b: 2 * t + f2, cost: d + 400 * (3 - facing2 - out - back) });
        }
    }
  pairs.sort((p2, q) => p2.cost - q.cost || p2.a - q.a || p2.b - q.b);
  const mate = new Int32Array(2 * strands.length).fill(-1);
  for (const { a, b } of pairs)
    if (mate[a] < 0 && mate[b] < 0) {
      mate[a] = b;
      mate[b] = a;
    }
  const done = new Uint8Array(strands.length);
  const groups = [];
  const gather = (first) => {
    const members = [];
    for (let end = first; !done[end >> 1]; ) {
      done[end >> 1] = 1;
      const strand = strands[end >> 1];
      members.push(end & 1 ? turnedRound(strand) : strand);
      const next = mate[end ^ 1];
      if (next < 0) break;
      end = next;
    }
    groups.push(members);
  };
  for (let e = 0; e < mate.length; e++) if (mate[e] < 0 && !done[e >> 1]) gather(e);
  for (let s = 0; s < strands.length; s++) if (!done[s]) gather(2 * s);
  return groups;
}
function turnedRound(strand) {
  return {
    ...strand,
    xs: strand.xs.slice().reverse(),
    ys: strand.ys.slice().reverse(),
    widths: strand.widths.slice().reverse()
  };
}
function united(members, judge2) {
  const xs = [];
  const ys = [];
  const widths = [];
  for (const { xs: x, ys: y, widths: w } of members) {
    if (xs.length) {
      const [ax, ay, aw] = [xs.at(-1), ys.at(-1), widths.at(-1)];
      const n = Math.floor(Math.hypot(x[0] - ax, y[0] - ay) / STEADY);
      for (let k = 1; k <= n; k++) {
        const t = k / (n + 1);
        xs.push(ax + t * (x[0] - ax));
        ys.push(ay + t * (y[0] - ay));
        widths.push(aw + t * (w[0] - aw));
      }
    }
    for (let i = 0; i < x.length; i++) {
      xs.push(x[i]);
      ys.push(y[i]);
      widths.push(w[i]);
    }
  }
  const first = members.reduce((a, b) => weight(b) > weight(a) ? b : a);
  const traits = meanTraits(members, first.level);
  return {
    xs: Float32Array.from(xs),
    ys: Float32Array.from(ys),
    widths: Float32Array.from(widths),
    polarity: first.polarity,
    level: first.level,
    traits,
    odds: judge2({ traits, level: first.level, polarity: first.polarity })
  };
}
function meanTraits(members, level) {
  const lengthAt = (s) => s.traits.length * 2 ** (s.level - level);
  const length = members.reduce((sum, s) => sum + lengthAt(s), 0);
  const mean = (key) => members.reduce((sum, s) => sum + lengthAt(s) * s.traits[key], 0) / length;
  const widthAt = (s) => s.traits.width * 2 ** (s.level - level);
  return {
    length,
    height: mean("height"),
    whole: mean("whole"),
    unsteady: mean("unsteady"),
    ground: mean("ground"),
    lopsided: mean("lopsided"),
    busy: mean("busy"),
    crowd: mean("crowd"),
    turn: mean("turn"),
    straight: mean("straight"),
    width: members.reduce((sum, s) => sum + lengthAt(s) * widthAt(s), 0) / length,
    uneven: mean("uneven"),
    extreme: mean("extreme")
  };
}

// packages/core/src/survey/scratches.ts
var PART = -1;
var HAIR = { usual: 0.5, gap: { widths: 30, most: 80 } };
var WIRE = { usual: 1.6, gap: { widths: 60, most: 160 } };
function scratchesOf(strands, frame) {
  const judge2 = (s) => oddsOf(s, SCRATCH_WEIGHTS) - HAIR.usual;
  return chained2(strands, frame, { judge: judge2, part: PART - HAIR.usual, gap: HAIR.gap });
}
var SHORTEST = 0.1;
var HUGGING = { near: 0.04, slope: 0.012 };
function wiresOf(strands, frame) {
  const diagonal = Math.hypot(frame.width, frame.height);
  const judge2 = (s) => oddsOf(s, WIRE_WEIGHTS) - WIRE.usual;
  return chained2(strands, frame, { judge: judge2, part: PART - WIRE.usual, gap: WIRE.gap }).filter((w) => spanOf(w) >= SHORTEST * diagonal && !hugsBorder(w, frame)).map((w) => ({
    ...w,
    odds: w.odds + Math.min(0, 1.5 * Math.log(spanOf(w) / (0.25 * diagonal))) - (isRuled(w) ? RULED : 0) - (reachesOut(w, frame) ? 0 : ENDED)
  })).sort((a, b) => b.odds - a.odds);
}
var ENDED = 3;
var OUT = 0.05;
function reachesOut({ xs, ys }, { width, height }) {
  const near = OUT * Math.min(width, height);
  return [0, xs.length - 1].some((i) => {
    const [x, y] = [xs[i], ys[i]];
    return Math.min(x, y, width - 1 - x, height - 1 - y) < near;
  });
}
var RULED = 4;
function isRuled({ xs, ys }) {
  const reach = Math.abs(xs.at(-1) - xs[0]);
  return Math.max(...ys) - Math.min(...ys) < 0.01 * reach;
}
function spanOf({ xs, ys }) {
  return Math.hypot(xs.at(-1) - xs[0], ys.at(-1) - ys[0]);
}
function hugsBorder({ xs, ys }, { width, height }) {
  const near = HUGGING.near * Math.min(width, height);
  const along2 = (values, across, most) => {
    const [low, high] = [Math.min(...across), Math.max(...across)];
    const reach = Math.max(...values) - Math.min(...values);
    return high - low < HUGGING.slope * reach + 2 && (high < near || low > most - near);
  };
  return along2(xs, ys, height) || along2(ys, xs, width);
}

// packages/core/src/survey/pixels-up.ts
function pixelsUp(pixels, width, level, frame) {
  if (level === 0) return pixels;
  const side = 1 << level;
  const found = new Int32Array(pixels.length * side * side);
  let count = 0;
  for (const p2 of pixels) {
    const [x, y] = [p2 % width * side, Math.floor(p2 / width) * side];
    for (let v = y; v < Math.min(frame.height, y + side); v++)
      for (let u = x; u < Math.min(frame.width, x + side); u++)
        found[count++] = v * frame.width + u;
  }
  return found.subarray(0, count).sort();
}

// packages/core/src/survey/spots.ts
var RINGS = [3, 6];
var LEAST = 11;
var LEAST_SIDES = 3;
function ringOf(radius) {
  const d = Math.round(radius * Math.SQRT1_2);
  return [
    [radius, 0],
    [-radius, 0],
    [0, radius],
    [0, -radius],
    [d, d],
    [-d, -d],
    [d, -d],
    [-d, d]
  ];
}
function spotsAt(plane, level) {
  const taken = new Uint8Array(plane.values.length);
  const rings = level === 0 ? RINGS : RINGS.slice(1);
  return rings.flatMap(
    (radius) => [1, -1].flatMap((polarity) => spotsOfRing(plane, radius, polarity, level, taken))
  );
}
function spotsOfRing({ width, height, values }, radius, polarity, level, taken) {
  const ring = ringOf(radius);
  const across = Math.round(radius * Math.SQRT1_2);
  const [down, falling, rising] = [radius * width, across * (width + 1), across * (width - 1)];
  const stands = (p2, x, y) => {
    const floor = polarity * values[p2] - LEAST;
    if (x >= radius && y >= radius && x < width - radius && y < height - radius)
      return polarity * values[p2 + radius] <= floor && polarity * values[p2 - radius] <= floor && polarity * values[p2 + down] <= floor && polarity * values[p2 - down] <= floor && polarity * values[p2 + falling] <= floor && polarity * values[p2 - falling] <= floor && polarity * values[p2 + rising] <= floor && polarity * values[p2 - rising] <= floor;
    let sides = 0;
    for (const [dx, dy] of ring) {
      const [qx, qy] = [x + dx, y + dy];
      if (qx < 0 || qy < 0 || qx >= width || qy >= height) continue;
      if (polarity * values[qy * width + qx] > floor) return false;
      sides++;
    }
    return sides >= LEAST_SIDES;
  };
  const summits = [];
  for (let y = 0, p2 = 0; y < height; y++)
    for (let x = 0; x < width; x++, p2++) {
      if (!stands(p2, x, y)) continue;
      const v = polarity * values[p2];
      if (x > 0 && polarity * values[p2 - 1] >= v) continue;
      if (x < width - 1 && polarity * values[p2 + 1] > v) continue;
      if (y > 0 && polarity * values[p2 - width] >= v) continue;
      if (y < height - 1 && polarity * values[p2 + width] > v) continue;
      summits.push(p2);
    }
  summits.sort((a, b) => polarity * (values[b] - values[a]) || a - b);
  const spots = [];
  for (const summit of summits) {
    if (taken[summit]) continue;
    const grownTo = grown({ width, height, values }, summit, polarity, radius);
    if (!grownTo) continue;
    for (const p2 of grownTo.pixels) taken[p2] = 1;
    spots.push({ polarity, summit, level, ...grownTo });
  }
  return spots;
}
function grown({ width, height, values }, summit, polarity, radius) {
  const [cx, cy] = [summit % width, summit / width | 0];
  let [sum, most, count] = [0, -Infinity, 0];
  for (const [dx, dy] of ringOf(radius)) {
    const [x, y] = [cx + dx, cy + dy];
    if (x < 0 || y < 0 || x >= width || y >= height) continue;
    const v = polarity * values[y * width + x];
    sum += v;
    most = Math.max(most, v);
    count++;
  }
  const top = polarity * values[summit];
  for (const base of [sum / count, (sum / count + most) / 2, most]) {
    const pixels = flooded((top + base) / 2);
    if (pixels) return { pixels, stands: top - sum / count };
  }
  return null;
  function flooded(floor) {
    const found = [summit];
    const seen2 = new Set(found);
    for (let k = 0; k < found.length; k++) {
      const p2 = found[k];
      const x = p2 % width;
      const y = p2 / width | 0;
      for (const [dx, dy] of SIDES) {
        const [qx, qy] = [x + dx, y + dy];
        if (qx < 0 || qy < 0 || qx >= width || qy >= height) continue;
        const q = qy * width + qx;
        if (seen2.has(q) || polarity * values[q] < floor) continue;
        if (Math.max(Math.abs(qx - cx), Math.abs(qy - cy)) > radius + 1) return null;
        seen2.add(q);
        found.push(q);
      }
    }
    return Int32Array.from(found).sort();
  }
}
var SIDES = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1]
];

// packages/core/src/survey/spot-traits.ts
var RING = { from: 1.5, to: 4.5 };
var AROUND = 14;
var SECTORS = 8;
function spotTraits({ grey, colours: colours2 }, spot, crowd, busy) {
  const { width, height, values } = grey;
  const { polarity, pixels } = spot;
  const inside = new Set(pixels);
  let [cx, cy, sum, squares] = [0, 0, 0, 0];
  for (const p2 of pixels) {
    cx += p2 % width;
    cy += p2 / width | 0;
    const v = values[p2];
    sum += v;
    squares += v * v;
  }
  const n = pixels.length;
  cx /= n;
  cy /= n;
  const mean = sum / n;
  let [xx, yy, xy, far] = [1 / 12, 1 / 12, 0, 0];
  for (const p2 of pixels) {
    const [dx, dy] = [p2 % width - cx, (p2 / width | 0) - cy];
    xx += dx * dx / n;
    yy += dy * dy / n;
    xy += dx * dy / n;
    far = Math.max(far, dx * dx + dy * dy);
  }
  const root = Math.sqrt(((xx - yy) / 2) ** 2 + xy * xy);
  const middle = (xx + yy) / 2;
  const r = Math.sqrt(far) + 0.5;
  const sectors = Array.from({ length: SECTORS }, () => [0, 0]);
  const ring = [];
  const rest = [];
  const reach = Math.ceil(r + AROUND);
  const [mx, my] = [Math.round(cx), Math.round(cy)];
  const outer = (r + RING.to) ** 2;
  let [ringTint, restSum, restSquares, sharp5] = [0, 0, 0, 0];
  const tinted = (p2) => {
    if (!colours2.length) return 0;
    const [a, b, c] = [colours2[0].values[p2], colours2[1].values[p2], colours2[2].values[p2]];
    return Math.max(a, b, c) - Math.min(a, b, c);
  };
  for (let y = Math.max(0, my - reach); y <= Math.min(height - 1, my + reach); y++)
    for (let x = Math.max(0, mx - reach); x <= Math.min(width - 1, mx + reach); x++) {
      const p2 = y * width + x;
      const dx = x - cx;
      const dy = y - cy;
      const square = dx * dx + dy * dy;
      if (square > outer && (x | y) & 1) continue;
      const d = Math.sqrt(square) - r;
      const v = values[p2];
      if (d > RING.from && d <= RING.to) {
        ring.push(v);
        ringTint += tinted(p2);
        const sector = Math.floor((Math.atan2(dy, dx) / Math.PI + 1) / 2 * SECTORS) % SECTORS;
        sectors[sector][0] += v;
        sectors[sector][1]++;
      } else if (d > RING.to && d <= AROUND) {
        rest.push(v);
        restSum += v;
        restSquares += v * v;
      }
    }
  const ringMean = ring.reduce((s, v) => s + v, 0) / (ring.length || 1);
  const ringDeviation = Math.sqrt(
    Math.max(0, ring.reduce((s, v) => s + v * v, 0) / (ring.length || 1) - ringMean * ringMean)
  );
  const restMean = restSum / (rest.length || 1);
  for (const p2 of pixels)
    for (const step of [1, -1, width, -width]) {
      const q = p2 + 2 * step;
      if (!inside.has(p2 + step) && values[q] !== void 0)
        sharp5 = Math.max(sharp5, polarity * (values[p2] - values[q]));
    }
  const heartTint = pixels.reduce((s, p2) => s + tinted(p2), 0) / n;
  const sides = sectors.filter(([, k]) => k > 0).map(([s, k]) => s / k);
  const signedHigh = (list, share) => {
    if (!list.length) return ringMean;
    const sorted = Float32Array.from(list).sort();
    const k = Math.floor(share * (sorted.length - 1));
    return polarity > 0 ? sorted[k] : sorted[sorted.length - 1 - k];
  };
  const tone2 = values[spot.summit];
  const heightOver = Math.max(1, polarity * (mean - ringMean));
  return {
    area: n,
    height: heightOver,
    clear: polarity * (mean - signedHigh(ring, 0.95)),
    rare: polarity * (mean - signedHigh(rest, 0.97)),
    ring: ringDeviation,
    around: Math.sqrt(Math.max(0, restSquares / (rest.length || 1) - restMean * restMean)),
    extreme: polarity > 0 ? tone2 / 255 : 1 - tone2 / 255,
    tone: tone2,
    tint: heartTint,
    ringTint: ringTint / (ring.length || 1),
    compact: n / (Math.PI * r * r),
    long: Math.sqrt((middle + root) / Math.max(1 / 24, middle - root)),
    sharp: sharp5 / heightOver,
    rough: Math.sqrt(Math.max(0, squares / n - mean * mean)) / heightOver,
    mixed: sides.length ? Math.max(...sides) - Math.min(...sides) : 0,
    busy,
    crowd
  };
}
var BUSY = { reach: 12, mean: 2, every: 3 };
function busyAround({ width, height, values }, place) {
  const [cx, cy] = [place % width, place / width | 0];
  const { reach, mean, every } = BUSY;
  let [sum, count] = [0, 0];
  for (let y = Math.max(mean, cy - reach); y <= Math.min(height - 1 - mean, cy + reach); y += every)
    for (let x = Math.max(mean, cx - reach); x <= Math.min(width - 1 - mean, cx + reach); x += every) {
      let local = 0;
      for (let v = y - mean; v <= y + mean; v++)
        for (let p2 = v * width + x - mean, last = p2 + 2 * mean; p2 <= last; p2++) local += values[p2];
      sum += Math.abs(values[y * width + x] - local / (2 * mean + 1) ** 2);
      count++;
    }
  return count ? sum / count : 0;
}

// packages/core/src/survey/specks.ts
var CROWD = 24;
var TEXTURE = 40;
var CLEAR = 3.5;
var HOPELESS = -5;
function specksAt(layer, level, frame, within = () => true) {
  const { grey } = layer;
  const spots = spotsAt(grey, level);
  const crowds = crowdsOf(spots, grey.width);
  const specks = [];
  spots.forEach((spot, k) => {
    if (crowds[k] > TEXTURE || !within(spot.summit)) return;
    const busy = busyAround(grey, spot.summit);
    if (spot.stands < CLEAR * (busy + 1)) return;
    const traits = spotTraits(layer, spot, crowds[k], busy);
    const odds = speckOdds(traits, spot);
    if (odds >= HOPELESS)
      specks.push({ ...spot, traits, odds, site: pixelsUp(spot.pixels, grey.width, level, frame) });
  });
  return specks;
}
function crowdsOf(spots, width) {
  const cells = /* @__PURE__ */ new Map();
  const place = (k) => {
    const { summit } = spots[k];
    return [summit % width, summit / width | 0];
  };
  const key = (cx, cy, polarity) => (cy * 65536 + cx) * 2 + (polarity > 0 ? 1 : 0);
  spots.forEach(({ polarity }, k) => {
    const [x, y] = place(k);
    const at = key(x / CROWD | 0, y / CROWD | 0, polarity);
    const list = cells.get(at);
    if (list) list.push(k);
    else cells.set(at, [k]);
  });
  return Int32Array.from(spots, ({ polarity }, k) => {
    const [x, y] = place(k);
    const [cx, cy] = [x / CROWD | 0, y / CROWD | 0];
    let near = -1;
    for (let v = cy - 1; v <= cy + 1; v++)
      for (let u = cx - 1; u <= cx + 1; u++)
        for (const other of cells.get(key(u, v, polarity)) ?? []) {
          const [ox, oy] = place(other);
          if (Math.abs(ox - x) <= CROWD && Math.abs(oy - y) <= CROWD) near++;
        }
    return near;
  });
}
var BIAS = 1.422;
var WEIGHTS = [
  -1.263,
  -0.294,
  0.958,
  1.891,
  -0.496,
  -0.292,
  1.04,
  1.089,
  1.382,
  0.351,
  3.193,
  9.358,
  -12.865,
  4.65,
  -0.706,
  -0.324,
  -1.995,
  -1.594,
  -2.547,
  -0.883,
  6.227,
  0.332,
  -3.076,
  -2.103,
  -0.977,
  -1.151,
  -0.514,
  -0.068,
  0.411,
  0.265,
  1.523,
  1.044
];
function speckOdds(t, { level, polarity }) {
  const area = Math.log(t.area);
  const high = Math.log(t.height / 40);
  const tint = Math.min(120, t.tint) / 40;
  const ringTint = Math.min(120, t.ringTint) / 40;
  const evidence = [
    area,
    area * area / 5,
    high,
    t.clear / t.height,
    t.clear / 40,
    t.rare / t.height,
    t.rare / 40,
    Math.log((t.ring + 1) / 6),
    Math.log((t.around + 1) / 12),
    Math.log(t.height / (t.around + 2)),
    Math.log(t.height / (t.ring + 2)),
    t.extreme,
    t.extreme * t.extreme,
    (t.tone - 128) / 128 * polarity,
    tint,
    ringTint,
    tint - ringTint,
    t.compact,
    Math.log(t.long),
    t.sharp,
    t.rough,
    Math.log((t.mixed + 2) / 15),
    Math.log((t.busy + 0.5) / 4),
    Math.log(t.height / (t.busy + 1)),
    Math.log1p(t.crowd),
    level === 0 ? 1 : 0,
    level === 1 ? 1 : 0,
    level === 2 ? 1 : 0,
    polarity,
    polarity * high,
    high * area / 3,
    t.sharp * area / 3
  ];
  let sum = BIAS;
  for (let k = 0; k < WEIGHTS.length; k++) sum += WEIGHTS[k] * evidence[k];
  return sum;
}
var USUAL = 0.25;
var BROAD = 0.5;
var SURE = 1;
var DUSTY = 20;
function agreed(specks, frame) {
  const megapixels = frame.width * frame.height / 1e6;
  const sure = [1, -1].map((sign) => specks.filter((s) => s.polarity === sign && s.odds > SURE));
  const tones = sure.map((list) => middleAndSpread(list.map(({ traits }) => traits.tone)));
  const rates = sure.map((list) => Math.log(list.length / megapixels / DUSTY + 0.05));
  const asked = specks.map((speck) => {
    const own = speck.polarity === 1 ? 0 : 1;
    const { middle, spread } = tones[own];
    const known = sure[own].length >= 3;
    const off = known ? Math.min(4, Math.abs(speck.traits.tone - middle) / (spread + 8)) : 0;
    const odds = -USUAL - BROAD * speck.level - 0.89 + 0.799 * speck.odds + 0.404 * rates[own] + 0.527 * rates[1 - own] - 0.167 * off + (known ? 0.224 : 0) + 0.061 * speck.odds * rates[own];
    return { ...speck, odds };
  });
  asked.sort((a, b) => b.odds - a.odds || a.site[0] - b.site[0]);
  const taken = new Uint8Array(frame.width * frame.height);
  return asked.filter(({ site }) => {
    if (site.some((p2) => taken[p2])) return false;
    for (const p2 of site) taken[p2] = 1;
    return true;
  });
}
function middleAndSpread(values) {
  const middle = medianOf(values);
  return { middle, spread: medianOf(values.map((v) => Math.abs(v - middle))) };
}

// packages/core/src/survey/curves.ts
var TURN = 0.75;
function linked(ridges, options) {
  const { count, strength } = ridges;
  const seeds = [];
  for (let k = 0; k < count; k++) if (Math.abs(strength[k]) >= options.start) seeds.push(k);
  const order = Int32Array.from(seeds).sort(
    (a, b) => Math.abs(strength[b]) - Math.abs(strength[a]) || a - b
  );
  const used = new Uint8Array(count);
  const curves = [];
  for (const seed of order) {
    if (used[seed]) continue;
    used[seed] = 1;
    const ahead = followed(ridges, used, seed, 1);
    const behind = followed(ridges, used, seed, -1);
    const points = [...behind.reverse(), seed, ...ahead];
    if (points.length < Math.max(4, options.shortest / 4)) continue;
    curves.push(curveOf(ridges, points));
  }
  return joined(curves, options.gap).filter(({ xs }) => xs.length >= options.shortest);
}
function curveOf({ x, y, strength }, points) {
  let sum = 0;
  for (const k of points) sum += strength[k];
  return {
    xs: Float32Array.from(points, (k) => x[k]),
    ys: Float32Array.from(points, (k) => y[k]),
    polarity: sum > 0 ? 1 : -1,
    strength: Math.abs(sum) / points.length
  };
}
function followed(ridges, used, seed, way) {
  const { width, height, at, x, y, nx, ny, strength } = ridges;
  const found = [];
  let k = seed;
  let tx = -way * ny[k];
  let ty = way * nx[k];
  const sign = Math.sign(strength[seed]);
  for (; ; ) {
    const px = Math.round(x[k]);
    const py = Math.round(y[k]);
    let best = -1;
    let cost = Infinity;
    for (let dy = -2; dy <= 2; dy++)
      for (let dx = -2; dx <= 2; dx++) {
        const qx = px + dx;
        const qy = py + dy;
        if (qx < 0 || qy < 0 || qx >= width || qy >= height) continue;
        const q = at[qy * width + qx] - 1;
        if (q < 0 || used[q] || Math.sign(strength[q]) !== sign) continue;
        const [vx2, vy2] = [x[q] - x[k], y[q] - y[k]];
        const d = Math.sqrt(vx2 * vx2 + vy2 * vy2);
        const on = (vx2 * tx + vy2 * ty) / (d || 1);
        if (d > 2.6 || on < TURN) continue;
        const along2 = Math.abs(-ny[q] * tx + nx[q] * ty);
        const c = d + 2 * (1 - on) + 2 * (1 - along2);
        if (along2 > TURN && c < cost) {
          cost = c;
          best = q;
        }
      }
    if (best < 0) return found;
    const [vx, vy] = [x[best] - x[k], y[best] - y[k]];
    markBeside(ridges, used, px, py, best);
    used[best] = 1;
    found.push(best);
    k = best;
    let [ax, ay] = [-ny[k], nx[k]];
    if (ax * vx + ay * vy < 0) [ax, ay] = [-ax, -ay];
    tx = 0.6 * tx + 0.4 * ax;
    ty = 0.6 * ty + 0.4 * ay;
    const length = Math.sqrt(tx * tx + ty * ty) || 1;
    tx /= length;
    ty /= length;
  }
}
function markBeside({ width, at }, used, px, py, best) {
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) {
      const q = at[(py + dy) * width + px + dx];
      if (q !== void 0 && q > 0 && q - 1 !== best) used[q - 1] = 1;
    }
}
function leaving({ xs, ys }, end) {
  const n = xs.length;
  const reach = Math.min(n - 1, 10);
  const [a, b] = end ? [n - 1 - reach, n - 1] : [reach, 0];
  const [dx, dy] = [xs[b] - xs[a], ys[b] - ys[a]];
  const d = Math.sqrt(dx * dx + dy * dy) || 1;
  return [dx / d, dy / d];
}
var FACING2 = 0.85;
function joined(curves, gap) {
  if (gap <= 0 || curves.length < 2) return [...curves];
  const cells = /* @__PURE__ */ new Map();
  const size = Math.max(4, gap);
  const key = (x, y) => Math.floor(y / size) * 65536 + Math.floor(x / size);
  const ends = curves.flatMap(
    (curve, c) => [0, 1].map((end) => {
      const i = end ? curve.xs.length - 1 : 0;
      return { c, end, x: curve.xs[i], y: curve.ys[i], way: leaving(curve, end) };
    })
  );
  ends.forEach((e, k) => {
    const list = cells.get(key(e.x, e.y));
    if (list) list.push(k);
    else cells.set(key(e.x, e.y), [k]);
  });
  const pairs = [];
  ends.forEach((e, a) => {
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++)
        for (const b of cells.get(key(e.x + dx * size, e.y + dy * size)) ?? []) {
          const f2 = ends[b];
          if (b <= a || f2.c === e.c || curves[e.c].polarity !== curves[f2.c].polarity) continue;
          const [vx, vy] = [f2.x - e.x, f2.y - e.y];
          const d = Math.sqrt(vx * vx + vy * vy);
          const short = Math.min(curves[e.c].xs.length, curves[f2.c].xs.length);
          if (d > gap || d > 1.2 * short + 3) continue;
          const out = d < 1.5 ? 1 : (vx * e.way[0] + vy * e.way[1]) / d;
          const back = d < 1.5 ? 1 : -(vx * f2.way[0] + vy * f2.way[1]) / d;
          const facing2 = -(e.way[0] * f2.way[0] + e.way[1] * f2.way[1]);
          if (out < FACING2 || back < FACING2 || facing2 < FACING2) continue;
          const [s, t] = [curves[e.c].strength, curves[f2.c].strength];
          const like = Math.min(s, t) / Math.max(s, t);
          if (like < 0.3) continue;
          pairs.push({ a, b, cost: d + 20 * (3 - out - back - facing2) + 6 * (1 - like) });
        }
  });
  pairs.sort((p2, q) => p2.cost - q.cost || p2.a - q.a || p2.b - q.b);
  const mate = new Int32Array(ends.length).fill(-1);
  for (const { a, b } of pairs) {
    if (mate[a] >= 0 || mate[b] >= 0) continue;
    mate[a] = b;
    mate[b] = a;
  }
  return strung(curves, mate);
}
function strung(curves, mate) {
  const done = new Uint8Array(curves.length);
  const out = [];
  const gather = (first) => {
    const xs = [];
    const ys = [];
    let sum = 0;
    let end = first;
    for (; ; ) {
      const c = end >> 1;
      if (done[c]) break;
      done[c] = 1;
      const curve = curves[c];
      const n = curve.xs.length;
      for (let i = 0; i < n; i++) {
        const k = end & 1 ? n - 1 - i : i;
        xs.push(curve.xs[k]);
        ys.push(curve.ys[k]);
      }
      sum += n * curve.strength;
      const next = mate[end ^ 1];
      if (next < 0) break;
      end = next;
    }
    out.push({
      xs: Float32Array.from(xs),
      ys: Float32Array.from(ys),
      polarity: curves[first >> 1].polarity,
      strength: sum / xs.length
    });
  };
  for (let e = 0; e < 2 * curves.length; e++) if (mate[e] < 0 && !done[e >> 1]) gather(e);
  for (let c = 0; c < curves.length; c++) if (!done[c]) gather(2 * c);
  return out;
}

// packages/core/src/survey/profile.ts
var SIDE = { from: 3, to: 5.5 };
var STEP = 0.5;
var REACH2 = SIDE.to / STEP;
function profileOf(plane, curve) {
  const { xs, ys, polarity } = curve;
  const n = xs.length;
  const profile = {
    crest: new Float32Array(n),
    left: new Float32Array(n),
    right: new Float32Array(n),
    stands: new Float32Array(n),
    width: new Float32Array(n)
  };
  const across = new Float32Array(2 * REACH2 + 1);
  for (let i = 0; i < n; i++) {
    const a = Math.max(0, i - 3);
    const b = Math.min(n - 1, i + 3);
    const [tx, ty] = [xs[b] - xs[a], ys[b] - ys[a]];
    const d = Math.sqrt(tx * tx + ty * ty) || 1;
    const [nx, ny] = [-ty / d, tx / d];
    for (let k = -REACH2; k <= REACH2; k++)
      across[k + REACH2] = sampleAt(plane, xs[i] + k * STEP * nx, ys[i] + k * STEP * ny);
    const crest = (across[REACH2 - 1] + across[REACH2] + across[REACH2 + 1]) / 3;
    const left = sideOf(across, -1);
    const right = sideOf(across, 1);
    profile.crest[i] = crest;
    profile.left[i] = left;
    profile.right[i] = right;
    profile.stands[i] = Math.min(polarity * (crest - left), polarity * (crest - right));
    profile.width[i] = flank(across, crest, left, -1) + flank(across, crest, right, 1);
  }
  return profile;
}
function sideOf(across, way) {
  let sum = 0;
  let count = 0;
  for (let k = SIDE.from / STEP; k <= REACH2; k++, count++) sum += across[REACH2 + way * k];
  return sum / count;
}
function flank(across, crest, side, way) {
  const half = (crest + side) / 2;
  const sign = Math.sign(crest - side);
  let before = across[REACH2];
  for (let k = 1; k <= REACH2; k++) {
    const v = across[REACH2 + way * k];
    if (sign * (v - half) <= 0) {
      const t = before === v ? 0 : (before - half) / (before - v);
      return STEP * (k - 1 + Math.min(1, Math.max(0, t)));
    }
    before = v;
  }
  return SIDE.from;
}

// packages/core/src/survey/ridges.ts
var BLOB = 0.5;
function ridgesOf(plane, sigma, least) {
  const { width, height } = plane;
  const { values } = blurred(plane, sigma);
  const at = new Int32Array(width * height);
  const norm = sigma * sigma;
  let room = 1 << 14;
  let [x, y, nx, ny, strength] = [0, 0, 0, 0, 0].map(() => new Float32Array(room));
  let count = 0;
  for (let py = 1; py < height - 1; py++)
    for (let px = 1, p2 = py * width + 1; px < width - 1; px++, p2++) {
      const v = values[p2];
      const [l, r, u, d] = [values[p2 - 1], values[p2 + 1], values[p2 - width], values[p2 + width]];
      const xx = l + r - 2 * v;
      const yy = u + d - 2 * v;
      if ((Math.abs(xx) + Math.abs(yy)) * norm < 0.5 * least) continue;
      const xy = (values[p2 - width - 1] + values[p2 + width + 1] - values[p2 - width + 1] - values[p2 + width - 1]) / 4;
      const mean = (xx + yy) / 2;
      const half = (xx - yy) / 2;
      const root = Math.sqrt(half * half + xy * xy);
      const large = mean < 0 ? mean - root : mean + root;
      const small = mean < 0 ? mean + root : mean - root;
      const s = (Math.abs(large) - BLOB * Math.abs(small)) * norm;
      if (s < least) continue;
      let ex = xy;
      let ey = large - xx;
      if (Math.abs(large - yy) > Math.abs(ey)) {
        ex = large - yy;
        ey = xy;
      }
      const length = Math.sqrt(ex * ex + ey * ey);
      if (length < 1e-9) {
        ex = 1;
        ey = 0;
      } else {
        ex /= length;
        ey /= length;
      }
      const slope = (r - l) / 2 * ex + (d - u) / 2 * ey;
      const t = -slope / large;
      if (Math.abs(t * ex) > 0.6 || Math.abs(t * ey) > 0.6) continue;
      if (count === room) {
        room *= 2;
        [x, y, nx, ny, strength] = [x, y, nx, ny, strength].map((old) => {
          const more = new Float32Array(room);
          more.set(old);
          return more;
        });
      }
      x[count] = px + t * ex;
      y[count] = py + t * ey;
      nx[count] = ex;
      ny[count] = ey;
      strength[count] = large < 0 ? s : -s;
      at[p2] = ++count;
    }
  return { width, height, at, count, x, y, nx, ny, strength };
}

// packages/core/src/survey/strands.ts
var SIGMA = 1.2;
var WEAKEST = 2.5;
var START = 5;
var SHORTEST2 = 20;
var GAP = 14;
var AROUND2 = 16;
function strandsAt(plane, level) {
  const ridges = ridgesOf(plane, SIGMA, WEAKEST);
  const curves = linked(ridges, { start: START, shortest: SHORTEST2, gap: GAP });
  const mean = boxMean(plane, 3);
  const off = { ...plane, values: plane.values.map((v, p2) => Math.abs(v - mean.values[p2])) };
  const busy = boxMean(off, AROUND2);
  const crests = [1, -1].map((sign) => {
    const values = new Float32Array(plane.values.length);
    for (let p2 = 0; p2 < values.length; p2++) {
      const k = ridges.at[p2] - 1;
      if (k >= 0 && ridges.strength[k] * sign >= START) values[p2] = 1;
    }
    return boxMean({ ...plane, values }, AROUND2);
  });
  const scale = 2 ** level;
  const shift2 = (scale - 1) / 2;
  return curves.map((curve) => {
    const profile = profileOf(plane, curve);
    const crowd = crests[curve.polarity === 1 ? 0 : 1];
    return {
      xs: curve.xs.map((x) => x * scale + shift2),
      ys: curve.ys.map((y) => y * scale + shift2),
      widths: smoothed(profile.width).map((w) => w * scale),
      polarity: curve.polarity,
      level,
      traits: traitsOf(
        curve.xs,
        curve.ys,
        curve.polarity,
        profile,
        plane.width,
        busy.values,
        crowd.values
      )
    };
  });
}
function traitsOf(xs, ys, polarity, profile, width, busy, crowd) {
  const n = xs.length;
  const height = middleOf2(profile.stands);
  const floor = Math.max(1, height);
  let whole = 0;
  let [busySum, crowdSum, sides] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    if (profile.stands[i] > floor / 3) whole++;
    const p2 = Math.round(ys[i]) * width + Math.round(xs[i]);
    busySum += busy[p2];
    crowdSum += crowd[p2];
    sides += Math.abs(profile.left[i] - profile.right[i]);
  }
  const own = (2 * AROUND2 + 1) / (2 * AROUND2 + 1) ** 2;
  const ground = profile.left.map((l, i) => (l + profile.right[i]) / 2);
  const w = middleOf2(profile.width);
  const crest = middleOf2(profile.crest);
  const chord = Math.hypot(xs[n - 1] - xs[0], ys[n - 1] - ys[0]);
  return {
    length: n,
    height,
    whole: whole / n,
    unsteady: scatterOf(profile.crest) / floor,
    ground: scatterOf(ground),
    lopsided: sides / n / floor,
    busy: busySum / n,
    crowd: Math.max(0, crowdSum / n - own),
    turn: turnOf2(xs, ys),
    straight: Math.min(1, chord / pathLength(xs, ys)),
    width: w,
    uneven: scatterOf(profile.width) / Math.max(0.5, w),
    extreme: polarity === 1 ? crest / 255 : 1 - crest / 255
  };
}
function pathLength(xs, ys) {
  let sum = 0;
  for (let i = 1; i < xs.length; i++) sum += Math.hypot(xs[i] - xs[i - 1], ys[i] - ys[i - 1]);
  return sum || 1;
}
function turnOf2(xs, ys) {
  const s = 6;
  let sum = 0;
  let count = 0;
  for (let i = s; i + s < xs.length; i++, count++) {
    const [ax, ay] = [xs[i] - xs[i - s], ys[i] - ys[i - s]];
    const [bx, by] = [xs[i + s] - xs[i], ys[i + s] - ys[i]];
    sum += Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
  }
  return count ? sum / count / s : 0;
}
function middleOf2(values) {
  const sorted = Float32Array.from(values).sort();
  return sorted[sorted.length >> 1] ?? 0;
}
function scatterOf(values) {
  const middle = middleOf2(values);
  return 1.4826 * middleOf2(values.map((v) => Math.abs(v - middle)));
}
function smoothed(values) {
  return values.map((_, i) => {
    const from = Math.max(0, i - 4);
    const to = Math.min(values.length, i + 5);
    let sum = 0;
    for (let k = from; k < to; k++) sum += values[k];
    return sum / (to - from);
  });
}

// packages/core/src/survey/stroke-mask.ts
function strokePixels(line, frame, more = 0) {
  const { xs, ys, widths } = line;
  const seen2 = /* @__PURE__ */ new Set();
  const disc = (cx, cy, r) => {
    for (let y = Math.max(0, Math.ceil(cy - r)); y <= Math.min(frame.height - 1, cy + r); y++) {
      const half = Math.sqrt(Math.max(0, r * r - (y - cy) ** 2));
      for (let x = Math.max(0, Math.ceil(cx - half)); x <= Math.min(frame.width - 1, cx + half); x++)
        seen2.add(y * frame.width + x);
    }
  };
  for (let i = 0; i < xs.length; i++) {
    const r = Math.max(0.75, (widths[i] + more) / 2);
    disc(xs[i], ys[i], r);
    if (i + 1 === xs.length) break;
    const [dx, dy] = [xs[i + 1] - xs[i], ys[i + 1] - ys[i]];
    const steps = Math.ceil(Math.hypot(dx, dy) / Math.max(0.5, r / 2));
    for (let k = 1; k < steps; k++) {
      const t = k / steps;
      disc(xs[i] + t * dx, ys[i] + t * dy, r + t * (widths[i + 1] - widths[i]) / 2);
    }
  }
  return Int32Array.from(seen2).sort();
}

// packages/core/src/proof/tell.ts
var TELL_KINDS = [
  "seam",
  "tone",
  "softness",
  "grain",
  "repeat",
  "broken-line",
  "leftover",
  "pull"
];
var TELL_RANGES = {
  seam: [1.2, 4],
  tone: [1, 8],
  softness: [0.9, 0.3],
  grain: [0.95, 0.4],
  repeat: [6, 60],
  "broken-line": [1, 6],
  leftover: [0.3, 0.95],
  pull: [0.3, 0.95]
};
var STRICTEST_LIMITS = Object.fromEntries(
  TELL_KINDS.map((kind) => [kind, TELL_RANGES[kind][0]])
);

// packages/core/src/proof/line-tell.ts
var HALF4 = 9;
var N2 = 2 * HALF4 + 1;

// packages/core/src/proof/patches.ts
var HALF5 = 5;
var SIDE2 = 2 * HALF5 + 1;

// packages/core/src/proof/repeat-tell.ts
var PAIRS = comparisons(32);
function comparisons(count) {
  const random = seededRandom(41);
  const at = () => random.between(-HALF5, HALF5);
  return Array.from({ length: count }, () => [at(), at(), at(), at()]);
}

// packages/core/src/survey/outlines.ts
function boxOf2(pixels, width) {
  let [left, right] = [Infinity, -1];
  for (const p2 of pixels) {
    const x = p2 % width;
    left = Math.min(left, x);
    right = Math.max(right, x);
  }
  const top = Math.floor(pixels[0] / width);
  const bottom = Math.floor(pixels[pixels.length - 1] / width);
  return { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
}

// packages/core/src/survey/running.ts
function middleOver(values, reach) {
  return values.map((_, i) => {
    const part = values.slice(Math.max(0, i - reach), i + reach + 1).sort();
    return part[part.length >> 1];
  });
}

// packages/core/src/survey/creases.ts
var PART2 = -1.5;
var USUAL2 = 6;
var GAP2 = { widths: 30, most: 260 };
function judge(shorter) {
  return ({
    traits: t,
    level,
    polarity
  }) => {
    if (polarity < 0) return -9;
    const length = t.length * 2 ** level;
    return Math.min(2, 14 * (t.extreme - 0.78)) - 5 * (Math.min(1, t.unsteady) - 0.2) + 1.5 * Math.log(Math.max(4, t.height) / 40) + 1.5 * Math.log(length / (0.2 * shorter)) - 0.8 * (Math.min(3, t.lopsided) - 0.6) + 3 * (t.whole - 0.8) - // The finest level tells hairs and scratches as well: a crease is broad.
    (t.width * 2 ** level < 4 ? 3 : 0);
  };
}
function creasesOf(strands, plane) {
  const shorter = Math.min(plane.width, plane.height);
  return chained2(strands, plane, { judge: judge(shorter), part: PART2, gap: GAP2 }).filter(({ odds }) => odds > 0).map((chain) => {
    const line = evenly(toTheBorder(chain, plane));
    const { left, right, rough } = flanksOf(plane, line, chain.traits.extreme * 255);
    return {
      ...line,
      widths: left.map((l, i) => l + right[i]),
      site: between(line, left, right, plane),
      odds: chain.odds + 2 * Math.log((rough + 0.1) / 0.7) + 2 * Math.log(line.xs.length / (0.35 * shorter)) - USUAL2,
      polarity: 1
    };
  }).sort((a, b) => b.odds - a.odds);
}
function toTheBorder({ xs, ys, widths }, { width, height }) {
  const near = 0.06 * Math.min(width, height);
  let [x, y, w] = [[...xs], [...ys], [...widths]];
  for (let end = 0; end < 2; end++) {
    x = x.reverse();
    y = y.reverse();
    w = w.reverse();
    const n = x.length;
    const back = Math.max(0, n - 1 - 20);
    const [dx, dy] = [x[n - 1] - x[back], y[n - 1] - y[back]];
    const d = Math.hypot(dx, dy) || 1;
    const steps = Math.min(
      dx > 0 ? (width - 1 - x[n - 1]) * d / dx : dx < 0 ? -x[n - 1] * d / dx : Infinity,
      dy > 0 ? (height - 1 - y[n - 1]) * d / dy : dy < 0 ? -y[n - 1] * d / dy : Infinity
    );
    if (steps > near) continue;
    x.push(x[n - 1] + steps * dx / d);
    y.push(y[n - 1] + steps * dy / d);
    w.push(w[n - 1]);
  }
  return { xs: Float32Array.from(x), ys: Float32Array.from(y), widths: Float32Array.from(w) };
}
function evenly({ xs, ys, widths }) {
  const [x, y, w] = [[], [], []];
  for (let i = 0; i + 1 < xs.length; i++) {
    const n = Math.max(1, Math.round(Math.hypot(xs[i + 1] - xs[i], ys[i + 1] - ys[i])));
    for (let k = 0; k < n; k++) {
      const t = k / n;
      x.push(xs[i] + t * (xs[i + 1] - xs[i]));
      y.push(ys[i] + t * (ys[i + 1] - ys[i]));
      w.push(widths[i] + t * (widths[i + 1] - widths[i]));
    }
  }
  return { xs: Float32Array.from(x), ys: Float32Array.from(y), widths: Float32Array.from(w) };
}
function acrossAt({ xs, ys }, i) {
  const [a, b] = [Math.max(0, i - 8), Math.min(xs.length - 1, i + 8)];
  const [dx, dy] = [xs[b] - xs[a], ys[b] - ys[a]];
  const d = Math.hypot(dx, dy) || 1;
  return [-dy / d, dx / d];
}
function flanksOf(plane, line, tone2) {
  const n = line.xs.length;
  const usual = [...line.widths].sort((a, b) => a - b)[n >> 1] / 2;
  const sides = [-1, 1].map((way) => {
    const reach = new Float32Array(n);
    for (let i = 0; i < n; i++) {
      const [nx, ny] = acrossAt(line, i);
      const at = (o) => sampleAt(plane, line.xs[i] + way * o * nx, line.ys[i] + way * o * ny);
      const side = (at(1.8 * usual + 3) + at(1.8 * usual + 5) + at(2.2 * usual + 5)) / 3;
      const half = (tone2 + side) / 2;
      let found = usual;
      if (tone2 - side > 25) {
        for (let o = 0; o < 1.9 * usual + 3; o += 0.5) if (at(o) > half) found = o + 0.5;
      }
      reach[i] = found;
    }
    return reach;
  });
  const steady = sides.map((s) => middleOver(s, 15));
  const jag = sides.flatMap((s, k) => [...s].map((v, i) => Math.abs(v - steady[k][i]))).sort((a, b) => a - b);
  const limited = sides.map((s, k) => s.map((v, i) => Math.min(v, steady[k][i] + 3) + 0.75));
  return { left: limited[0], right: limited[1], rough: jag[Math.floor(0.7 * jag.length)] };
}
function between(line, left, right, { width, height }) {
  const found = /* @__PURE__ */ new Set();
  for (let i = 0; i < line.xs.length; i++) {
    const [nx, ny] = acrossAt(line, i);
    for (let o = -left[i]; o <= right[i]; o += 0.5) {
      const x = Math.round(line.xs[i] + o * nx);
      const y = Math.round(line.ys[i] + o * ny);
      if (x >= 0 && y >= 0 && x < width && y < height) found.add(y * width + x);
    }
  }
  return Int32Array.from(found).sort();
}

// packages/core/src/survey/facts.ts
var RING2 = { from: 2, to: 5 };
var SIGHT = 24;
var STRONG = 14;
var SPAN = 2;
var ASKED = 400;
var DIRECTIONS = 16;
function factsReader(picture, covered) {
  const { width, height, channels, data } = picture;
  const colours2 = colourChannels(channels);
  const white = whiteOf(data);
  const meanLab = (list) => {
    const sum = [0, 0, 0];
    for (const p2 of list)
      for (let c = 0; c < 3; c++)
        sum[c] += data[p2 * channels + (colours2 === 1 ? 0 : c)] / white / list.length;
    return labOfSrgb(sum[0], sum[1], sum[2]);
  };
  const ringOf2 = (some) => {
    const ring = [];
    for (const p2 of some) {
      const [x, y] = [p2 % width, p2 / width | 0];
      for (let k = 0; k < DIRECTIONS; k++) {
        const angle = 2 * Math.PI * k / DIRECTIONS;
        const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
        for (let r = 1, out = 0; r < SIGHT; r++) {
          const [qx, qy] = [Math.round(x + r * dx), Math.round(y + r * dy)];
          if (qx < 0 || qy < 0 || qx >= width || qy >= height) break;
          const q = qy * width + qx;
          out = covered[q] ? 0 : out + 1;
          if (out >= RING2.from) ring.push(q);
          if (out >= RING2.to) break;
        }
      }
      if (ring.length > 4 * ASKED) break;
    }
    return ring;
  };
  return (pixels, box) => {
    const every = Math.max(1, Math.floor(pixels.length / ASKED));
    const some = Array.from(
      { length: Math.ceil(pixels.length / every) },
      (_, k) => pixels[k * every]
    );
    const ring = ringOf2(some.filter((_, k) => k % Math.ceil(some.length / 60) === 0));
    const [own, around] = [meanLab(some), meanLab(ring)];
    return {
      contrast: ring.length ? ciede2000(own, around) : 0,
      nearEdge: edgeNear(box),
      polarity: own.L >= around.L ? 1 : -1
    };
  };
  function edgeNear(box) {
    let best = null;
    const stepX = Math.max(3, Math.round(box.width / 6));
    const stepY = Math.max(3, Math.round(box.height / 6));
    const look2 = (x, y, dx, dy) => {
      for (let r = SPAN + 1; r < (best?.distance ?? SIGHT); r += 2) {
        const [ax, ay] = [x + (r - SPAN) * dx, y + (r - SPAN) * dy];
        const [bx, by] = [x + (r + SPAN) * dx, y + (r + SPAN) * dy];
        if (Math.min(ax, ay, bx, by) < 0 || Math.max(ax, bx) >= width || Math.max(ay, by) >= height)
          return;
        const [a, b] = [ay * width + ax, by * width + bx];
        if (covered[a] || covered[b]) continue;
        const contrast = ciede2000(meanLab([a]), meanLab([b]));
        if (contrast >= STRONG) {
          best = { distance: r, contrast };
          return;
        }
      }
    };
    for (let x = box.x; x < box.x + box.width; x += stepX) {
      look2(x, box.y, 0, -1);
      look2(x, box.y + box.height - 1, 0, 1);
    }
    for (let y = box.y; y < box.y + box.height; y += stepY) {
      look2(box.x, y, -1, 0);
      look2(box.x + box.width - 1, y, 1, 0);
    }
    return best;
  }
}

// packages/core/src/survey/fade.ts
var MOST_FADE = 3;
var GROUND = [5, 6];
var SHARE = 0.1;
var LEAST2 = 3;
var PART3 = 0.8;
function fadeOf(picture, pixels, polarity) {
  const box = intersect(grow(boxOf2(pixels, picture.width), GROUND[1] + 1), frameOf(picture));
  const { width, height } = box;
  const outside = new Uint8Array(width * height).fill(1);
  for (const p2 of pixels)
    outside[(Math.floor(p2 / picture.width) - box.y) * width + p2 % picture.width - box.x] = 0;
  const grey = greyOf(crop(picture, box));
  const rings = Array.from({ length: GROUND[1] + 1 }, () => []);
  depthsOf(outside, width, height).forEach((d, p2) => {
    const ring = Math.round(d);
    if (ring < rings.length) rings[ring].push(polarity * grey[p2]);
  });
  const [own, ground] = [rings[0], [...rings[GROUND[0]], ...rings[GROUND[1]]]];
  if (!own.length || !ground.length) return 0;
  const base = partOf(ground);
  const clear = Math.max(LEAST2, SHARE * (partOf(own) - base));
  if (globalThis.DBG) console.log(rings.map((r) => r.length + ":" + partOf(r)), base, clear);
  let fade = 0;
  while (fade < MOST_FADE) {
    const ring = rings[fade + 2];
    if (!ring.length || partOf(ring) - base <= clear) break;
    fade++;
  }
  return fade;
}
function partOf(values) {
  values.sort((a, b) => a - b);
  return values[Math.min(values.length - 1, Math.floor(PART3 * values.length))];
}

// packages/core/src/survey/finding.ts
var FINDING_KINDS = [
  "losses",
  "creases",
  "mesh",
  "wires",
  "ink",
  "specks",
  "lines",
  "stains",
  "pulls"
];

// packages/core/src/survey/pieces.ts
function piecesOf(mask, width) {
  return partsOf(mask, width).map((pixels) => {
    let [left, right] = [width, 0];
    for (const p2 of pixels) {
      const x = p2 % width;
      left = Math.min(left, x);
      right = Math.max(right, x);
    }
    const top = Math.floor(pixels[0] / width);
    const bottom = Math.floor(pixels[pixels.length - 1] / width);
    return { pixels, left, top, right, bottom };
  });
}
function gathered(pieces, gap) {
  const group = pieces.map((_, i) => i);
  const rootOf = (i) => {
    while (group[i] !== i) i = group[i];
    return i;
  };
  for (let i = 0; i < pieces.length; i++)
    for (let j = 0; j < i; j++) {
      const [a, b] = [pieces[i], pieces[j]];
      const apart = Math.max(
        a.left - b.right,
        b.left - a.right,
        a.top - b.bottom,
        b.top - a.bottom
      );
      if (apart <= gap) group[rootOf(i)] = rootOf(j);
    }
  const groups = /* @__PURE__ */ new Map();
  pieces.forEach((piece, i) => {
    const root = rootOf(i);
    const list = groups.get(root);
    if (list) list.push(piece);
    else groups.set(root, [piece]);
  });
  return [...groups.values()];
}

// packages/core/src/survey/ink-sites.ts
var SURELY = 18;
var PERHAPS = 70;
var CRISP = 0.6;
var SHARP = 0.93;
var STEADY2 = { least: 6, over: 2 };
var STEP2 = 30;
var RULED2 = 16;
function inkSites({ grey, colours: colours2 }, ink, taken) {
  const { width, height } = grey;
  const planes = (colours2.length ? colours2 : [grey, grey, grey]).map(({ values }) => values);
  const off = (p2) => Math.max(...planes.map((v, c) => Math.abs(v[p2] - ink.colour[c])));
  const widths = ink.strokes.map((s) => s.widths[s.widths.length >> 1]).sort((a, b) => a - b);
  const breadth = widths[Math.floor(0.9 * (widths.length - 1))];
  const thin = widths[Math.floor(0.1 * (widths.length - 1))];
  const stretch = stretchOf(ink.strokes, 4 * breadth, width, height);
  const like = new Uint8Array(width * height);
  for (let y = stretch.top; y <= stretch.bottom; y++)
    for (let x = stretch.left; x <= stretch.right; x++) {
      const p2 = y * width + x;
      if (!taken[p2] && off(p2) <= ink.loose * SURELY) like[p2] = 1;
    }
  const depths = depthsOf(like, width, height);
  const edgeOf = ({ pixels }) => {
    let [deepest, edge, clear, stray, heart] = [0, 0, 0, 0, 0];
    for (const p2 of pixels) {
      deepest = Math.max(deepest, depths[p2]);
      if (depths[p2] > 1) {
        stray += off(p2);
        heart++;
        continue;
      }
      const x = p2 % width;
      for (const [step, room] of [
        [1, width - 1 - x],
        [-1, x],
        [width, height],
        [-width, height]
      ]) {
        const [next, far] = [p2 + step, p2 + 3 * step];
        if (room < 3 || like[next] || off(far) === void 0) continue;
        if (far < 0 || far >= like.length) continue;
        edge++;
        if (off(far) >= STEP2) clear++;
      }
    }
    return { deepest, crisp: edge ? clear / edge : 0, stray: heart ? stray / heart : 0 };
  };
  const crests = new Uint8Array(width * height);
  for (const { xs, ys } of ink.strokes)
    for (let i = 0; i < xs.length; i++) crests[Math.round(ys[i]) * width + Math.round(xs[i])] = 1;
  const [good, doubtful, thick] = [[], [], []];
  const pieces = piecesOf(like, width).map((piece) => ({ piece, ...edgeOf(piece) }));
  const steady = ink.loose * steadyOf(pieces.filter(({ piece }) => piece.pixels.some((p2) => crests[p2])));
  for (const { piece, deepest, crisp, stray } of pieces) {
    if (ruled(piece, width, deepest)) continue;
    const crossed = piece.pixels.some((p2) => crests[p2]);
    if (deepest > 0.75 * breadth + 2 || crisp < (stray > steady ? SHARP : CRISP)) {
      if (crossed) thick.push(piece);
    } else if (crossed && piece.pixels.length > 0.3 * breadth * breadth) good.push(piece);
    else if (piece.pixels.length > breadth * thin && 2 * deepest > 0.6 * thin) doubtful.push(piece);
  }
  good.push(...beside(doubtful, good, 3 * breadth));
  const part = new Uint8Array(width * height);
  for (const { pixels } of thick) for (const p2 of pixels) part[p2] = 1;
  for (const stroke of ink.strokes) {
    const own = strokePixels(stroke, grey).filter((p2) => part[p2]);
    const stray = own.reduce((sum, p2) => sum + off(p2), 0) / own.length;
    if (own.length < breadth * thin || stray > steady) continue;
    const mask = new Uint8Array(width * height);
    for (const p2 of own) mask[p2] = 1;
    const near = piecesOf(mask, width);
    good.push(...beside(near, good, 3 * breadth));
  }
  return gathered(good, 3 * breadth).map((group) => {
    const site = withSoftEdge(
      group.flatMap(({ pixels }) => [...pixels]),
      (p2) => off(p2) <= Math.max(PERHAPS, 2 * ink.loose * SURELY),
      taken,
      { width, height }
    );
    for (const p2 of site) taken[p2] = 1;
    return site;
  });
}
function steadyOf(pieces) {
  const crisp = pieces.filter((p2) => p2.crisp > 0.8).sort((a, b) => a.stray - b.stray);
  const half = crisp.reduce((sum2, { piece }) => sum2 + piece.pixels.length, 0) / 2;
  let sum = 0;
  const middle = crisp.find(({ piece }) => (sum += piece.pixels.length) >= half);
  return Math.max(STEADY2.least, STEADY2.over * (middle?.stray ?? 0));
}
function beside(some, others, gap) {
  return some.filter(
    (a) => others.some(
      (b) => Math.max(a.left - b.right, b.left - a.right, a.top - b.bottom, b.top - a.bottom) <= gap
    )
  );
}
function stretchOf(strokes, more, width, height) {
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (const { xs, ys } of strokes)
    for (let i = 0; i < xs.length; i++) {
      left = Math.min(left, xs[i]);
      right = Math.max(right, xs[i]);
      top = Math.min(top, ys[i]);
      bottom = Math.max(bottom, ys[i]);
    }
  return {
    left: Math.max(0, Math.floor(left - more)),
    top: Math.max(0, Math.floor(top - more)),
    right: Math.min(width - 1, Math.ceil(right + more)),
    bottom: Math.min(height - 1, Math.ceil(bottom + more))
  };
}
function ruled({ pixels }, width, deepest) {
  let [cx, cy] = [0, 0];
  for (const p2 of pixels) {
    cx += p2 % width;
    cy += p2 / width | 0;
  }
  cx /= pixels.length;
  cy /= pixels.length;
  let [xx, yy, xy] = [0, 0, 0];
  for (const p2 of pixels) {
    const [dx, dy] = [p2 % width - cx, (p2 / width | 0) - cy];
    xx += dx * dx;
    yy += dy * dy;
    xy += dx * dy;
  }
  const root = Math.sqrt(((xx - yy) / 2) ** 2 + xy * xy);
  const [long, across] = [(xx + yy) / 2 + root, Math.max(0, (xx + yy) / 2 - root)].map(
    (v) => Math.sqrt(12 * v / pixels.length)
  );
  return long > RULED2 * 2 * deepest && across < 3 * 2 * deepest;
}
function withSoftEdge(pixels, may, taken, { width, height }) {
  const found = new Set(pixels);
  let edge = [...pixels];
  for (let round = 0; round < 3; round++) {
    const next = [];
    for (const p2 of edge) {
      const x = p2 % width;
      for (const q of [x > 0 ? p2 - 1 : -1, x < width - 1 ? p2 + 1 : -1, p2 - width, p2 + width]) {
        if (q < 0 || q >= width * height || taken[q] || found.has(q)) continue;
        if (round > 0 && !may(q)) continue;
        found.add(q);
        next.push(q);
      }
    }
    edge = next;
  }
  return Int32Array.from(found).sort();
}

// packages/core/src/survey/tone-curve.ts
var MONOCHROME = 1.3;
var STEPS3 = 24;
var KNOWN = 2e-3;
function toneCurveOf({ grey, colours: colours2 }) {
  const count = grey.width * grey.height;
  const [r, g, b] = colours2.map((plane) => blurred(plane, 1.5).values);
  const labs = Array.from(
    { length: count },
    (_, p2) => labOfSrgb(r[p2] / 255, g[p2] / 255, b[p2] / 255)
  );
  const steps = Array.from({ length: STEPS3 }, () => ({
    a: [],
    b: []
  }));
  const stepOf = ({ L }) => Math.max(0, Math.min(STEPS3 - 1, Math.floor(L / 100 * STEPS3)));
  for (const lab of labs) {
    const step = steps[stepOf(lab)];
    step.a.push(lab.a);
    step.b.push(lab.b);
  }
  const curve = steps.map((s) => ({
    a: medianOf(s.a),
    b: medianOf(s.b),
    known: s.a.length > KNOWN * count
  }));
  const told = curve.map((_, k) => k).filter((k) => curve[k].known);
  const nearest = curve.map(
    (own, k) => curve[told.reduce((a, b2) => Math.abs(b2 - k) < Math.abs(a - k) ? b2 : a, told[0] ?? k)] ?? own
  );
  const at = (lab) => nearest[stepOf(lab)];
  const stray = (lab) => {
    const own = at(lab);
    return Math.hypot(lab.a - own.a, lab.b - own.b);
  };
  return { labs, at, stray, usual: medianOf(labs.map(stray)) };
}

// packages/core/src/survey/ink.ts
var STROKE = { height: 25, unsteady: 0.25, spread: 9 };
var SAME = 12;
var FOREIGN = 2.2;
var MODES = 4;
var USUAL3 = 2.2;
function inkOf(strands, layers, tone2) {
  const { width, height } = layers[0].grey;
  const isHued = (s) => foreign(s.colour, tone2) > 0.5 && isSteady(s, FOREIGN);
  const strokes = withoutEchoes(
    strands.filter((s) => s.traits.height >= STROKE.height).map((s) => strokeOf(s, layers[s.level])).filter((s) => isSteady(s, 1) || isHued(s)).sort((a, b) => b.reach - a.reach || a.xs[0] - b.xs[0]),
    layers[0].grey
  );
  const hued = strokes.filter(isHued);
  const other = new Set(hued);
  const found = [];
  const taken = new Uint8Array(width * height);
  for (const [loose, some] of [
    [FOREIGN, hued],
    [1, strokes.filter((s) => !other.has(s))]
  ])
    for (const { members, odds } of modesOf(some, Math.sqrt(width * height), loose)) {
      const colour = [0, 1, 2].map((c) => medianOf(members.map((m) => m.colour[c])));
      const own = odds + foreign(colour, tone2);
      if (own < -1) continue;
      const { polarity } = members[0];
      for (const site of inkSites(layers[0], { strokes: members, colour, loose }, taken))
        found.push({ site, colour, polarity, odds: own });
    }
  return found.sort((a, b) => b.odds - a.odds || a.site[0] - b.site[0]);
}
function isSteady({ traits, spread }, loose) {
  return traits.unsteady < loose * STROKE.unsteady && spread <= loose * STROKE.spread;
}
function strokeOf(strand, { grey, colours: colours2 }) {
  const { xs, ys, level } = strand;
  const side = 2 ** level;
  const shift2 = (side - 1) / 2;
  const planes = colours2.length ? colours2 : [grey, grey, grey];
  const colour = [];
  let spread = 0;
  for (const { values } of planes) {
    const along2 = Array.from(xs, (x, i) => {
      const [px, py] = [Math.round((x - shift2) / side), Math.round((ys[i] - shift2) / side)];
      return values[py * grey.width + px];
    });
    const middle = medianOf(along2);
    spread = Math.max(spread, medianOf(along2.map((v) => Math.abs(v - middle))));
    colour.push(middle);
  }
  return { ...strand, colour, spread, reach: xs.length * side };
}
function unlike(a, b) {
  return Math.max(...a.map((v, c) => Math.abs(v - b[c])));
}
function modesOf(strokes, size, loose) {
  let left = [...strokes];
  const modes = [];
  while (left.length && modes.length < MODES) {
    let best = [];
    let most = 0;
    for (const s of left) {
      const members = left.filter(
        (t) => t.polarity === s.polarity && unlike(s.colour, t.colour) <= loose * SAME
      );
      const reach = members.reduce((sum, m) => sum + m.reach, 0);
      if (reach > most) [best, most] = [members, reach];
    }
    modes.push({ members: best, odds: oddsOf2(best, size) });
    const gone = new Set(best);
    left = left.filter((s) => !gone.has(s));
  }
  return modes.sort((a, b) => b.odds - a.odds);
}
var COLOURED = 6;
var ALIKE = 0.5;
function foreign(colour, tone2) {
  if (!tone2 || tone2.usual > MONOCHROME) return 0;
  const [r, g, b] = colour.map((v) => v / 255);
  const lab = labOfSrgb(r, g, b);
  const chroma = Math.hypot(lab.a, lab.b);
  const own = tone2.at(lab);
  const alike = (lab.a * own.a + lab.b * own.b) / (chroma * Math.hypot(own.a, own.b) + 1e-6);
  if (chroma < COLOURED || alike > ALIKE) return 0;
  return Math.min(10, 1.5 * Math.max(0, tone2.stray(lab) - 5));
}
var DIRECTIONS2 = 12;
function oddsOf2(strokes, size) {
  const runs = new Float64Array(DIRECTIONS2);
  let reach = 0;
  for (const { xs, ys, level, reach: own } of strokes) {
    reach += own;
    for (let i = 3; i < xs.length; i += 3) {
      const angle = Math.atan2(ys[i] - ys[i - 3], xs[i] - xs[i - 3]) / Math.PI;
      runs[Math.floor((angle % 1 + 1) * DIRECTIONS2) % DIRECTIONS2] += 2 ** level;
    }
  }
  const total = runs.reduce((sum, v) => sum + v, 0) || 1;
  let spread = 0;
  for (const v of runs) if (v) spread -= v / total * Math.log(v / total);
  return 3 * Math.log(reach / size / 3) + 20 * (spread / Math.log(DIRECTIONS2) - 0.82) - USUAL3;
}

// packages/core/src/survey/mesh/crests.ts
var THIN = 3;
var CHORD = 5;
function crestsOf(strands) {
  const list = [];
  for (const { xs, ys, level } of strands) {
    const n = xs.length;
    const side = 2 ** level;
    for (let i = THIN >> 1; i < n; i += THIN) {
      const [a, b] = [Math.max(0, i - CHORD), Math.min(n - 1, i + CHORD)];
      const [dx, dy] = [xs[b] - xs[a], ys[b] - ys[a]];
      const d = Math.hypot(dx, dy);
      if (d < (b - a - 2) * side) continue;
      list.push([xs[i], ys[i], dx / d, dy / d, THIN * side, level]);
    }
  }
  const column = (k) => Float32Array.from(list, (row) => row[k]);
  return {
    count: list.length,
    x: column(0),
    y: column(1),
    tx: column(2),
    ty: column(3),
    length: column(4),
    level: Uint8Array.from(list, (row) => row[5])
  };
}

// packages/core/src/survey/mesh/phase.ts
var TERMS = { flat: 3, bowed: 6, full: 10 };
function powers(u, v) {
  return [1, u, v, u * u, u * v, v * v, u * u * u, u * u * v, u * v * v, v * v * v];
}
function phaseAt({ cx, cy, unit: unit2, terms }, x, y) {
  const u = (x - cx) / unit2;
  const v = (y - cy) / unit2;
  const [a, b, c, d, e, f2, g, h, i, j] = terms;
  return a + u * (b + u * (d + u * g + v * h) + v * (e + v * i)) + v * (c + v * (f2 + v * j));
}
function slopeAt({ cx, cy, unit: unit2, terms }, x, y) {
  const u = (x - cx) / unit2;
  const v = (y - cy) / unit2;
  const [, b, c, d, e, f2, g, h, i, j] = terms;
  return [
    (b + 2 * d * u + e * v + 3 * g * u * u + 2 * h * u * v + i * v * v) / unit2,
    (c + e * u + 2 * f2 * v + h * u * u + 2 * i * u * v + 3 * j * v * v) / unit2
  ];
}
function phaseThrough(marks, frame, count) {
  const normal = Array.from({ length: count }, () => new Array(count).fill(0));
  const right = new Array(count).fill(0);
  let total = 0;
  for (const { x, y, weight: weight2, phase } of marks) {
    const basis = powers((x - frame.cx) / frame.unit, (y - frame.cy) / frame.unit);
    total += weight2;
    for (let r = 0; r < count; r++) {
      const row = normal[r];
      for (let c = 0; c < count; c++) row[c] += weight2 * basis[r] * basis[c];
      right[r] += weight2 * basis[r] * phase;
    }
  }
  for (let r = 0; r < count; r++) normal[r][r] += total * (r < TERMS.flat ? 1e-9 : 3e-5);
  const found = solveSmall(normal, right);
  return { ...frame, terms: Array.from({ length: TERMS.full }, (_, k) => found[k] ?? 0) };
}

// packages/core/src/survey/mesh/family.ts
var STEP3 = { from: 14, most: 0.2, grow: 1.07 };
var PEAKS = 6;
var SEEDS = 2;
var ASKED2 = { window: 240, growth: 5e3 };
function familiesOf(crests, frame) {
  const families = [];
  const some = thinned(crests, ASKED2.growth);
  for (const angle of directionsOf(crests)) {
    const found = seedsOf(crests, angle, frame).map((seed) => grown2(some, crests, seed, frame)).filter((f2) => f2 !== null).sort((a, b) => worth(b) - worth(a));
    if (found[0]) families.push(found[0]);
  }
  return families.sort((a, b) => worth(b) - worth(a));
}
function thinned(crests, most) {
  const every = Math.ceil(crests.count / most);
  if (every < 2) return crests;
  const count = Math.floor(crests.count / every);
  const take = (list) => Float32Array.from({ length: count }, (_, k) => list[k * every]);
  return {
    count,
    x: take(crests.x),
    y: take(crests.y),
    tx: take(crests.tx),
    ty: take(crests.ty),
    length: take(crests.length),
    level: Uint8Array.from({ length: count }, (_, k) => crests.level[k * every])
  };
}
function worth({ borne, between: between2 }) {
  return borne * (1 - Math.min(1, between2));
}
function directionsOf({ count, tx, ty, length }) {
  const bins = 90;
  const counts = new Float64Array(bins);
  for (let k = 0; k < count; k++) {
    const angle = Math.atan2(tx[k], -ty[k]);
    counts[Math.floor((angle / Math.PI % 1 + 1) * bins) % bins] += length[k];
  }
  const smooth = counts.map((_, b) => {
    let sum = 0;
    for (let d = -3; d <= 3; d++) sum += counts[(b + d + bins) % bins] * (4 - Math.abs(d));
    return sum;
  });
  const peaks = [];
  for (let b = 0; b < bins; b++)
    if (smooth[b] > smooth[(b + bins - 1) % bins] && smooth[b] >= smooth[(b + 1) % bins])
      peaks.push(b);
  return peaks.sort((a, b) => smooth[b] - smooth[a]).slice(0, PEAKS).map((b) => (b + 0.5) / bins * Math.PI);
}
function seedsOf(crests, angle, { width, height }) {
  const { count, x, y, tx, ty, length } = crests;
  const radius = 0.22 * Math.min(width, height) + 40;
  const [nx, ny] = [Math.cos(angle), Math.sin(angle)];
  const seeds = [];
  for (const fy of [0.25, 0.5, 0.75])
    for (const fx of [0.25, 0.5, 0.75]) {
      const [cx, cy] = [fx * width, fy * height];
      let near = [];
      for (let k = 0; k < count; k++)
        if (Math.abs(x[k] - cx) < radius && Math.abs(y[k] - cy) < radius && Math.abs(tx[k] * nx + ty[k] * ny) < 0.17)
          near.push(k);
      if (near.length < 30) continue;
      const every = Math.ceil(near.length / ASKED2.window);
      near = near.filter((_, i) => i % every === 0);
      let total = 0;
      for (const k of near) total += length[k];
      const found = [];
      const most = Math.min(STEP3.most * Math.min(width, height), 0.7 * radius);
      for (let turn = -2; turn <= 2; turn++) {
        const own = angle + turn * Math.PI / 75;
        const [ax, ay] = [Math.cos(own), Math.sin(own)];
        const along2 = near.map((k) => (x[k] - cx) * ax + (y[k] - cy) * ay);
        for (let step = STEP3.from; step <= most; step *= STEP3.grow) {
          const f2 = 2 * Math.PI / step;
          let [re, im] = [0, 0];
          near.forEach((k, i) => {
            re += length[k] * Math.cos(f2 * along2[i]);
            im += length[k] * Math.sin(f2 * along2[i]);
          });
          const quality = Math.hypot(re, im) / total - 1.2 / Math.sqrt(near.length);
          found.push({
            cx,
            cy,
            angle: own,
            step,
            offset: Math.atan2(im, re) / (2 * Math.PI),
            quality
          });
        }
      }
      const best = Math.max(...found.map((s) => s.quality));
      if (best < 0.12) continue;
      const good = found.filter((s) => s.quality > 0.75 * best).sort((a, b) => b.quality - a.quality);
      const widest = good.filter((s) => s.step > 1.5 * good[0].step).sort((a, b) => b.quality - a.quality)[0];
      seeds.push(good[0]);
      if (widest) seeds.push(widest);
    }
  return seeds.sort((a, b) => b.quality - a.quality).slice(0, SEEDS);
}
var ON = 0.12;
function grown2(some, crests, seed, { width, height }) {
  const unit2 = Math.hypot(width, height) / 2;
  const frame = { cx: width / 2, cy: height / 2, unit: unit2 };
  const [fx, fy] = [Math.cos(seed.angle) / seed.step, Math.sin(seed.angle) / seed.step];
  const start = (frame.cx - seed.cx) * fx + (frame.cy - seed.cy) * fy - seed.offset;
  let phase = { ...frame, terms: [start, fx * unit2, fy * unit2, 0, 0, 0, 0, 0, 0, 0] };
  const reach = Math.hypot(Math.max(seed.cx, width - seed.cx), Math.max(seed.cy, height - seed.cy));
  let radius = 0.22 * Math.min(width, height) + 40;
  for (let last = false; !last; radius *= 1.3) {
    last = radius >= reach;
    const count = radius < 0.5 * unit2 ? TERMS.flat : radius < 0.9 * unit2 ? TERMS.bowed : TERMS.full;
    for (let round = 0; round < 3; round++) {
      const marks = marksNear(some, phase, seed, radius);
      if (marks.length < 24) return null;
      phase = phaseThrough(marks, frame, count);
    }
  }
  return measured(crests, phase, { width, height });
}
function marksNear(crests, phase, { cx, cy }, radius) {
  const { count, x, y, length } = crests;
  const marks = [];
  for (let k = 0; k < count; k++) {
    const [px, py] = [x[k], y[k]];
    const d = Math.hypot(px - cx, py - cy);
    if (d > radius || !facing(crests, k, phase)) continue;
    const at = phaseAt(phase, px, py);
    const off = at - Math.round(at);
    const share = 1 - (off / 0.28) ** 2;
    if (share <= 0) continue;
    marks.push({ x: px, y: py, weight: length[k] * share * share, phase: Math.round(at) });
  }
  return marks;
}
function facing({ x, y, tx, ty }, k, phase) {
  const [sx, sy] = slopeAt(phase, x[k], y[k]);
  return Math.abs(tx[k] * sx + ty[k] * sy) < 0.2 * Math.hypot(sx, sy);
}
function measured(crests, phase, { width, height }) {
  const [on, off] = [new Float64Array(8), new Float64Array(8)];
  for (let k = 0; k < crests.count; k++) {
    if (!facing(crests, k, phase)) continue;
    const at = phaseAt(phase, crests.x[k], crests.y[k]);
    const d = Math.abs(at - Math.round(at));
    if (d < ON) on[crests.level[k]] += crests.length[k];
    else if (d > 0.5 - ON) off[crests.level[k]] += crests.length[k];
  }
  let lines = 0;
  const grid = 24;
  for (let j = 0; j < grid; j++)
    for (let i = 0; i < grid; i++)
      lines += Math.hypot(
        ...slopeAt(phase, (i + 0.5) / grid * width, (j + 0.5) / grid * height)
      );
  lines *= width * height / (grid * grid);
  const level = on.indexOf(Math.max(...on));
  const [sx, sy] = slopeAt(phase, width / 2, height / 2);
  const step = 1 / Math.hypot(sx, sy);
  if (!(step > 6) || step > Math.min(width, height) / 2) return null;
  return {
    phase,
    level,
    borne: on[level] / lines,
    between: off[level] / Math.max(1, on[level]),
    angle: (Math.atan2(sy, sx) % Math.PI + Math.PI) % Math.PI,
    step
  };
}

// packages/core/src/survey/mesh/lines.ts
var SPACING = 3;
function linesOf(phase, frame) {
  const { width, height } = frame;
  const [sx, sy] = slopeAt(phase, width / 2, height / 2);
  const steep = Math.abs(sy) >= Math.abs(sx);
  const corners = [
    [0, 0],
    [width - 1, 0],
    [0, height - 1],
    [width - 1, height - 1]
  ].map(([x, y]) => phaseAt(phase, x, y));
  const lines = [];
  for (let index = Math.ceil(Math.min(...corners) - 2); index <= Math.max(...corners) + 2; index++) {
    const points = steep ? along(phase, index, width, height, false) : along(phase, index, height, width, true);
    if (points.length < 4) continue;
    lines.push(lineThrough(phase, index, points));
  }
  return lines;
}
function along(phase, index, length, across, turned) {
  const at = (s, t2) => turned ? phaseAt(phase, t2, s) : phaseAt(phase, s, t2);
  const slope = (s, t2) => turned ? slopeAt(phase, t2, s)[0] : slopeAt(phase, s, t2)[1];
  const points = [];
  let t = across / 2;
  for (let s = 0; s < length; s++) {
    let settled = false;
    for (let round = 0; round < 12 && !settled; round++) {
      const move = (index - at(s, t)) / slope(s, t);
      t += Math.max(-across / 4, Math.min(across / 4, move));
      settled = Math.abs(move) < 0.01;
    }
    if (!settled || t < -across || t > 2 * across) t = across / 2;
    else if (t > -1 && t < across) points.push(turned ? [t, s] : [s, t]);
  }
  return points;
}
function lineThrough(phase, index, points) {
  const kept = [points[0]];
  for (const point of points) {
    const [x, y] = kept.at(-1);
    if (Math.hypot(point[0] - x, point[1] - y) >= SPACING) kept.push(point);
  }
  const normals = kept.map(([x, y]) => {
    const [sx, sy] = slopeAt(phase, x, y);
    const d = Math.hypot(sx, sy);
    return [sx / d, sy / d];
  });
  return {
    index,
    x: Float32Array.from(kept, ([x]) => x),
    y: Float32Array.from(kept, ([, y]) => y),
    nx: Float32Array.from(normals, ([x]) => x),
    ny: Float32Array.from(normals, ([, y]) => y)
  };
}

// packages/core/src/survey/mesh/wires.ts
var STEP4 = 0.5;
var STIFF = 5;
var ENOUGH = 30;
function trackedOffsets(plane, line, look2, reach) {
  const n = line.x.length;
  const places = 2 * Math.round(reach / STEP4) + 1;
  const middle = (places - 1) / 2;
  const half = look2.width / 2;
  const far = Math.ceil((reach + half + 4) / STEP4);
  const profile = new Float32Array(2 * far + 1);
  const sums = new Float32Array(2 * far + 2);
  const cost = new Float32Array(n * places);
  for (let i = 0; i < n; i++) {
    for (let k = -far; k <= far; k++)
      profile[k + far] = sampleAt(
        plane,
        line.x[i] + k * STEP4 * line.nx[i],
        line.y[i] + k * STEP4 * line.ny[i]
      );
    for (let k = 0; k < profile.length; k++) sums[k + 1] = sums[k] + profile[k];
    const mean = (from, to) => {
      const a = Math.max(0, Math.round(from / STEP4) + far);
      const b = Math.min(profile.length, Math.round(to / STEP4) + far + 1);
      return (sums[b] - sums[a]) / (b - a);
    };
    for (let o = 0; o < places; o++) {
      const at = (o - middle) * STEP4;
      const core = mean(at - half + 1, at + half - 1);
      const left = mean(at - half - 3, at - half - 1);
      const right = mean(at + half + 1, at + half + 3);
      const nearer = Math.max(
        Math.min(core - left, core - right),
        Math.min(left - core, right - core)
      );
      const edge = Math.max(Math.abs(core - left), Math.abs(core - right));
      const stray = (core - look2.tone) / look2.stray;
      const like = Math.exp(-0.5 * stray * stray);
      const evidence = Math.min(ENOUGH, Math.max(0, nearer)) + 0.25 * Math.min(ENOUGH, edge);
      cost[i * places + o] = -evidence * (0.25 + 0.75 * like) + 0.02 * at * at;
    }
  }
  return cheapestWay(cost, n, places).map((o) => (o - middle) * STEP4);
}
function cheapestWay(cost, n, places) {
  const total = cost.slice(0, places);
  const from = new Int8Array(n * places);
  const next = new Float32Array(places);
  for (let i = 1; i < n; i++) {
    for (let o2 = 0; o2 < places; o2++) {
      let best = Infinity;
      let move = 0;
      for (let d = -2; d <= 2; d++) {
        const q = o2 + d;
        if (q < 0 || q >= places) continue;
        const c = total[q] + STIFF * STEP4 * Math.abs(d);
        if (c < best || c === best && Math.abs(d) < Math.abs(move)) {
          best = c;
          move = d;
        }
      }
      next[o2] = best + cost[i * places + o2];
      from[i * places + o2] = move;
    }
    total.set(next);
  }
  const way = new Float32Array(n);
  let o = total.indexOf(Math.min(...total));
  for (let i = n - 1; i >= 0; i--) {
    way[i] = o;
    o += from[i * places + o];
  }
  return way;
}
function wireAlong(plane, line, offsets, look2, family) {
  const n = line.x.length;
  const smooth = meanOver(offsets, 3);
  const xs = line.x.map((x, i) => x + smooth[i] * line.nx[i]);
  const ys = line.y.map((y, i) => y + smooth[i] * line.ny[i]);
  const widths = new Float32Array(n);
  const odd = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    const across = (o) => sampleAt(plane, xs[i] + o * line.nx[i], ys[i] + o * line.ny[i]);
    const core = (across(-1) + across(0) + across(1)) / 3;
    widths[i] = flank2(across, core, look2.width, 1) + flank2(across, core, look2.width, -1);
    odd[i] = Math.abs(core - look2.tone) / look2.stray;
  }
  const reach = Math.round(24 / SPACING);
  return {
    family,
    index: line.index,
    xs,
    ys,
    nx: line.nx,
    ny: line.ny,
    widths: middleOver(widths, reach),
    shown: shownAlong(odd)
  };
}
function flank2(across, core, width, way) {
  const side = (across(way * (width / 2 + 2)) + across(way * (width / 2 + 3))) / 2;
  if (Math.abs(core - side) < 12) return width / 2;
  const half = (core + side) / 2;
  const sign = Math.sign(core - side);
  for (let o = 0.5; o < width / 2 + 3; o += 0.5)
    if (sign * (across(way * o) - half) <= 0)
      return Math.max(0.3 * width, Math.min(0.8 * width, o - 0.25));
  return width / 2;
}
var ODD = 5;
var HIDDEN = Math.round(15 / SPACING);
function shownAlong(odd) {
  const middle = middleOver(odd, HIDDEN >> 1);
  const shown = new Uint8Array(odd.length).fill(1);
  for (let from = 0; from < middle.length; ) {
    let to = from;
    while (to < middle.length && middle[to] > ODD) to++;
    if (to - from >= HIDDEN) shown.fill(0, from, to);
    from = to + 1;
  }
  return shown;
}
function meanOver(values, reach) {
  return values.map((_, i) => {
    let [sum, count] = [0, 0];
    for (let k = Math.max(0, i - reach); k <= Math.min(values.length - 1, i + reach); k++, count++)
      sum += values[k];
    return sum / count;
  });
}

// packages/core/src/survey/mesh/mesh.ts
var NEEDED = {
  borne: 0.4,
  between: 0.27,
  /** Least angle between them, radians, and largest ratio of their steps. */
  apart: 0.42,
  steps: 1.7,
  /** Lines a family has at least. */
  lines: 5
};
function meshOf(plane, strands, leastScore = 0.5) {
  const families = familiesOf(crestsOf(strands), plane);
  const pair = pairOf(families, plane);
  if (!pair) return null;
  const score = Math.min(1, Math.min(worth(pair[0]), worth(pair[1])));
  if (score < leastScore) return null;
  const reach = Math.min(12, 0.16 * Math.min(pair[0].step, pair[1].step));
  const followed2 = pair.map(
    ({ phase }, f2) => followedFamily(plane, linesOf(phase, plane), reach, f2)
  );
  const wires = followed2.flatMap((f2) => f2.wires);
  const looks = followed2.map((f2) => f2.look);
  return {
    families: pair,
    wires,
    looks,
    score,
    polarity: looks[0].tone + looks[1].tone > 254 ? 1 : -1
  };
}
function followedFamily(plane, lines, reach, family) {
  let look2 = { ...usualWidth(plane, lines), ...toneAlong(plane, lines) };
  let wires = [];
  for (let round = 0; round < 2; round++) {
    wires = lines.map(
      (line) => wireAlong(plane, line, trackedOffsets(plane, line, look2, reach), look2, family)
    );
    const run = wires.map(({ xs, ys, nx, ny }) => ({ x: xs, y: ys, nx, ny }));
    look2 = { ...usualWidth(plane, run), ...toneAlong(plane, run) };
  }
  return { wires, look: look2 };
}
function pairOf(families, { width, height }) {
  const good = families.filter(
    (f2) => f2.borne >= NEEDED.borne && f2.between <= NEEDED.between && Math.min(width, height) / f2.step >= NEEDED.lines
  );
  for (const first of good)
    for (const second of good) {
      const apart = Math.abs(first.angle - second.angle);
      if (Math.min(apart, Math.PI - apart) < NEEDED.apart) continue;
      const ratio = first.step / second.step;
      if (ratio > NEEDED.steps || ratio < 1 / NEEDED.steps) continue;
      return [first, second];
    }
  return null;
}
function toneAlong(plane, lines) {
  const values = [];
  for (const { x, y } of lines)
    for (let i = 0; i < x.length; i += 2) values.push(sampleAt(plane, x[i], y[i]));
  values.sort((a, b) => a - b);
  const tone2 = values[values.length >> 1];
  const off = values.map((v) => Math.abs(v - tone2)).sort((a, b) => a - b);
  return { tone: tone2, stray: Math.max(8, 1.4826 * off[off.length >> 1]) };
}
var THINNEST = 3;
var HALF_HEIGHT = 0.85;
var FOOT = 0.15;
var WINDOW2 = 12;
function usualWidth(plane, lines) {
  const steps = new Float64Array(2 * WINDOW2 + 1);
  for (const { x, y, nx, ny } of lines)
    for (let i = 0; i < x.length; i += 2) {
      const at = (o) => sampleAt(plane, x[i] + o * nx[i], y[i] + o * ny[i]);
      for (let k = 0; k <= 2 * WINDOW2; k++) {
        const o = (k + 1) / 2;
        steps[k] += Math.min(40, Math.abs(at(o - 0.5) - at(o + 0.5))) + Math.min(40, Math.abs(at(0.5 - o) - at(-o - 0.5)));
      }
    }
  const [base, top] = [Math.min(...steps), Math.max(...steps)];
  const last = (share) => (steps.findLastIndex((v) => v - base >= share * (top - base)) + 1) / 2;
  const half = Math.max(THINNEST / 2, last(HALF_HEIGHT));
  return { width: 2 * half, soft: Math.max(0, last(FOOT) - half) };
}

// packages/core/src/survey/mesh/sites.ts
var WIDER = 1;
function meshSites(mesh, plane) {
  return mesh.wires.flatMap(({ xs, ys, widths, shown }) => {
    const sites = [];
    let line = { xs: [], ys: [], widths: [] };
    const close = () => {
      if (line.xs.length > 1) {
        const pixels = strokePixels(line, plane, WIDER);
        if (pixels.length) sites.push({ pixels, line });
      }
      line = { xs: [], ys: [], widths: [] };
    };
    for (let i = 0; i < xs.length; i++) {
      if (!shown[i]) {
        close();
        continue;
      }
      line.xs.push(xs[i]);
      line.ys.push(ys[i]);
      line.widths.push(widths[i]);
    }
    close();
    return sites;
  });
}

// packages/core/src/survey/flats.ts
var NEXT = 7;
var WHOLE = 15;
var SMALLEST = 4e-4;
function flatsFromBorder(layer) {
  const { width, height } = layer.grey;
  const seen2 = new Uint8Array(width * height);
  const flats = [];
  const start = (p2) => {
    if (seen2[p2]) return;
    const flat = flatFrom(layer, p2, seen2);
    if (flat) flats.push(flat);
  };
  for (let x = 0; x < width; x += 2) {
    start(x);
    start((height - 1) * width + x);
  }
  for (let y = 0; y < height; y += 2) {
    start(y * width);
    start(y * width + width - 1);
  }
  return flats;
}
function flatFrom({ grey, colours: colours2 }, seed, seen2) {
  const { width, height } = grey;
  const planes = (colours2.length ? colours2 : [grey]).map(({ values }) => values);
  const origin = planes.map((plane) => middleAround(plane, seed, width, height));
  const pixels = [seed];
  seen2[seed] = 1;
  for (let k = 0; k < pixels.length; k++) {
    const p2 = pixels[k];
    const x = p2 % width;
    const visit = (q) => {
      if (seen2[q]) return;
      for (let c = 0; c < planes.length; c++) {
        const v = planes[c][q];
        if (Math.abs(v - planes[c][p2]) > NEXT || Math.abs(v - origin[c]) > WHOLE) return;
      }
      seen2[q] = 1;
      pixels.push(q);
    };
    if (x > 0) visit(p2 - 1);
    if (x < width - 1) visit(p2 + 1);
    if (p2 >= width) visit(p2 - width);
    if (p2 + width < width * height) visit(p2 + width);
  }
  if (pixels.length < SMALLEST * width * height) return null;
  const sorted = Int32Array.from(pixels).sort();
  return {
    pixels: sorted,
    colour: planes.map((plane) => sorted.reduce((s, p2) => s + plane[p2], 0) / sorted.length),
    traits: traitsOf2(sorted, grey.values, planes, width, height)
  };
}
function middleAround(plane, p2, width, height) {
  const [x, y] = [p2 % width, p2 / width | 0];
  const near = [];
  for (let j = Math.max(0, y - 2); j <= Math.min(height - 1, y + 2); j++)
    for (let i = Math.max(0, x - 2); i <= Math.min(width - 1, x + 2); i++)
      near.push(plane[j * width + i]);
  near.sort((a, b) => a - b);
  return near[near.length >> 1];
}
var FRINGE = [1, 2, 3];
var BEHIND = [6, 8];
function traitsOf2(pixels, grey, planes, width, height) {
  const inside = new Uint8Array(width * height);
  for (const p2 of pixels) inside[p2] = 1;
  const middles = planes.map((plane) => {
    const counts = new Int32Array(256);
    for (const p2 of pixels) counts[Math.round(plane[p2])]++;
    let [sum, v] = [counts[0], 0];
    while (sum * 2 < pixels.length) sum += counts[++v];
    return v;
  });
  const middle = pixels.reduce((s, p2) => s + grey[p2], 0) / pixels.length;
  let [even, border, edge, fringed, cut, resumed] = [0, 0, 0, 0, 0, 0];
  const steps = [];
  for (const p2 of pixels) {
    if (planes.every((plane, c) => Math.abs(plane[p2] - middles[c]) <= 2)) even++;
    const [x, y] = [p2 % width, p2 / width | 0];
    if (x === 0 || y === 0 || x === width - 1 || y === height - 1) border++;
    for (const [dx, dy] of SIDES2) {
      const [qx, qy] = [x + dx, y + dy];
      if (qx < 0 || qy < 0 || qx >= width || qy >= height || inside[qy * width + qx]) continue;
      edge++;
      const at = (d) => {
        const [sx, sy] = [
          Math.max(0, Math.min(width - 1, x + d * dx)),
          Math.max(0, Math.min(height - 1, y + d * dy))
        ];
        return grey[sy * width + sx];
      };
      const fringe = Math.max(...FRINGE.map(at));
      const behind = (at(BEHIND[0]) + at(BEHIND[1])) / 2;
      if (fringe > 200 && fringe > behind + 20 && fringe > middle + 20) fringed++;
      if ([9, 12, 16].some((d) => Math.abs(at(d) - middle) < 10)) resumed++;
      const step = Math.abs(at(2) - middle);
      if (step > 18) cut++;
      steps.push(step);
    }
  }
  steps.sort((a, b) => a - b);
  const ends = [0, width - 1, (height - 1) * width, height * width - 1];
  const bounds = pixels.reduce(
    ([l, r, t, b], p2) => [
      Math.min(l, p2 % width),
      Math.max(r, p2 % width),
      Math.min(t, p2 / width | 0),
      Math.max(b, p2 / width | 0)
    ],
    [width, 0, height, 0]
  );
  return {
    share: pixels.length / (width * height),
    even: even / pixels.length,
    border: border / Math.min(width, height),
    corners: ends.filter((p2) => inside[p2]).length,
    fringe: edge ? fringed / edge : 0,
    cut: edge ? cut / edge : 0,
    step: steps[steps.length >> 1] ?? 0,
    resumes: edge ? resumed / edge : 0,
    breadth: edge ? 2 * pixels.length / edge / Math.min(width, height) : 1,
    ragged: edge / (bounds[1] - bounds[0] + bounds[3] - bounds[2] + 2),
    grey: middle
  };
}
var SIDES2 = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1]
];

// packages/core/src/survey/losses.ts
var USUAL4 = 5;
var SAME2 = 4;
var FRINGE2 = 3;
var NARROW = 0.05;
function oddsOf3({ traits: t }) {
  return 20 * (t.cut - 0.8) + 7.5 * (t.even - 0.6) + 6 * t.fringe - 2 * Math.log(Math.max(1, t.ragged) / 1.5) - 16 * Math.max(0, t.share - 0.25) - (t.corners >= 3 ? 6 : 0) - 12 * Math.max(0, t.resumes - 0.25) - // A long thin band of bare paper is a crease.
  (t.breadth < NARROW ? 6 : 0) - USUAL4;
}
function lossesOf(layer) {
  const losses = flatsFromBorder(layer).map((flat) => ({ flat, odds: oddsOf3(flat) })).filter(({ odds }) => odds > -USUAL4);
  const sure = losses.filter(({ odds }) => odds > 0);
  if (sure.length) losses.push(...holesLike(sure[0], sure, layer));
  return losses.map(({ flat, odds }) => ({ pixels: withFringe(flat, layer), odds })).sort((a, b) => b.odds - a.odds || a.pixels[0] - b.pixels[0]);
}
function holesLike({ flat: like, odds }, known, layer) {
  const planes = (layer.colours.length ? layer.colours : [layer.grey]).map(({ values }) => values);
  const seen2 = new Uint8Array(layer.grey.values.length);
  for (const { flat } of known) for (const p2 of flat.pixels) seen2[p2] = 1;
  const holes = [];
  for (let p2 = 0; p2 < seen2.length; p2++) {
    if (seen2[p2] || planes.some((plane, c) => Math.abs(plane[p2] - like.colour[c]) > SAME2))
      continue;
    const flat = flatFrom(layer, p2, seen2);
    if (flat && flat.traits.cut > 0.9 && flat.traits.even > 0.8 * like.traits.even)
      holes.push({ flat, odds: Math.min(odds, 1 + 20 * (flat.traits.cut - 0.95)) });
  }
  return holes;
}
function withFringe({ pixels, traits }, { grey }) {
  const { width, height, values } = grey;
  const found = new Set(pixels);
  let edge = [...pixels];
  for (let round = 0; round < FRINGE2; round++) {
    const next = [];
    for (const p2 of edge) {
      const x = p2 % width;
      for (const q of [x > 0 ? p2 - 1 : -1, x < width - 1 ? p2 + 1 : -1, p2 - width, p2 + width]) {
        if (q < 0 || q >= width * height || found.has(q)) continue;
        if (round > 0 && values[q] < Math.max(195, traits.grey + 20)) continue;
        found.add(q);
        next.push(q);
      }
    }
    edge = next;
  }
  return Int32Array.from(found).sort();
}

// packages/core/src/survey/pulls.ts
var MOST2 = 0.012;
var INNER = 0.012;
var OUTER = 0.12;
function pullsOf({ grey, colours: colours2 }) {
  const { width, height } = grey;
  const shorter = Math.min(width, height);
  const planes = (colours2.length ? colours2 : [grey, grey, grey]).map(({ values }) => values);
  const lab = [new Float32Array(width * height), new Float32Array(width * height)];
  for (let p2 = 0; p2 < width * height; p2++) {
    const {
      L: l,
      a,
      b
    } = labOfSrgb(planes[0][p2] / 255, planes[1][p2] / 255, planes[2][p2] / 255);
    lab[0][p2] = l;
    lab[1][p2] = Math.hypot(a, b);
  }
  const stands = lab.map((values) => {
    const plane = { width, height, values };
    const near = boxMean(plane, Math.max(1, Math.round(INNER * shorter))).values;
    const wide = boxMean(plane, Math.round(OUTER * shorter)).values;
    return near.map((v, p2) => v - wide[p2]);
  });
  const strength = stands[0].map((l, p2) => Math.max(0, l) + Math.max(0, stands[1][p2]));
  const sorted = strength.slice().sort();
  const least = Math.max(28, sorted[Math.floor(0.985 * sorted.length)]);
  const mask = Uint8Array.from(strength, (s) => s >= least ? 1 : 0);
  return piecesOf(mask, width).filter(({ pixels }) => pixels.length >= 12 && pixels.length < MOST2 * width * height).map((piece) => {
    const mean = piece.pixels.reduce((sum, p2) => sum + strength[p2], 0) / piece.pixels.length;
    const [cx, cy] = [
      (piece.left + piece.right) / 2 / width - 0.5,
      (piece.top + piece.bottom) / 2 / height - 0.5
    ];
    const outward = Math.min(1, 2 * Math.max(Math.abs(cx), Math.abs(cy)));
    return {
      pixels: piece.pixels,
      odds: 3 * Math.log(mean / 45) + 2 * (outward - 0.6) + 0.5 * Math.log(piece.pixels.length / 60),
      polarity: 1
    };
  });
}

// packages/core/src/survey/stains.ts
var OFF = 5;
var SHARE2 = { least: 8e-4, most: 0.2 };
function stainsOf(layer) {
  if (!layer.colours.length) return [];
  const { width, height } = layer.grey;
  const count = width * height;
  const { labs, stray, usual } = toneCurveOf(layer);
  if (usual > MONOCHROME) return [];
  const off = labs.map(stray);
  const mask = Uint8Array.from(off, (d) => d > OFF * Math.max(0.5, usual) ** 0.5 ? 1 : 0);
  return piecesOf(mask, width).filter(
    ({ pixels }) => pixels.length > SHARE2.least * count && pixels.length < SHARE2.most * count
  ).map((piece) => {
    const mean = piece.pixels.reduce((sum, p2) => sum + off[p2], 0) / piece.pixels.length;
    const box = (piece.right - piece.left + 1) * (piece.bottom - piece.top + 1);
    const filled = piece.pixels.length / box;
    return {
      pixels: piece.pixels,
      odds: 2 * Math.log(mean / 8) + 4 * (filled - 0.45) + Math.log(piece.pixels.length / count / 4e-3) / 2,
      polarity: -1
    };
  });
}
var FOLD = { least: 0.015, most: 0.09, strips: 24, through: 0.9, deep: 5 };
function foldsOf({ grey }) {
  return [bandOf(grey, false), bandOf(grey, true)].filter((s) => s !== null);
}
function bandOf({ width, height, values }, across) {
  const [n, m] = across ? [height, width] : [width, height];
  const at = (i, j) => across ? values[i * width + j] : values[j * width + i];
  const strips = Array.from({ length: FOLD.strips }, (_, s) => {
    const [from, to] = [Math.floor(s * m / FOLD.strips), Math.floor((s + 1) * m / FOLD.strips)];
    return Float32Array.from({ length: n }, (_2, i) => {
      let sum = 0;
      for (let j = from; j < to; j++) sum += Math.log(at(i, j) + 8);
      return sum / (to - from);
    });
  });
  let best = { dip: 0, from: 0, to: 0, through: 0 };
  for (let half = Math.ceil(FOLD.least * n / 2); half <= FOLD.most * n / 2; half = Math.ceil(half * 1.3))
    for (let i = 3 * half; i < n - 3 * half; i++) {
      const dips = strips.map((strip) => {
        const mean = (a, b) => {
          let sum = 0;
          for (let k = a; k <= b; k++) sum += strip[k];
          return sum / (b - a + 1);
        };
        return Math.min(mean(i - 3 * half, i - 2 * half), mean(i + 2 * half, i + 3 * half)) - mean(i - (half >> 1), i + (half >> 1));
      });
      const dip = medianOf(dips);
      const through2 = dips.filter((d) => d > 0.4 * dip).length / dips.length;
      if (dip > best.dip && through2 >= FOLD.through)
        best = { dip, from: i - half, to: i + half, through: through2 };
    }
  const levels = 128 * best.dip;
  if (levels < FOLD.deep) return null;
  const pixels = [];
  for (let j = 0; j < m; j++)
    for (let i = best.from; i <= best.to; i++) pixels.push(across ? i * width + j : j * width + i);
  return {
    pixels: Int32Array.from(pixels).sort(),
    odds: Math.log(levels / 14) + 20 * (best.through - 0.97),
    polarity: -1
  };
}

// packages/core/src/survey/studies.ts
var MOST3 = { strands: 36e5, losses: 18e5, tones: 16e4 };
var LEVELS2 = { strands: 4, specks: 4 };
function levelFor({ width, height }, most) {
  return Math.max(0, Math.ceil(Math.log(width * height / most) / Math.log(4)));
}
function strandLevel(frame) {
  return levelFor(frame, MOST3.strands);
}
var NEEDS = {
  strands: ["lines", "creases", "ink", "wires", "mesh"],
  specks: ["specks"],
  losses: ["losses", "specks", "lines", "creases", "ink", "wires", "stains"],
  tones: ["stains", "pulls"]
};
function studiesFor(frame, kinds) {
  const base = strandLevel(frame);
  const studies = [
    ...Array.from({ length: LEVELS2.specks }, (_, level) => ({ of: "specks", level })),
    ...Array.from({ length: LEVELS2.strands }, (_, k) => ({
      of: "strands",
      level: base + k
    })),
    { of: "losses", level: levelFor(frame, MOST3.losses) },
    { of: "tones", level: levelFor(frame, MOST3.tones) }
  ];
  const cost = ({ of, level }) => (of === "strands" ? 3 : 1) / 4 ** level;
  return studies.filter(({ of }) => NEEDS[of].some((kind) => kinds.includes(kind))).filter(({ level }) => Math.min(frame.width, frame.height) >> level >= 24 || level === 0).sort((a, b) => cost(b) - cost(a));
}
function study(picture, { of, level }) {
  const layer = layerAt(picture, level);
  switch (of) {
    case "strands":
      return { of, strands: strandsAt(layer.grey, level - strandLevel(picture)) };
    case "specks":
      return { of, specks: specksAt(layer, level, picture) };
    case "losses":
      return { of, level, losses: lossesOf(layer) };
    case "tones":
      return {
        of,
        level,
        stains: [...stainsOf(layer), ...foldsOf(layer)],
        pulls: pullsOf(layer)
      };
  }
}

// packages/core/src/survey/survey.ts
function survey(picture, options = {}, task) {
  const studies = studiesFor(picture, options.kinds ?? FINDING_KINDS);
  const studied = studies.map((s, k) => {
    checkpoint(task, k / (studies.length + 1));
    return study(picture, s);
  });
  const findings = findingsFrom(picture, studied, options);
  checkpoint(task, 1);
  return findings;
}
function leastOdds({ sensitivity = 0.5 }, kind) {
  const own = typeof sensitivity === "number" ? sensitivity : sensitivity[kind] ?? 0.5;
  return 6 * (0.5 - own);
}
var CLAIMS = [
  "mesh",
  "losses",
  "ink",
  "creases",
  "wires",
  "lines",
  "specks",
  "stains",
  "pulls"
];
var SHARED = 0.4;
var MESHED = 0.3;
var MOST_FINDINGS = 2e4;
function findingsFrom(picture, studied, options = {}) {
  const kinds = options.kinds ?? FINDING_KINDS;
  const all = [...linesFrom(picture, studied), ...regionsFrom(picture, studied)];
  const claimed = new Uint8Array(picture.width * picture.height);
  const kept = [];
  for (const kind of CLAIMS) {
    const own = all.filter((f2) => f2.kind === kind && f2.odds > leastOdds(options, kind)).sort((a, b) => b.odds - a.odds || a.pixels[0] - b.pixels[0]);
    for (const found of own) {
      if (kind === "losses" && meshed(found, claimed, picture)) continue;
      if (kind !== "mesh") {
        const met = found.pixels.reduce((sum, p2) => sum + claimed[p2], 0);
        if (met > SHARED * found.pixels.length) continue;
      }
      if (kept.length >= MOST_FINDINGS) break;
      kept.push(found);
      if (kind !== "stains" && found.odds > 0) for (const p2 of found.pixels) claimed[p2] = 1;
    }
  }
  const read = factsReader(picture, claimed);
  return kept.filter(({ kind }) => kinds.includes(kind)).map((found) => findingOf(found, picture, read)).sort(
    (a, b) => FINDING_KINDS.indexOf(a.kind) - FINDING_KINDS.indexOf(b.kind) || b.score - a.score
  );
}
function meshed({ pixels }, claimed, { width, height }) {
  const own = new Set(pixels);
  let [edge, met] = [0, 0];
  for (const p2 of pixels)
    for (const step of [-1, 1, -width, width]) {
      const [next, far] = [p2 + step, p2 + 3 * step];
      if (own.has(next) || next < 0 || next >= width * height) continue;
      edge++;
      if (claimed[next] || claimed[far]) met++;
    }
  return edge > 0 && met > MESHED * edge;
}
function linesFrom(picture, studied) {
  const strands = studied.flatMap((s) => s.of === "strands" ? s.strands : []);
  if (!strands.length) return [];
  const level = strandLevel(picture);
  const layers = layersFrom(picture, level, 4);
  const base = layers[0];
  const up = (pixels) => pixelsUp(pixels, base.grey.width, level, picture);
  const found = [];
  for (const c of creasesOf(
    strands.filter((s) => s.level > 0),
    base.grey
  ))
    found.push({
      kind: "creases",
      pixels: up(c.site),
      odds: c.odds,
      polarity: 1,
      line: lineOf(c, level)
    });
  for (const i of inkOf(
    strands.filter((s) => s.level < 3),
    layers,
    toneOf(picture)
  ))
    found.push({ kind: "ink", pixels: up(i.site), odds: i.odds, polarity: i.polarity, line: null });
  const mesh = meshOf(base.grey, strands);
  if (mesh) {
    const wires = meshSites(mesh, base.grey);
    const parts = wires.map(({ pixels: pixels2 }) => up(pixels2));
    const pixels = Int32Array.from(new Set(parts.flatMap((part) => [...part]))).sort();
    const odds = 8 * (mesh.score - 0.5) + 0.1;
    found.push({
      kind: "mesh",
      pixels,
      odds,
      polarity: mesh.polarity,
      line: null,
      parts,
      ...lookOf(mesh, level)
    });
  }
  found.push(...thinLines(strands, base, level, picture));
  return found;
}
function lookOf({ looks }, level) {
  const most = (key) => Math.max(looks[0][key], looks[1][key]) * 2 ** level;
  return { size: most("width"), soft: most("soft") };
}
function toneOf(picture) {
  const small = layerAt(picture, levelFor(picture, MOST3.tones));
  return small.colours.length ? toneCurveOf(small) : null;
}
function thinLines(strands, base, level, picture) {
  const side = 2 ** level;
  const shift2 = (side - 1) / 2;
  return ["lines", "wires"].flatMap(
    (kind) => (kind === "lines" ? scratchesOf(
      strands.filter((s) => s.level < 3),
      base.grey
    ) : wiresOf(strands, base.grey)).map((chain) => {
      const whole = {
        xs: chain.xs.map((x) => x * side + shift2),
        ys: chain.ys.map((y) => y * side + shift2),
        widths: chain.widths.map((w) => w * side)
      };
      return {
        kind,
        pixels: strokePixels(whole, picture, 0.5),
        odds: chain.odds,
        polarity: chain.polarity,
        line: lineOf(whole, 0)
      };
    })
  );
}
function regionsFrom(picture, studied) {
  const found = [];
  const specks = studied.flatMap((s) => s.of === "specks" ? s.specks : []);
  for (const { site, odds, polarity } of agreed(specks, picture))
    found.push({ kind: "specks", pixels: site, odds, polarity, line: null });
  for (const s of studied) {
    if (s.of !== "losses" && s.of !== "tones") continue;
    const width = picture.width >> s.level || 1;
    const add = (kind, list) => {
      for (const { pixels, odds, polarity = 1 } of list)
        found.push({
          kind,
          pixels: pixelsUp(pixels, width, s.level, picture),
          odds,
          polarity,
          line: null
        });
    };
    if (s.of === "losses") add("losses", s.losses);
    else {
      add("stains", s.stains);
      add("pulls", s.pulls);
    }
  }
  return found;
}
var TOLD = 4;
function lineOf({ xs, ys, widths }, level) {
  const side = 2 ** level;
  const shift2 = (side - 1) / 2;
  const line = [];
  for (let i = 0; i < xs.length; i++)
    if (i % TOLD === 0 || i === xs.length - 1)
      line.push([
        tenth(xs[i] * side + shift2),
        tenth(ys[i] * side + shift2),
        tenth(widths[i] * side)
      ]);
  return line;
}
var tenth = (v) => Math.round(10 * v) / 10;
function findingOf({ kind, pixels, odds, polarity, line, parts, size, soft }, picture, read) {
  const box = boxOf2(pixels, picture.width);
  const widths = line?.map(([, , w]) => w).sort((a, b) => a - b);
  return {
    kind,
    box,
    pixels,
    parts: parts ?? [pixels],
    line,
    soft: soft ?? (kind === "specks" ? fadeOf(picture, pixels, polarity) : 0),
    size: size ?? (widths ? widths[widths.length >> 1] : tenth(2 * Math.sqrt(pixels.length / Math.PI))),
    extent: tenth(Math.hypot(box.width, box.height)),
    ...read(pixels, box),
    polarity,
    score: scoreOf(odds)
  };
}

// packages/core/src/tone/colour-acts.ts
var LINEAR2 = Float32Array.from({ length: 4097 }, (_, k) => toLinear(k / 4096));

// packages/core/src/tone/channel-acts.ts
var MIDDLE = toEncoded(0.18);

// packages/core/src/tone/lookup.ts
var LAST = 65535;
var DENSE = 4096;
var STEP5 = 15;
function lookupOf(f2) {
  const table = new Float32Array(LAST + 1);
  for (let k = 0; k < DENSE; k++) table[k] = f2(k / LAST);
  let here = f2(DENSE / LAST);
  for (let k = DENSE; k < LAST; k += STEP5) {
    const end = Math.min(LAST, k + STEP5);
    const next = f2(end / LAST);
    const slope = (next - here) / (end - k);
    for (let j = k; j < end; j++) table[j] = here + slope * (j - k);
    here = next;
  }
  table[LAST] = here;
  return table;
}

// packages/core/src/tone/focus.ts
var LINEAR3 = lookupOf(toLinear);
var ENCODED2 = lookupOf(toEncoded);

// packages/core/src/trade/visibility.ts
var ARC_MINUTE = Math.PI / 180 / 60;

// packages/core/src/widen/canvas.ts
var SHAPES = [
  { name: "1:1", ratio: 1 },
  { name: "4:5", ratio: 4 / 5 },
  { name: "5:4", ratio: 5 / 4 },
  { name: "3:2", ratio: 3 / 2 },
  { name: "16:9", ratio: 16 / 9 },
  { name: "9:16", ratio: 9 / 16 }
];

// bench/pictures.ts
import { join } from "node:path";

// packages/codec/src/decode.ts
import { open, readFile } from "node:fs/promises";
import { decode as readBmp } from "bmp-ts";
import sharp from "sharp";

// packages/codec/src/problem.ts
var UserProblem = class extends Error {
  constructor(status, message) {
    super(message);
    this.status = status;
    this.name = "UserProblem";
  }
  status;
};

// packages/codec/src/identify.ts
function identify(head) {
  const at = (offset, text) => [...text].every((ch, i) => head[offset + i] === ch.charCodeAt(0));
  if (at(0, "\x89PNG\r\n\n")) return "png";
  if (head[0] === 255 && head[1] === 216 && head[2] === 255) return "jpeg";
  if (at(0, "II*\0") || at(0, "MM\0*") || at(0, "II+\0") || at(0, "MM\0+")) return "tiff";
  if (at(0, "RIFF") && at(8, "WEBP")) return "webp";
  return at(0, "BM") ? "bmp" : null;
}

// packages/codec/src/icc.ts
function profileName(icc) {
  const unnamed = "unnamed profile";
  if (icc.length < 132) return unnamed;
  const count = icc.readUInt32BE(128);
  for (let k = 0; k < count && 144 + 12 * k <= icc.length; k++) {
    const entry = 132 + 12 * k;
    if (icc.toString("latin1", entry, entry + 4) !== "desc") continue;
    const at = icc.readUInt32BE(entry + 4);
    const size = icc.readUInt32BE(entry + 8);
    if (at + size > icc.length || size < 16) return unnamed;
    const kind = icc.toString("latin1", at, at + 4);
    if (kind === "desc") {
      const length = icc.readUInt32BE(at + 8);
      return icc.toString("latin1", at + 12, at + 12 + length).replace(/\0.*$/s, "") || unnamed;
    }
    if (kind === "mluc" && size >= 28) {
      const length = icc.readUInt32BE(at + 20);
      const start = at + icc.readUInt32BE(at + 24);
      if (start + length > icc.length) return unnamed;
      const text = Buffer.from(icc.subarray(start, start + length)).swap16().toString("utf16le");
      return text.replace(/\0.*$/s, "") || unnamed;
    }
  }
  return unnamed;
}

// packages/codec/src/shared.ts
function sharedRaster(width, height, channels, depth) {
  const bytes = width * height * channels * bytesPerSample(depth);
  return { width, height, channels, data: samplesOf(depth, new SharedArrayBuffer(bytes)) };
}

// packages/codec/src/decode.ts
var MOST_PIXELS = 2e8;
async function decode(path) {
  const head = await firstBytes(path, 32);
  if (!head.length) throw new UserProblem(422, "This file is empty. Choose a picture file.");
  const format = identify(head);
  if (!format)
    throw new UserProblem(
      415,
      "This is not a picture Tersum can read. Use PNG, JPEG, TIFF, WebP or BMP."
    );
  return format === "bmp" ? decodeBmp(path, head) : decodeWithSharp(path, format);
}
async function readMetadata(path) {
  try {
    return await sharp(path, { limitInputPixels: false, ignoreIcc: true }).metadata();
  } catch {
    throw new UserProblem(
      422,
      "The beginning of this file is damaged, so its size cannot be read. Export it again from where it came."
    );
  }
}
async function decodeWithSharp(path, format) {
  const meta = await readMetadata(path);
  expectSize(meta.width, meta.height);
  if (meta.depth === "float" || meta.depth === "double" || meta.depth === "complex")
    throw new UserProblem(
      422,
      "This file stores floating-point samples. Save it with 8 or 16 bits a channel."
    );
  const deep = meta.depth === "ushort" || meta.depth === "short" || meta.depth === "uint";
  const grey = meta.channels <= 2;
  const space = deep ? grey ? "grey16" : "rgb16" : grey ? "b-w" : "srgb";
  const pipeline = sharp(path, {
    limitInputPixels: MOST_PIXELS,
    failOn: "truncated",
    ignoreIcc: true
  }).autoOrient().toColourspace(space).raw({ depth: deep ? "ushort" : "uchar" });
  try {
    const { data, info } = await pipeline.toBuffer({ resolveWithObject: true });
    const raster = sharedRaster(
      info.width,
      info.height,
      info.channels,
      deep ? "u16" : "u8"
    );
    new Uint8Array(raster.data.buffer).set(data);
    return {
      raster,
      format,
      bits: deep ? 16 : 8,
      ppi: ppiOf(meta),
      profile: meta.icc ? profileName(meta.icc) : null
    };
  } catch {
    throw new UserProblem(
      422,
      "This file is cut short or damaged: its pixels could not all be read. Copy or export it again."
    );
  }
}
async function decodeBmp(path, head) {
  if (head.length < 26)
    throw new UserProblem(422, "This file is cut short: even its size is missing. Copy it again.");
  expectSize(Math.abs(head.readInt32LE(18)), Math.abs(head.readInt32LE(22)));
  try {
    const { data, width, height } = readBmp(await readFile(path), { toRGBA: false });
    const raster = sharedRaster(width, height, 3, "u8");
    if (data.length < width * height * 4) throw new Error("short");
    for (let p2 = 0; p2 < width * height; p2++)
      for (let c = 0; c < 3; c++) raster.data[3 * p2 + c] = data[4 * p2 + 3 - c];
    return { raster, format: "bmp", bits: 8, ppi: null, profile: null };
  } catch {
    throw new UserProblem(
      422,
      "This file is cut short or damaged: its pixels could not all be read. Copy or export it again."
    );
  }
}
function expectSize(width, height) {
  if (!width || !height)
    throw new UserProblem(422, "This file says that the picture has no size. Export it again.");
  if (width * height > MOST_PIXELS)
    throw new UserProblem(
      413,
      `This picture claims ${width} x ${height} pixels. Up to ${MOST_PIXELS / 1e6} megapixels can be taken in; make it smaller first.`
    );
}
function ppiOf(meta) {
  return meta.density && meta.density > 1 && meta.density !== 72 ? meta.density : null;
}
async function firstBytes(path, count) {
  const handle = await open(path, "r");
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(count), 0, count, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}

// packages/codec/src/encode.ts
import sharp2 from "sharp";

// packages/codec/src/exif.ts
var PREFIX = Buffer.from("Exif\0\0", "latin1");

// packages/codec/src/openraster.ts
import { XMLBuilder, XMLParser } from "fast-xml-parser";
import { unzipSync, zipSync } from "fflate";
import sharp3 from "sharp";

// packages/codec/src/xmp.ts
import { XMLBuilder as XMLBuilder2 } from "fast-xml-parser";
var builder = new XMLBuilder2({ ignoreAttributes: false, attributeNamePrefix: "@", format: true });

// bench/pictures.ts
import sharp4 from "sharp";
var photos = join(import.meta.dirname, "..", "packages/demo/photos");
var demoPicture = async (name) => (await decode(join(photos, name))).raster;

// ../../tmp/dev/spk.ts
var p = await demoPicture("quay-print-heavy.jpg");
var f = survey(p, { kinds: ["specks"] });
for (const [x, y] of [[335, 1880], [521, 497], [554, 561], [1085, 532], [1956, 636]]) for (const g of f) if (x >= g.box.x - 4 && x < g.box.x + g.box.width + 4 && y >= g.box.y - 4 && y < g.box.y + g.box.height + 4) {
  console.log(x, y, g.box, g.pixels.length, g.soft, g.polarity);
  for (let v = -8; v <= 8; v++) console.log(Array.from({ length: 17 }, (_, u) => {
    const q = (y + v) * p.width + x + u - 8;
    return (g.pixels.includes(q) ? "*" : " ") + String(p.data[q * p.channels]).padStart(3);
  }).join(""));
}
for (const g of f) if (g.box.x === 552 && g.box.y === 558) {
  console.log("fade", fadeOf(p, g.pixels, g.polarity), g.polarity, p.channels);
  globalThis.DBG = 1;
  fadeOf(p, g.pixels, g.polarity);
}
