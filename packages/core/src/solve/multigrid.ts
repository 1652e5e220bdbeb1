import { coarsen } from './coarsen.js';
import type { System } from './system.js';
import { diagonalOf } from './system.js';

/** Options of {@link createSolver}. */
export interface SolverOptions {
  /** Stops when the residual's 2-norm has fallen to this share of the right-hand side's. @default 1e-6 */
  tolerance?: number;
  /** Gives up after so many rounds. @default 200 */
  maxRounds?: number;
}

/** Solves one system for as many right-hand sides as wanted. */
export interface Solver {
  /**
   * @param b right-hand side, one number a cell; only unknowns count
   * @param x first guess, changed in place to the solution; cells that are no unknowns must be 0
   * @returns rounds taken and the relative residual reached
   */
  solve(b: Float64Array, x: Float64Array): { rounds: number; residual: number };
}

interface Level {
  readonly system: System;
  /** 1 / diagonal at unknowns. */
  readonly inverse: Float64Array;
  readonly diagonal: Float64Array;
  readonly x: Float64Array;
  readonly b: Float64Array;
  readonly r: Float64Array;
}

/** Levels with no more cells are solved by relaxation alone. */
const SMALLEST = 64;

/**
 * Conjugate gradients preconditioned by a symmetric multigrid V-cycle: 2x2 cells make one of the next level,
 * corrections come back bilinearly, residuals go down by the transpose, coarse weights are rediscretised. Takes
 * any mask and any weights. Briggs, Henson, McCormick, "A Multigrid Tutorial", SIAM 2000; as preconditioner:
 * Tatebe, "The multigrid preconditioned conjugate gradient method", 1993. Free of chance: same input, same bytes.
 */
export function createSolver(system: System, options: SolverOptions = {}): Solver {
  const tolerance = options.tolerance ?? 1e-6;
  const maxRounds = options.maxRounds ?? 200;
  const levels = levelsOf(system);
  const top = levels[0]!;
  const { runs, cells } = system;
  const r = new Float64Array(cells);
  const p = new Float64Array(cells);
  const ap = new Float64Array(cells);

  return {
    solve(b, x) {
      const scale = Math.sqrt(dot(runs, b, b));
      if (scale === 0) {
        x.fill(0);
        return { rounds: 0, residual: 0 };
      }
      residualOf(top, x, b, r);
      let rounds = 0;
      let norm = Math.sqrt(dot(runs, r, r)) / scale;
      let rho = 0;
      while (norm > tolerance && rounds < maxRounds) {
        top.b.set(r);
        cycle(levels, 0);
        const z = top.x;
        const next = dot(runs, r, z);
        const beta = rounds === 0 ? 0 : next / rho;
        rho = next;
        for (let k = 0; k < runs.length; k += 2)
          for (let i = runs[k]!, end = runs[k + 1]!; i < end; i++) p[i] = z[i]! + beta * p[i]!;
        const curvature = apply(top, p, ap);
        const alpha = rho / curvature;
        let rest = 0;
        for (let k = 0; k < runs.length; k += 2)
          for (let i = runs[k]!, end = runs[k + 1]!; i < end; i++) {
            x[i]! += alpha * p[i]!;
            const left = r[i]! - alpha * ap[i]!;
            r[i] = left;
            rest += left * left;
          }
        rounds++;
        norm = Math.sqrt(rest) / scale;
      }
      return { rounds, residual: norm };
    },
  };
}

function levelsOf(system: System): Level[] {
  const levels: Level[] = [];
  let current = system;
  for (;;) {
    const diagonal = diagonalOf(current);
    // A part tied to nothing known has a free constant: a tiny tie keeps the system definite.
    for (let i = 0; i < diagonal.length; i++)
      if (current.unknown[i] && diagonal[i]! < 1e-12) diagonal[i] = 1e-12;
    levels.push({
      system: current,
      diagonal,
      inverse: diagonal.map((d) => (d > 0 ? 1 / d : 0)),
      x: new Float64Array(current.cells),
      b: new Float64Array(current.cells),
      r: new Float64Array(current.cells),
    });
    if (current.cells <= SMALLEST) return levels;
    current = coarsen(current);
  }
}

/** One symmetric V-cycle on level k: x becomes an approximate solution for b, starting from 0. */
function cycle(levels: readonly Level[], k: number): void {
  const level = levels[k]!;
  const coarse = levels[k + 1];
  level.x.fill(0);
  relaxForward(level);
  if (!coarse) {
    for (let sweep = 0; sweep < 8; sweep++) relaxForward(level);
    for (let sweep = 0; sweep < 9; sweep++) relaxBackward(level);
    return;
  }
  relaxForward(level);
  residualOf(level, level.x, level.b, level.r);
  restrict(level, coarse);
  cycle(levels, k + 1);
  prolong(level, coarse);
  relaxBackward(level);
  relaxBackward(level);
}

/**
 * Bilinear weights of a cell on the coarse cells about it: 9/16 its own, 3/16 the near one in x and in y, 1/16
 * the diagonal one; coarse cells that are no unknowns stand for the known values' zero correction.
 */
function restrict(fine: Level, coarse: Level): void {
  const { stride, runs } = fine.system;
  const wide = coarse.system.stride;
  const { r } = fine;
  const { b } = coarse;
  b.fill(0);
  for (let k = 0; k < runs.length; k += 2) {
    const row = Math.floor(runs[k]! / stride);
    const base = row * stride;
    const parentRow = ((row + 1) >> 1) * wide;
    const sideways = row & 1 ? -wide : wide;
    for (let i = runs[k]!, end = runs[k + 1]!; i < end; i++) {
      const column = i - base;
      const c = parentRow + ((column + 1) >> 1);
      const near = column & 1 ? -1 : 1;
      const v = r[i]! * 0.0625;
      b[c]! += 9 * v;
      b[c + near]! += 3 * v;
      b[c + sideways]! += 3 * v;
      b[c + sideways + near]! += v;
    }
  }
}

function prolong(fine: Level, coarse: Level): void {
  const { stride, runs } = fine.system;
  const wide = coarse.system.stride;
  const { x } = fine;
  const e = coarse.x;
  for (let k = 0; k < runs.length; k += 2) {
    const row = Math.floor(runs[k]! / stride);
    const base = row * stride;
    const parentRow = ((row + 1) >> 1) * wide;
    const sideways = row & 1 ? -wide : wide;
    for (let i = runs[k]!, end = runs[k + 1]!; i < end; i++) {
      const column = i - base;
      const c = parentRow + ((column + 1) >> 1);
      const near = column & 1 ? -1 : 1;
      x[i]! +=
        0.0625 * (9 * e[c]! + 3 * e[c + near]! + 3 * e[c + sideways]! + e[c + sideways + near]!);
    }
  }
}

function relaxForward({ system, inverse, x, b }: Level): void {
  const { stride, runs, right, below } = system;
  for (let k = 0; k < runs.length; k += 2)
    for (let i = runs[k]!, end = runs[k + 1]!; i < end; i++)
      x[i] =
        (b[i]! +
          below[i]! * x[i + stride]! +
          below[i - stride]! * x[i - stride]! +
          right[i]! * x[i + 1]! +
          right[i - 1]! * x[i - 1]!) *
        inverse[i]!;
}

function relaxBackward({ system, inverse, x, b }: Level): void {
  const { stride, runs, right, below } = system;
  for (let k = runs.length - 2; k >= 0; k -= 2)
    for (let i = runs[k + 1]! - 1, end = runs[k]!; i >= end; i--)
      x[i] =
        (b[i]! +
          below[i]! * x[i + stride]! +
          below[i - stride]! * x[i - stride]! +
          right[i - 1]! * x[i - 1]! +
          right[i]! * x[i + 1]!) *
        inverse[i]!;
}

/** out = A x at the unknowns. @returns x . A x */
function apply({ system, diagonal }: Level, x: Float64Array, out: Float64Array): number {
  const { stride, runs, right, below } = system;
  let sum = 0;
  for (let k = 0; k < runs.length; k += 2)
    for (let i = runs[k]!, end = runs[k + 1]!; i < end; i++) {
      const v =
        diagonal[i]! * x[i]! -
        right[i]! * x[i + 1]! -
        right[i - 1]! * x[i - 1]! -
        below[i]! * x[i + stride]! -
        below[i - stride]! * x[i - stride]!;
      out[i] = v;
      sum += v * x[i]!;
    }
  return sum;
}

function residualOf(level: Level, x: Float64Array, b: Float64Array, out: Float64Array): void {
  const { runs } = level.system;
  apply(level, x, out);
  for (let k = 0; k < runs.length; k += 2)
    for (let i = runs[k]!, end = runs[k + 1]!; i < end; i++) out[i] = b[i]! - out[i]!;
}

function dot(runs: Int32Array, a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < runs.length; k += 2)
    for (let i = runs[k]!, end = runs[k + 1]!; i < end; i++) sum += a[i]! * b[i]!;
  return sum;
}
