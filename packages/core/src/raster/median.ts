import { orderOf } from './order.js';

/** The middle value; 0 of none. The list is not changed. */
export function medianOf(values: ArrayLike<number>): number {
  if (!values.length) return 0;
  const sorted = Float64Array.from(values).sort();
  const half = sorted.length >> 1;
  return sorted.length & 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/** The value that a share 0..1 of all lie below, one of theirs; the list, not empty, is not changed. */
export function valueAtShare(values: ArrayLike<number>, share: number): number {
  const sorted = Float64Array.from(values).sort();
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
}

/** Steps in 1 that values are ordered by. */
const FINE = 1e5;

/**
 * The value at which half of the weight lies on either side; 0 of none. Values closer than 1e-5 count as alike.
 * @param weights of the values, none below 0
 */
export function weightedMedianOf(values: readonly number[], weights: readonly number[]): number {
  let left = weights.reduce((sum, w) => sum + w, 0) / 2;
  for (const i of orderOf(values, FINE)) {
    left -= weights[i]!;
    if (left <= 0) return values[i]!;
  }
  return 0;
}
