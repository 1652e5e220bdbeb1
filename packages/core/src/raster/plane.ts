/** One value a pixel, row by row. */
export interface Plane {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
}

/** Half the size: means of two by two pixels; an odd last row or column is left out. */
export function halved(plane: Plane): Plane {
  const width = Math.max(1, plane.width >> 1);
  const height = Math.max(1, plane.height >> 1);
  const half = { width, height, values: new Float32Array(width * height) };
  halvePlaneRows(plane, half, 0, height);
  return half;
}

/** Fills some rows of a plane's half. @param to the first row that is left */
export function halvePlaneRows(
  { width, height, values }: Plane,
  half: Plane,
  from: number,
  to: number,
): void {
  const right = width > 1 ? 1 : 0;
  const down = height > 1 ? width : 0;
  for (let y = from; y < to; y++) {
    const row = half.values.subarray(y * half.width, (y + 1) * half.width);
    halveRow(values, 2 * y * width, right, down, row);
  }
}

function halveRow(
  values: Float32Array,
  from: number,
  right: number,
  down: number,
  row: Float32Array,
): void {
  for (let x = 0, p = from; x < row.length; x++, p += 2)
    row[x] = (values[p]! + values[p + right]! + values[p + down]! + values[p + right + down]!) / 4;
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
  const reach = Math.max(SHORT, radius);
  const row = new Float32Array(width + 2 * reach);
  const sums = new Float64Array(width);
  for (let y = 0; y < height; y++) {
    const from = y * width;
    row.set(values.subarray(from, from + width), reach);
    row.fill(values[from]!, 0, reach);
    row.fill(values[from + width - 1]!, reach + width);
    const to = across.subarray(from, from + width);
    if (radius <= SHORT) acrossShort(row, taps, to);
    else {
      sumsAlong(row, taps, radius, sums);
      to.set(sums);
    }
  }
  const out = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    const to = out.subarray(y * width, (y + 1) * width);
    if (radius <= SHORT) {
      downShort(across, width, y, taps, to);
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

function sumsAlong(
  row: Float32Array,
  taps: Float32Array,
  radius: number,
  sums: Float64Array,
): void {
  const width = sums.length;
  for (let x = 0; x < width; x++) sums[x] = taps[0]! * row[x + radius]!;
  for (let k = 1; k <= radius; k++) {
    const tap = taps[k]!;
    for (let x = 0, l = radius - k, r = radius + k; x < width; x++, l++, r++)
      sums[x]! += tap * (row[l]! + row[r]!);
  }
}

/** Up to so many px a blur is done in one go: the sums are those of the general way, to the last bit. */
const SHORT = 4;

/** A row. @param row with four px before and after it */
function acrossShort(row: Float32Array, taps: Float32Array, out: Float32Array): void {
  const [a, b, c, d, e] = fiveOf(taps);
  for (let x = 0; x < out.length; x++)
    out[x] =
      a * row[x + 4]! +
      b * (row[x + 3]! + row[x + 5]!) +
      c * (row[x + 2]! + row[x + 6]!) +
      d * (row[x + 1]! + row[x + 7]!) +
      e * (row[x]! + row[x + 8]!);
}

/** The same downwards; the general way keeps its sums in 32 bits. */
function downShort(
  across: Float32Array,
  width: number,
  y: number,
  taps: Float32Array,
  out: Float32Array,
): void {
  const [a, b, c, d, e] = fiveOf(taps);
  const last = across.length / width - 1;
  const up = (k: number): number => Math.max(0, y - k) * width;
  const down = (k: number): number => Math.min(last, y + k) * width;
  const p = y * width;
  const [u1, u2, u3, u4] = [up(1), up(2), up(3), up(4)];
  const [d1, d2, d3, d4] = [down(1), down(2), down(3), down(4)];
  for (let x = 0; x < width; x++) {
    let sum = Math.fround(a * across[p + x]!);
    sum = Math.fround(sum + b * (across[u1 + x]! + across[d1 + x]!));
    sum = Math.fround(sum + c * (across[u2 + x]! + across[d2 + x]!));
    sum = Math.fround(sum + d * (across[u3 + x]! + across[d3 + x]!));
    out[x] = sum + e * (across[u4 + x]! + across[d4 + x]!);
  }
}

/** Taps that are not there count nothing. */
function fiveOf(taps: Float32Array): [number, number, number, number, number] {
  return [taps[0]!, taps[1] ?? 0, taps[2] ?? 0, taps[3] ?? 0, taps[4] ?? 0];
}

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
