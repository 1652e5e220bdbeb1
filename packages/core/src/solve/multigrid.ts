import type { Crew, Range } from '../task/crew.js';
import { alone, rangesOf } from '../task/crew.js';
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
  /** Threads that share the work; the solutions do not depend on them. @default the calling one alone */
  crew?: Crew;
}

/** What comes of a system. */
export interface Solved {
  /** Four values a cell, 0 where there is no unknown. */
  readonly x: Values;
  /** Rounds taken. */
  readonly rounds: number;
  /** The greatest relative residual reached. */
  readonly residual: number;
}

/** Four values a cell. */
type Values = Float32Array | Float64Array;

/** Single precision is trusted this far; smaller tolerances are reached by correcting in double precision. */
const TRUSTED = 1e-4;
/** Corrections that do not shrink the residual any more end the solve. */
const MOST_CORRECTIONS = 12;
/** Cells of the smallest range and, of the smallest level, that threads share. */
const LEAST_RANGE = 4096;
const LEAST_LEVEL = 8192;
/** What a row goes through in a cycle, on the way down and up: stages shared by two threads at most, about even. */
const WAYS = { down: [0, 3, 5], up: [0, 2, 5] } as const;

/**
 * Solves a system for four right-hand sides at once: conjugate gradients preconditioned by a symmetric multigrid
 * V-cycle. 2x2 cells make one of the next level, cells relax in the order of a chessboard's colours, corrections
 * come back bilinearly, residuals go down by the transpose, coarse weights are rediscretised. Takes any mask and
 * any weights. Briggs, Henson, McCormick, "A Multigrid Tutorial", SIAM 2000; as preconditioner: Tatebe, "The
 * multigrid preconditioned conjugate gradient method", 1993; the outer corrections: Wilkinson's iterative
 * refinement (Higham, "Accuracy and Stability of Numerical Algorithms", ch. 12). Free of chance: same input,
 * same bytes.
 * @param b right-hand sides, four values a cell; only unknowns count
 */
export function solveSystem(system: System, b: Values, options: SolverOptions = {}): Solved {
  return solveLevels(layOut(system), b, options);
}

/** The same for a system that is laid out already. @param levels numbered; the others' weights are made from the first one's */
export function solveLevels(levels: Levels, b: Values, options: SolverOptions = {}): Solved {
  const { system } = levels;
  const { crew = alone, tolerance = 1e-6, maxRounds = 200 } = options;
  const left = { rounds: maxRounds, crew };
  const done = (x: Values, residual: number): Solved => ({
    x,
    rounds: maxRounds - left.rounds,
    residual,
  });
  levels.kernel.weigh(levels.at[0]!, levels.at.length);
  if (tolerance >= TRUSTED) {
    // Single precision in, single precision out: half the memory where no more is wanted.
    const goal = Array<number>(LANES).fill(tolerance);
    const residual = descend(levels, b, goal, left, options.start);
    const x = options.into ?? new Float32Array(b.length);
    x.set(levels.x);
    return done(x, residual);
  }
  const x = options.into ?? new Float64Array(b.length);
  const scale = norms(b);
  // Where nothing is asked nothing is to be guessed.
  if (options.start) x.set(options.start.map((v, i) => (i >= LANES && scale[i & 3]! > 0 ? v : 0)));
  else x.fill(0);
  if (scale.every((v) => v === 0)) return done(x, 0);
  let r: Values = b;
  if (options.start) residualOf(system, b, x, (r = new Float64Array(b.length)));
  let rest: number[] = norms(r).map((v, c) => (scale[c]! > 0 ? v / scale[c]! : 0));
  for (let correction = 0; ; correction++) {
    const before = Math.max(...rest);
    // Within one correction single precision cannot gain more than it can hold.
    const goal = rest.map((v) => (v > 0 ? Math.max(tolerance / v, TRUSTED) : 1));
    descend(levels, r, goal, left);
    levels.x.forEach((v, i) => (x[i]! += v));
    if (r === b) r = new Float64Array(b.length);
    residualOf(system, b, x, r);
    rest = norms(r).map((v, c) => (scale[c]! > 0 ? v / scale[c]! : 0));
    const worst = Math.max(...rest);
    const stuck = worst > before / 2 || correction >= MOST_CORRECTIONS || left.rounds <= 0;
    if (worst <= tolerance || stuck) return done(x, worst);
  }
}

/**
 * One run of conjugate gradients for what is left of the right-hand sides; the levels' `x` becomes
 * its answer.
 * @param start first guess, which may be the levels' `x`
 * @returns the greatest share of a right-hand side that is left
 */
function descend(
  levels: Levels,
  rest: Values,
  goal: readonly number[],
  left: { rounds: number; readonly crew: Crew },
  start?: Values,
): number {
  const { room, at, b, z, x, p, q, shares } = levels;
  const ranges = rangesOf(levels.system.cells - 1, LEAST_RANGE).map(([from, to]): Range => [
    from + 1,
    to + 1,
  ]);
  const { byteOffset: sums } = levels.sums;
  const run = (name: string, ...args: readonly (number | Float32Array)[]): number[] => {
    const addresses = args.map((arg) => (typeof arg === 'number' ? arg : arg.byteOffset));
    left.crew.run(room, name, addresses, ranges);
    return addedUp(levels.sums, ranges.length);
  };
  const goAlong = (): number[] => {
    const along = run('multiply', at[0]!, p, q, sums);
    shares.set(rho.map((v, c) => (along[c]! > 0 ? v / along[c]! : 0)));
    return run('step', x, p, b, q, shares, sums);
  };
  if (start) z.set(start);
  x.fill(0);
  p.fill(0);
  b.set(rest);
  const first = run('dot', b, b, sums);
  if (first.every((v) => v === 0)) return 0;
  let now = first;
  let rho = [0, 0, 0, 0];
  const isDone = (): boolean => first.every((v, c) => now[c]! <= goal[c]! * goal[c]! * v);
  const reached = (): number =>
    Math.max(...first.map((v, c) => (v > 0 ? Math.sqrt(now[c]! / v) : 0)));
  if (start) {
    // A whole step along the guess, but where nothing is asked.
    shares.fill(0);
    run('advance', z, p, shares);
    run('multiply', at[0]!, p, q, sums);
    shares.set(first.map((v) => (v > 0 ? 1 : 0)));
    now = run('step', x, p, b, q, shares, sums);
    if (isDone()) return reached();
  }
  while (left.rounds > 0) {
    cycle(levels, 0, left.crew);
    const next = run('dot', b, z, sums);
    shares.set(next.map((v, c) => (rho[c]! > 0 ? v / rho[c]! : 0)));
    rho = next;
    run('advance', z, p, shares);
    now = goAlong();
    left.rounds--;
    if (isDone()) break;
  }
  return reached();
}

/** What ranges have added up, in all: four numbers each. */
function addedUp(sums: Float64Array, ranges: number): number[] {
  const all = [0, 0, 0, 0];
  for (let i = 0; i < 4 * ranges; i++) all[i & 3]! += sums[i]!;
  return all;
}

/** A V-cycle from a level on: threads go through the rows of larger ones one behind the other. */
function cycle(levels: Levels, k: number, crew: Crew): void {
  const { kernel, room, at, marks, system } = levels;
  // Of four cells about one is left at the next level.
  if (crew.threads < 2 || system.cells >> (2 * k) < LEAST_LEVEL || k + 1 >= at.length)
    return kernel.cycle(at[k]!, at.length - k);
  const go = (name: keyof typeof WAYS): void => {
    const [begin, between, end] = WAYS[name];
    marks.fill(0);
    crew.run(
      room,
      name,
      [at[k]!],
      [
        [begin, between],
        [between, end],
      ],
    );
  };
  go('down');
  cycle(levels, k + 1, crew);
  go('up');
}

/** Of each right-hand side, over the unknowns. */
function norms(v: Values): number[] {
  const sums = [0, 0, 0, 0];
  for (let i = LANES; i < v.length; i++) sums[i & 3]! += v[i]! * v[i]!;
  return sums.map(Math.sqrt);
}
