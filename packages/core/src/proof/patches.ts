import type { Plane } from '../raster/plane.js';

/** Half the side of a patch, px. */
export const HALF = 5;
export const SIDE = 2 * HALF + 1;
/** Share of a patch's slopes that lie in one direction, from which on it is an edge, and like itself along itself. */
const ONE_WAY = 0.6;

/** Standard deviation in a patch, codes; 0 where it would lie outside of the picture. */
export function deviationAt({ width, height, values }: Plane, p: number): number {
  const x = p % width;
  if (x < HALF || x >= width - HALF || p < HALF * width || p >= (height - HALF) * width) return 0;
  let [sum, square] = [0, 0];
  for (let v = -HALF; v <= HALF; v++)
    for (let i = p + v * width - HALF, end = i + SIDE; i < end; i++) {
      sum += values[i]!;
      square += values[i]! * values[i]!;
    }
  const n = SIDE * SIDE;
  return Math.sqrt(Math.max(0, square / n - (sum / n) ** 2));
}

/** Whether a patch's slopes all lie one way (coherence of the structure tensor, Bigun and Granlund 1987). */
export function isEdge({ width, values }: Plane, p: number): boolean {
  let [xx, xy, yy] = [0, 0, 0];
  for (let v = -HALF + 1; v < HALF; v++)
    for (let i = p + v * width - HALF + 1, end = i + SIDE - 2; i < end; i++) {
      const gx = values[i + 1]! - values[i - 1]!;
      const gy = values[i + width]! - values[i - width]!;
      xx += gx * gx;
      xy += gx * gy;
      yy += gy * gy;
    }
  const root = Math.sqrt((xx - yy) ** 2 + 4 * xy * xy);
  return root > ONE_WAY * (xx + yy);
}

/** Root mean square difference of two patches, codes. */
export function difference({ width, values }: Plane, p: number, q: number): number {
  let sum = 0;
  for (let v = -HALF; v <= HALF; v++)
    for (let u = -HALF; u <= HALF; u++)
      sum += (values[p + v * width + u]! - values[q + v * width + u]!) ** 2;
  return Math.sqrt(sum) / SIDE;
}

/** Correlation of two patches, their means left out; 0 where one of them shows nothing. */
export function correlation({ width, values }: Plane, p: number, q: number): number {
  let [a, b, aa, bb, ab] = [0, 0, 0, 0, 0];
  for (let v = -HALF; v <= HALF; v++)
    for (let u = -HALF; u <= HALF; u++) {
      const one = values[p + v * width + u]!;
      const two = values[q + v * width + u]!;
      a += one;
      b += two;
      aa += one * one;
      bb += two * two;
      ab += one * two;
    }
  const n = SIDE * SIDE;
  const va = aa - (a * a) / n;
  const vb = bb - (b * b) / n;
  return va < 0.4 * n || vb < 0.4 * n ? 0 : (ab - (a * b) / n) / Math.sqrt(va * vb);
}
