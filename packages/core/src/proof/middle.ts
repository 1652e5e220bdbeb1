import { weightedMedianOf } from '../raster/median.js';
import type { Plane } from '../raster/plane.js';
import { sampleAt } from '../raster/plane.js';
import type { RimPoint } from './site-window.js';

/** The weighted median of what the places of a border say, and its standard error. */
export interface Middle {
  readonly value: number;
  readonly doubt: number;
}

/** px on either side of the border over which it is told how lively a place is. */
const BESIDE = 5;
/** px of a site that hardly say anything new about each other. */
const PLACE = 9;

/**
 * What places of a border say in common, whatever crosses it.
 * @param weights of the places @param alike px along the border that hardly say anything new about each other
 * @param least what no spread is taken to be below
 * @param most how many of them can say something of their own, see {@link placesIn}
 */
export function middleOf(
  values: readonly number[],
  weights: readonly number[],
  alike: number,
  least: number,
  most = Infinity,
): Middle {
  const value = weightedMedianOf(values, weights);
  const spread =
    1.4826 *
    weightedMedianOf(
      values.map((v) => Math.abs(v - value)),
      weights,
    );
  let [sum, squares] = [0, 0];
  for (const w of weights) {
    sum += w;
    squares += w * w;
  }
  // Kish's effective size of a weighted sample.
  const count = Math.max(1, Math.min(most, sum ** 2 / squares / alike));
  return { value, doubt: (1.25 * Math.max(spread, least)) / Math.sqrt(count) };
}

/** Places inside a site that are told apart: round a speck the whole border is beside the same few pixels. */
export function placesIn(mask: Uint8Array): number {
  let area = 0;
  for (const m of mask) area += m;
  return area / PLACE;
}

/** Calm places of a border say more than lively ones. @param calm variance that no place is taken to be below */
export function calmFirst(plane: Plane, rim: readonly RimPoint[], calm: number): number[] {
  return rim.map((point) => 1 / Math.sqrt(liveliness(plane, point) + calm));
}

/** Mean square slope along the normal, on both sides; the step across the border itself is left out. */
function liveliness(plane: Plane, { x, y, nx, ny }: RimPoint): number {
  let sum = 0;
  for (const side of [1, -1])
    for (let t = side, last = sampleAt(plane, x + t * nx, y + t * ny); t !== side * BESIDE;) {
      t += side;
      const next = sampleAt(plane, x + t * nx, y + t * ny);
      sum += (next - last) ** 2;
      last = next;
    }
  return sum / (2 * (BESIDE - 1));
}
