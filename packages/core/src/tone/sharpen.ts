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
  const more = luma.values.map((v, p) => {
    const to = v + amount * (v - soft.values[p]!);
    return Math.min(high[p]! + limit, Math.max(low[p]! - limit, to)) - v;
  });
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
  const sides = (from: Float32Array, pick: (a: number, b: number) => number): Float32Array => {
    const rows = new Float32Array(from.length);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        let v = from[y * width + x]!;
        for (let k = Math.max(0, x - r); k <= Math.min(width - 1, x + r); k++)
          v = pick(v, from[y * width + k]!);
        rows[y * width + x] = v;
      }
    const out = rows.slice();
    for (let y = 0; y < height; y++)
      for (let k = Math.max(0, y - r); k <= Math.min(height - 1, y + r); k++)
        for (let x = 0; x < width; x++)
          out[y * width + x] = pick(out[y * width + x]!, rows[k * width + x]!);
    return out;
  };
  return {
    low: sides(values, (a, b) => (a < b ? a : b)),
    high: sides(values, (a, b) => (a > b ? a : b)),
  };
}
