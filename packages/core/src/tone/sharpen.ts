import type { Plane } from '../raster/plane.js';
import { blurred } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { addToAll, lumaOf } from './channels.js';
import type { ToneActOf } from './step.js';

/** Reduced views cannot show radii under this, px of theirs. */
const SMALLEST = 0.25;

/**
 * Unsharp masking of the luma, in place: what a Gaussian blur takes away is added `amount` times. An edge may pass
 * the range of its surroundings by `limit` at the most, so that halos stay under a line that was chosen.
 * @param scale full px a pixel of the region stands for
 */
export function sharpen(
  region: Raster,
  { radius, amount, limit }: ToneActOf<'sharpen'>,
  scale: number,
): void {
  const sigma = radius / scale;
  if (sigma < SMALLEST || amount === 0) return;
  const luma = lumaOf(region);
  const soft = blurred(luma, sigma);
  const { low, high } = rangeAround(luma, Math.max(1, Math.round(sigma * 1.5)));
  const more = new Float32Array(luma.values.length);
  for (let p = 0; p < more.length; p++) {
    const v = luma.values[p]!;
    const to = v + amount * (v - soft.values[p]!);
    const least = low[p]! - limit;
    const most = high[p]! + limit;
    more[p] = (to < least ? least : to > most ? most : to) - v;
  }
  addToAll(region, more);
}

/** What a wide blur takes away is added, strong edges held back so that relief grows and edges do not. */
export function relief(
  region: Raster,
  { radius, amount }: ToneActOf<'relief'>,
  scale: number,
): void {
  const sigma = radius / scale;
  if (sigma < SMALLEST || amount === 0) return;
  const luma = lumaOf(region);
  const soft = blurred(luma, sigma).values;
  addToAll(
    region,
    luma.values.map((v, p) => {
      const d = v - soft[p]!;
      return (amount * d) / (1 + 8 * Math.abs(d));
    }),
  );
}

/** How far an edge would pass the range of its surroundings, as a share of its own height: the halo. */
export function overshootOf(radius: number, amount: number): number {
  // An ideal step, sampled so finely that the blur is smooth; half of it lies on either side.
  const n = 400;
  const values = Float32Array.from({ length: n }, (_, k) => (k < n / 2 ? 0 : 1));
  const fine = Math.max(1, radius) * 8;
  const soft = blurred({ width: n, height: 1, values }, Math.min(60, fine)).values;
  let most = 0;
  values.forEach((v, p) => (most = Math.max(most, v + amount * (v - soft[p]!) - 1)));
  return most;
}

/** Least and most of every pixel's surroundings, a square of side 2r+1. */
function rangeAround(
  { width, height, values }: Plane,
  r: number,
): { low: Float32Array; high: Float32Array } {
  const low = new Float32Array(values.length);
  const high = new Float32Array(values.length);
  const lowRows = new Float32Array(values.length);
  const highRows = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let x = 0; x < width; x++) {
      const end = row + Math.min(width - 1, x + r);
      let least = values[row + x]!;
      let most = least;
      for (let p = row + Math.max(0, x - r); p <= end; p++) {
        const v = values[p]!;
        if (v < least) least = v;
        if (v > most) most = v;
      }
      lowRows[row + x] = least;
      highRows[row + x] = most;
    }
  }
  for (let y = 0; y < height; y++) {
    const row = y * width;
    low.set(lowRows.subarray(row, row + width), row);
    high.set(highRows.subarray(row, row + width), row);
    for (let v = Math.max(0, y - r); v <= Math.min(height - 1, y + r); v++) {
      const from = v * width;
      for (let x = 0; x < width; x++) {
        if (lowRows[from + x]! < low[row + x]!) low[row + x] = lowRows[from + x]!;
        if (highRows[from + x]! > high[row + x]!) high[row + x] = highRows[from + x]!;
      }
    }
  }
  return { low, high };
}
