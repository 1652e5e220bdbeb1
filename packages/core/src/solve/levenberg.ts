import { solveSmall } from './small.js';

/** The parameters a sum of squares is least at. */
export interface LeastSquares {
  readonly values: readonly number[];
  /** Root of the mean weighted square of the residuals. */
  readonly rms: number;
}

/**
 * Levenberg-Marquardt (Marquardt, "An Algorithm for Least-Squares Estimation of Nonlinear Parameters", SIAM J. 11(2), 1963)
 * with slopes by differences; residuals come in pairs (x, y of one place) and long pairs count less (Huber).
 * @param residuals fills `out` for parameters; its length is even
 * @param steps how much each parameter is moved to see its slope
 * @param huber length of a pair from which on it counts linearly
 */
export function levenberg(
  start: readonly number[],
  steps: readonly number[],
  count: number,
  residuals: (values: readonly number[], out: Float64Array) => void,
  huber: number,
  rounds = 25,
): LeastSquares {
  const n = start.length;
  let values = [...start];
  let here = new Float64Array(count);
  let there = new Float64Array(count);
  const slopes = start.map(() => new Float64Array(count));
  const weights = new Float64Array(count);
  residuals(values, here);
  let cost = weighed(here, huber, weights);
  let damping = 1e-3;
  for (let round = 0; round < rounds && n > 0; round++) {
    for (let k = 0; k < n; k++) {
      const moved = [...values];
      moved[k]! += steps[k]!;
      residuals(moved, there);
      const slope = slopes[k]!;
      for (let i = 0; i < count; i++) slope[i] = (there[i]! - here[i]!) / steps[k]!;
    }
    const { a, b } = normalEquations(slopes, here, weights);
    let gained = 0;
    for (let tries = 0; tries < 8; tries++) {
      const step = solveSmall(
        a.map((row, k) => row.map((v, j) => (j === k ? v * (1 + damping) + 1e-12 : v))),
        [...b],
      );
      const moved = values.map((v, k) => v - step[k]!);
      residuals(moved, there);
      const next = weighed(there, huber, weights);
      if (next < cost) {
        gained = (cost - next) / cost;
        [values, cost] = [moved, next];
        [here, there] = [there, here];
        damping = Math.max(1e-9, damping / 5);
        break;
      }
      damping *= 6;
    }
    weighed(here, huber, weights);
    if (gained < 1e-7) break;
  }
  return { values, rms: Math.sqrt((2 * cost) / count) };
}

function normalEquations(
  slopes: readonly Float64Array[],
  here: Float64Array,
  weights: Float64Array,
): { a: number[][]; b: number[] } {
  const n = slopes.length;
  const a = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  const b = new Array<number>(n).fill(0);
  for (let k = 0; k < n; k++) {
    const one = slopes[k]!;
    for (let j = k; j < n; j++) {
      const other = slopes[j]!;
      let sum = 0;
      for (let i = 0; i < one.length; i++) sum += weights[i]! * one[i]! * other[i]!;
      a[k]![j] = sum;
      a[j]![k] = sum;
    }
    for (let i = 0; i < one.length; i++) b[k]! += weights[i]! * one[i]! * here[i]!;
  }
  return { a, b };
}

/** Huber's loss over pairs, and every residual's weight under it. */
function weighed(residuals: Float64Array, huber: number, weights: Float64Array): number {
  let cost = 0;
  for (let i = 0; i < residuals.length; i += 2) {
    const length = Math.sqrt(residuals[i]! ** 2 + residuals[i + 1]! ** 2);
    const far = length > huber;
    cost += far ? 2 * huber * length - huber * huber : length * length;
    weights[i] = far ? huber / length : 1;
    weights[i + 1] = weights[i]!;
  }
  return cost;
}
