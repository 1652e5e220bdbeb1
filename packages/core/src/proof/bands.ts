import type { Plane } from '../raster/plane.js';

/** Mean squares of three bands in blocks of a picture, and the blocks' mean tone. */
export interface BlockBands {
  readonly columns: number;
  readonly rows: number;
  /** Natural logarithms of the mean squares, fine, middle and coarse. */
  readonly fine: Float32Array;
  readonly middle: Float32Array;
  readonly coarse: Float32Array;
  readonly tone: Float32Array;
  /** Logarithm of the square of the median size of the fine band: grain, with what is drawn left out. */
  readonly grain: Float32Array;
}

/** Side of a block, px. */
export const BLOCK = 8;

/**
 * A plane and what is left of it after one, two and three smoothings of the a trous transform with the B3 spline (Starck,
 * Murtagh, "Astronomical Image and Data Analysis", 2002): bands are the differences of neighbours.
 */
export type Smoothed = readonly [Float32Array, Float32Array, Float32Array, Float32Array];

export function smoothedOf({ width, height, values }: Plane): Smoothed {
  const once = spline(values, width, height, 1);
  const twice = spline(once, width, height, 2);
  return [values, once, twice, spline(twice, width, height, 4)];
}

/** The first three bands, each as mean squares in blocks. */
export function blockBands(luma: Plane, layers: Smoothed): BlockBands {
  const { width, height } = luma;
  const columns = Math.floor(width / BLOCK);
  const rows = Math.floor(height / BLOCK);
  const out = {
    columns,
    rows,
    fine: new Float32Array(columns * rows),
    middle: new Float32Array(columns * rows),
    coarse: new Float32Array(columns * rows),
    tone: new Float32Array(columns * rows),
    grain: new Float32Array(columns * rows),
  };
  const bands = [out.fine, out.middle, out.coarse];
  bands.forEach((band, k) => {
    const from = layers[k]!;
    const smooth = layers[k + 1]!;
    for (let y = 0; y < rows * BLOCK; y++)
      for (let x = 0; x < columns * BLOCK; x++) {
        const p = y * width + x;
        const d = from[p]! - smooth[p]!;
        band[(y >> 3) * columns + (x >> 3)]! += d * d;
        if (k === 0) out.tone[(y >> 3) * columns + (x >> 3)]! += luma.values[p]! / 64;
      }
    if (k === 0) medians(from, smooth, width, columns, rows, out.grain);
  });
  for (const band of bands)
    for (let i = 0; i < band.length; i++) band[i] = Math.log(band[i]! / (BLOCK * BLOCK) + 0.01);
  return out;
}

function medians(
  from: Float32Array,
  smooth: Float32Array,
  width: number,
  columns: number,
  rows: number,
  out: Float32Array,
): void {
  const sizes = new Float32Array(BLOCK * BLOCK);
  for (let v = 0; v < rows; v++)
    for (let u = 0; u < columns; u++) {
      for (let y = 0, k = 0; y < BLOCK; y++)
        for (let x = 0; x < BLOCK; x++, k++) {
          const p = (v * BLOCK + y) * width + u * BLOCK + x;
          sizes[k] = Math.abs(from[p]! - smooth[p]!);
        }
      sizes.sort();
      out[v * columns + u] = 2 * Math.log(1.4826 * sizes[sizes.length >> 1]! + 0.1);
    }
}

function spline(values: Float32Array, width: number, height: number, step: number): Float32Array {
  const rows = new Float32Array(values.length);
  const out = new Float32Array(values.length);
  const at = (x: number, length: number): number => (x < 0 ? 0 : x >= length ? length - 1 : x);
  for (let y = 0; y < height; y++)
    for (let x = 0, q = y * width; x < width; x++) {
      const p = q + x;
      if (x >= 2 * step && x < width - 2 * step)
        rows[p] =
          (6 * values[p]! +
            4 * (values[p - step]! + values[p + step]!) +
            values[p - 2 * step]! +
            values[p + 2 * step]!) /
          16;
      else
        rows[p] =
          (6 * values[p]! +
            4 * (values[q + at(x - step, width)]! + values[q + at(x + step, width)]!) +
            values[q + at(x - 2 * step, width)]! +
            values[q + at(x + 2 * step, width)]!) /
          16;
    }
  for (let y = 0; y < height; y++) {
    const [a, b] = [at(y - step, height) * width, at(y + step, height) * width];
    const [c, d] = [at(y - 2 * step, height) * width, at(y + 2 * step, height) * width];
    for (let x = 0, p = y * width; x < width; x++, p++)
      out[p] =
        (6 * rows[p]! + 4 * (rows[a + x]! + rows[b + x]!) + rows[c + x]! + rows[d + x]!) / 16;
  }
  return out;
}
