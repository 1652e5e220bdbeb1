/** One value a pixel, row by row. */
export interface Plane {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
}

/** Half the size: means of two by two pixels; an odd last row or column is left out. */
export function halved({ width, height, values }: Plane): Plane {
  const w = Math.max(1, width >> 1);
  const h = Math.max(1, height >> 1);
  const out = new Float32Array(w * h);
  const right = width > 1 ? 1 : 0;
  const down = height > 1 ? width : 0;
  for (let y = 0, i = 0; y < h; y++)
    for (let x = 0, p = 2 * y * width; x < w; x++, p += 2, i++)
      out[i] =
        (values[p]! + values[p + right]! + values[p + down]! + values[p + right + down]!) / 4;
  return { width: w, height: h, values: out };
}

/** Gaussian blur, the border repeated outward. @param sigma px, > 0 */
export function blurred({ width, height, values }: Plane, sigma: number): Plane {
  const radius = Math.max(1, Math.ceil(3 * sigma));
  const taps = new Float32Array(radius + 1);
  let sum = 0;
  for (let k = 0; k <= radius; k++) {
    taps[k] = Math.exp((-k * k) / (2 * sigma * sigma));
    sum += k ? 2 * taps[k]! : taps[k]!;
  }
  for (let k = 0; k <= radius; k++) taps[k]! /= sum;
  const across = new Float32Array(values.length);
  const row = new Float32Array(width + 2 * radius);
  const sums = new Float64Array(width);
  for (let y = 0; y < height; y++) {
    const from = y * width;
    row.set(values.subarray(from, from + width), radius);
    row.fill(values[from]!, 0, radius);
    row.fill(values[from + width - 1]!, radius + width);
    if (radius === 3) {
      across3(row, taps, across.subarray(from, from + width));
      continue;
    }
    for (let x = 0; x < width; x++) sums[x] = taps[0]! * row[x + radius]!;
    for (let k = 1; k <= radius; k++) {
      const tap = taps[k]!;
      for (let x = 0, l = radius - k, r = radius + k; x < width; x++, l++, r++)
        sums[x]! += tap * (row[l]! + row[r]!);
    }
    across.set(sums, from);
  }
  const out = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    const to = out.subarray(y * width, (y + 1) * width);
    if (radius === 3) {
      down3(across, width, y, taps, to);
      continue;
    }
    for (let k = 0; k <= radius; k++) {
      const up = Math.max(0, y - k) * width;
      const down = Math.min(height - 1, y + k) * width;
      const tap = taps[k]!;
      if (k === 0) for (let x = 0; x < width; x++) to[x] = tap * across[up + x]!;
      else for (let x = 0; x < width; x++) to[x]! += tap * (across[up + x]! + across[down + x]!);
    }
  }
  return { width, height, values: out };
}

/** A row by seven taps in one go: the sums are those of the general way, to the last bit. */
function across3(row: Float32Array, taps: Float32Array, out: Float32Array): void {
  const [a, b, c, d] = [taps[0]!, taps[1]!, taps[2]!, taps[3]!];
  for (let x = 0; x < out.length; x++)
    out[x] =
      a * row[x + 3]! +
      b * (row[x + 2]! + row[x + 4]!) +
      c * (row[x + 1]! + row[x + 5]!) +
      d * (row[x]! + row[x + 6]!);
}

/** The same downwards; the general way keeps its sums in 32 bits. */
function down3(
  across: Float32Array,
  width: number,
  y: number,
  taps: Float32Array,
  out: Float32Array,
): void {
  const [a, b, c, d] = [taps[0]!, taps[1]!, taps[2]!, taps[3]!];
  const last = across.length / width - 1;
  const [p, u1, u2, u3] = [y, y - 1, y - 2, y - 3].map((v) => Math.max(0, v) * width) as Four;
  const [, d1, d2, d3] = [y, y + 1, y + 2, y + 3].map((v) => Math.min(last, v) * width) as Four;
  for (let x = 0; x < width; x++) {
    let sum = Math.fround(a * across[p + x]!);
    sum = Math.fround(sum + b * (across[u1 + x]! + across[d1 + x]!));
    sum = Math.fround(sum + c * (across[u2 + x]! + across[d2 + x]!));
    out[x] = sum + d * (across[u3 + x]! + across[d3 + x]!);
  }
}

type Four = [number, number, number, number];

/** Mean over a square of side 2r+1, clipped to the picture. @param radius whole px, >= 1 */
export function boxMean({ width, height, values }: Plane, radius: number): Plane {
  const out = new Float32Array(values.length);
  const sums = new Float64Array(width);
  // The rows within reach, each in its turn overwritten: a whole plane of them would not stay in the cache.
  const kept = 2 * radius + 2;
  const rows = Array.from({ length: kept }, () => new Float32Array(width));
  const nothing = new Float32Array(width);
  for (let y = -radius; y < height; y++) {
    const enters = y + radius < height;
    const into = enters ? rows[(y + radius) % kept]! : nothing;
    if (enters) meansAlong(values.subarray((y + radius) * width), radius, into);
    const outof = y > radius ? rows[(y - radius - 1) % kept]! : nothing;
    if (y < 0) {
      for (let x = 0; x < width; x++) sums[x]! += into[x]!;
      continue;
    }
    const n = Math.min(height - 1, y + radius) - Math.max(0, y - radius) + 1;
    const to = out.subarray(y * width, (y + 1) * width);
    for (let x = 0; x < width; x++) {
      const sum = sums[x]! + into[x]! - outof[x]!;
      sums[x] = sum;
      to[x] = sum / n;
    }
  }
  return { width, height, values: out };
}

/** Means over 2r+1 values of a row, clipped to it. @param means as long as the row */
function meansAlong(row: Float32Array, radius: number, means: Float32Array): void {
  const width = means.length;
  let sum = 0;
  for (let x = 0; x < Math.min(radius, width); x++) sum += row[x]!;
  for (let x = 0; x < width; x++) {
    if (x + radius < width) sum += row[x + radius]!;
    if (x - radius - 1 >= 0) sum -= row[x - radius - 1]!;
    means[x] = sum / (Math.min(width - 1, x + radius) - Math.max(0, x - radius) + 1);
  }
}

/** Bilinear value, the border repeated outward. */
export function sampleAt({ width, height, values }: Plane, x: number, y: number): number {
  const cx = x < 0 ? 0 : x > width - 1 ? width - 1 : x;
  const cy = y < 0 ? 0 : y > height - 1 ? height - 1 : y;
  const ix = cx | 0;
  const iy = cy | 0;
  const fx = cx - ix;
  const fy = cy - iy;
  const p = iy * width + ix;
  const r = ix < width - 1 ? 1 : 0;
  const d = iy < height - 1 ? width : 0;
  return (
    (values[p]! * (1 - fx) + values[p + r]! * fx) * (1 - fy) +
    (values[p + d]! * (1 - fx) + values[p + r + d]! * fx) * fy
  );
}
