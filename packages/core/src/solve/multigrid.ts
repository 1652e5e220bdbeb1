import type { Levels } from './levels.js';
import { LANES, layOut } from './levels.js';
import type { System } from './system.js';
import { residualOf } from './system.js';

/** Options of {@link solveSystem}. */
export interface SolverOptions {
  /** Stops when every residual's 2-norm has fallen to this share of its right-hand side's. @default 1e-6 */
  tolerance?: number;
  /** Gives up after so many rounds. @default 200 */
  maxRounds?: number;
  /** What becomes the solutions. @default new values, single ones where no more is wanted */
  into?: Values;
  /** First guess of the solutions: what solves nearly the same system. It may be what they go into. @default 0 */
  start?: Values;
}

/** Four values a cell. */
type Values = Float32Array | Float64Array;

/** Single precision is trusted this far; smaller tolerances are reached by correcting in double precision. */
const TRUSTED = 1e-4;
/** Corrections that do not shrink the residual any more end the solve. */
const MOST_CORRECTIONS = 12;

/**
 * Solves a system for four right-hand sides at once: conjugate gradients preconditioned by a symmetric multigrid
 * V-cycle. 2x2 cells make one of the next level, cells relax in the order of a chessboard's colours, corrections
 * come back bilinearly, residuals go down by the transpose, coarse weights are rediscretised. Takes any mask and
 * any weights. Briggs, Henson, McCormick, "A Multigrid Tutorial", SIAM 2000; as preconditioner: Tatebe, "The
 * multigrid preconditioned conjugate gradient method", 1993; the outer corrections: Wilkinson's iterative
 * refinement (Higham, "Accuracy and Stability of Numerical Algorithms", ch. 12). Free of chance: same input,
 * same bytes.
 * @param b right-hand sides, four values a cell; only unknowns count
 * @returns the solutions, four values a cell and 0 where there is no unknown, the rounds taken and the greatest
 * relative residual reached
 */
export function solveSystem(
  system: System,
  b: Values,
  options: SolverOptions = {},
): { x: Values; rounds: number; residual: number } {
  const tolerance = options.tolerance ?? 1e-6;
  const left = { rounds: options.maxRounds ?? 200 };
  const allowed = left.rounds;
  if (tolerance >= TRUSTED) {
    // Single precision in, single precision out: half the memory where no more is wanted.
    const x = options.into ?? new Float32Array(b.length);
    const levels = layOut(system);
    const goal = Array<number>(LANES).fill(tolerance);
    const residual = descend(levels, b, goal, left, options.start);
    x.set(levels.x);
    return { x, rounds: allowed - left.rounds, residual };
  }
  const x = options.into ?? new Float64Array(b.length);
  const scale = norms(b);
  // Where nothing is asked nothing is to be guessed.
  if (options.start) x.set(options.start.map((v, i) => (i >= LANES && scale[i & 3]! > 0 ? v : 0)));
  else x.fill(0);
  if (scale.every((v) => v === 0)) return { x, rounds: 0, residual: 0 };
  const levels = layOut(system);
  let r: Values = b;
  if (options.start) residualOf(system, b, x, (r = new Float64Array(b.length)));
  let rest: number[] = norms(r).map((v, c) => (scale[c]! > 0 ? v / scale[c]! : 0));
  for (let correction = 0; ; correction++) {
    const before = Math.max(...rest);
    // Within one correction single precision cannot gain more than it can hold.
    const goal = rest.map((v) => (v > 0 ? Math.max(tolerance / v, TRUSTED) : 1));
    descend(levels, r, goal, left);
    levels.x.forEach((v, i) => (x[i]! += v));
    const done = (residual: number) => ({ x, rounds: allowed - left.rounds, residual });
    if (r === b) r = new Float64Array(b.length);
    residualOf(system, b, x, r);
    rest = norms(r).map((v, c) => (scale[c]! > 0 ? v / scale[c]! : 0));
    const worst = Math.max(...rest);
    const stuck = worst > before / 2 || correction >= MOST_CORRECTIONS || left.rounds <= 0;
    if (worst <= tolerance || stuck) return done(worst);
  }
}

/**
 * One run of conjugate gradients for what is left of the right-hand sides; the levels' `x` becomes
 * its answer.
 * @returns the greatest share of a right-hand side that is left
 */
function descend(
  levels: Levels,
  rest: Values,
  goal: readonly number[],
  left: { rounds: number },
  start?: Values,
): number {
  const { kernel, at, count, b, z, p, q, sums, shares } = levels;
  levels.x.fill(0);
  p.fill(0);
  b.set(rest);
  kernel.dot(at, b.byteOffset, b.byteOffset, sums.byteOffset);
  const first = Array.from(sums);
  if (first.every((v) => v === 0)) return 0;
  const isDone = (): boolean => first.every((v, c) => sums[c]! <= goal[c]! * goal[c]! * v);
  const to = [p.byteOffset, q.byteOffset, shares.byteOffset, sums.byteOffset] as const;
  const reached = (): number =>
    Math.max(...first.map((v, c) => (v > 0 ? Math.sqrt(sums[c]! / v) : 0)));
  if (start) {
    // A whole step along the guess, but where nothing is asked.
    z.set(start);
    shares.fill(0);
    kernel.advance(at, z.byteOffset, ...to);
    shares.set(first.map((v) => (v > 0 ? 1 : 0)));
    kernel.step(at, levels.x.byteOffset, to[0], b.byteOffset, to[1], to[2], to[3]);
    if (isDone()) return reached();
  }
  let rho = [0, 0, 0, 0];
  for (let round = 0; left.rounds > 0; round++) {
    kernel.cycle(at, count);
    kernel.dot(at, b.byteOffset, z.byteOffset, sums.byteOffset);
    const next = Array.from(sums);
    shares.set(next.map((v, c) => (rho[c]! > 0 ? v / rho[c]! : 0)));
    rho = next;
    kernel.advance(at, z.byteOffset, ...to);
    shares.set(rho.map((v, c) => (sums[c]! > 0 ? v / sums[c]! : 0)));
    kernel.step(at, levels.x.byteOffset, to[0], b.byteOffset, to[1], to[2], to[3]);
    left.rounds--;
    if (isDone()) break;
  }
  return reached();
}

/** Of each right-hand side, over the unknowns. */
function norms(v: Values): number[] {
  const sums = [0, 0, 0, 0];
  for (let i = LANES; i < v.length; i++) sums[i & 3]! += v[i]! * v[i]!;
  return sums.map(Math.sqrt);
}
