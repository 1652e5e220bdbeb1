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
   * @param b right-hand side, one number an unknown
   * @param start first guess, changed in place to the solution
   * @returns rounds taken and the relative residual reached
   */
  solve(b: Float64Array, start: Float64Array): { rounds: number; residual: number };
}

interface Level {
  system: System;
  diagonal: Float64Array;
  /** Coarse unknown each fine one belongs to. */
  parent: Int32Array;
  x: Float64Array;
  b: Float64Array;
  r: Float64Array;
}

/** Levels no larger than this are solved by relaxation alone. */
const SMALLEST = 24;

/**
 * Conjugate gradients preconditioned by a multigrid W-cycle on 2x2 aggregates, which takes any mask and any
 * weights. Briggs, Henson, McCormick, "A Multigrid Tutorial", SIAM 2000; aggregation with rescaled coarse
 * equations: Braess, "Towards algebraic multigrid for elliptic problems of second order", Computing 55, 1995.
 * Free of chance: same input, same bytes.
 */
export function createSolver(system: System, options: SolverOptions = {}): Solver {
  const tolerance = options.tolerance ?? 1e-6;
  const maxRounds = options.maxRounds ?? 200;
  const levels = buildLevels(system);
  const n = system.size;
  const r = new Float64Array(n);
  const z = new Float64Array(n + 1);
  const p = new Float64Array(n + 1);
  const ap = new Float64Array(n);

  return {
    solve(b, start) {
      const scale = Math.sqrt(dot(b, b, n));
      if (n === 0 || scale === 0) {
        start.fill(0);
        return { rounds: 0, residual: 0 };
      }
      const x = new Float64Array(n + 1);
      x.set(start.subarray(0, n));
      residual(levels[0]!, x, b, r);
      let rounds = 0;
      let norm = Math.sqrt(dot(r, r, n)) / scale;
      let rho = 0;
      while (norm > tolerance && rounds < maxRounds) {
        precondition(levels, r, z);
        const next = dot(r, z, n);
        const beta = rounds === 0 ? 0 : next / rho;
        rho = next;
        for (let i = 0; i < n; i++) p[i] = z[i]! + beta * p[i]!;
        apply(levels[0]!, p, ap);
        const alpha = rho / dot(p, ap, n);
        for (let i = 0; i < n; i++) {
          x[i]! += alpha * p[i]!;
          r[i]! -= alpha * ap[i]!;
        }
        rounds++;
        norm = Math.sqrt(dot(r, r, n)) / scale;
      }
      start.set(x.subarray(0, n));
      return { rounds, residual: norm };
    },
  };
}

function precondition(levels: Level[], r: Float64Array, z: Float64Array): void {
  const top = levels[0]!;
  top.b.set(r);
  top.x.fill(0);
  cycle(levels, 0);
  z.set(top.x);
}

/** One symmetric W-cycle on level k for `b`, starting from x = 0. */
function cycle(levels: Level[], k: number): void {
  const level = levels[k]!;
  const coarse = levels[k + 1];
  if (!coarse) {
    for (let sweep = 0; sweep < 12; sweep++) {
      relaxForward(level);
      relaxBackward(level);
    }
    return;
  }
  relaxForward(level);
  const visits = k === 0 || k > 6 ? 1 : 2;
  for (let visit = 0; visit < visits; visit++) {
    residual(level, level.x, level.b, level.r);
    coarse.b.fill(0);
    coarse.x.fill(0);
    const { parent, r } = level;
    const n = level.system.size;
    for (let i = 0; i < n; i++) coarse.b[parent[i]!]! += r[i]!;
    cycle(levels, k + 1);
    for (let i = 0; i < n; i++) level.x[i]! += coarse.x[parent[i]!]!;
    if (visit + 1 < visits) {
      relaxBackward(level);
      relaxForward(level);
    }
  }
  relaxBackward(level);
}

function relaxForward(level: Level): void {
  const { system, diagonal, x, b } = level;
  const { neighbours, weights, size } = system;
  for (let i = 0, k = 0; i < size; i++, k += 4)
    x[i] =
      (b[i]! +
        weights[k]! * x[neighbours[k]!]! +
        weights[k + 1]! * x[neighbours[k + 1]!]! +
        weights[k + 2]! * x[neighbours[k + 2]!]! +
        weights[k + 3]! * x[neighbours[k + 3]!]!) /
      diagonal[i]!;
}

function relaxBackward(level: Level): void {
  const { system, diagonal, x, b } = level;
  const { neighbours, weights, size } = system;
  for (let i = size - 1, k = 4 * i; i >= 0; i--, k -= 4)
    x[i] =
      (b[i]! +
        weights[k]! * x[neighbours[k]!]! +
        weights[k + 1]! * x[neighbours[k + 1]!]! +
        weights[k + 2]! * x[neighbours[k + 2]!]! +
        weights[k + 3]! * x[neighbours[k + 3]!]!) /
      diagonal[i]!;
}

function apply(level: Level, x: Float64Array, out: Float64Array): void {
  const { system, diagonal } = level;
  const { neighbours, weights, size } = system;
  for (let i = 0, k = 0; i < size; i++, k += 4)
    out[i] =
      diagonal[i]! * x[i]! -
      weights[k]! * x[neighbours[k]!]! -
      weights[k + 1]! * x[neighbours[k + 1]!]! -
      weights[k + 2]! * x[neighbours[k + 2]!]! -
      weights[k + 3]! * x[neighbours[k + 3]!]!;
}

function residual(level: Level, x: Float64Array, b: Float64Array, out: Float64Array): void {
  apply(level, x, out);
  for (let i = 0; i < level.system.size; i++) out[i] = b[i]! - out[i]!;
}

function dot(a: Float64Array, b: Float64Array, n: number): number {
  let sum = 0;
  for (let i = 0; i < n; i++) sum += a[i]! * b[i]!;
  return sum;
}

function buildLevels(system: System): Level[] {
  const levels: Level[] = [];
  let current = system;
  for (;;) {
    const last = current.size <= SMALLEST || levels.length > 16;
    const { parent, coarse } = last ? { parent: new Int32Array(0), coarse: current } : coarsen(current);
    const stuck = !last && coarse.size === current.size;
    levels.push({
      system: current,
      diagonal: safeDiagonal(current),
      parent,
      x: new Float64Array(current.size + 1),
      b: new Float64Array(current.size),
      r: new Float64Array(current.size),
    });
    if (last || stuck) return levels;
    current = coarse;
  }
}

/** A part tied to nothing known has a free constant: a tiny tie keeps the system definite. */
function safeDiagonal(system: System): Float64Array {
  const diagonal = diagonalOf(system);
  for (let i = 0; i < diagonal.length; i++) if (diagonal[i]! < 1e-12) diagonal[i] = 1e-12;
  return diagonal;
}

function coarsen(fine: System): { parent: Int32Array; coarse: System } {
  const { size, neighbours, weights, own, column, row } = fine;
  let columns = 0;
  let rows = 0;
  for (let i = 0; i < size; i++) {
    if (column[i]! >> 1 >= columns) columns = (column[i]! >> 1) + 1;
    if (row[i]! >> 1 >= rows) rows = (row[i]! >> 1) + 1;
  }
  const mask = new Uint8Array(columns * rows);
  for (let i = 0; i < size; i++) mask[(row[i]! >> 1) * columns + (column[i]! >> 1)] = 1;
  const index = new Int32Array(mask.length);
  let n = 0;
  for (let i = 0; i < mask.length; i++) if (mask[i]) index[i] = n++;

  const parent = new Int32Array(size);
  const coarse: System = {
    size: n,
    neighbours: new Int32Array(4 * n).fill(n),
    weights: new Float64Array(4 * n),
    own: new Float64Array(n),
    column: new Int32Array(n),
    row: new Int32Array(n),
  };
  for (let i = 0; i < size; i++) {
    const c = index[(row[i]! >> 1) * columns + (column[i]! >> 1)]!;
    parent[i] = c;
    coarse.column[c] = column[i]! >> 1;
    coarse.row[c] = row[i]! >> 1;
    // Halved: sums of fine weights make the coarse equations twice too stiff in two dimensions.
    coarse.own[c]! += own[i]! / 2;
  }
  for (let i = 0; i < size; i++) {
    for (let side = 0; side < 4; side++) {
      const j = neighbours[4 * i + side]!;
      if (j === size || parent[j] === parent[i]) continue;
      const slot = 4 * parent[i]! + side;
      coarse.neighbours[slot] = parent[j]!;
      coarse.weights[slot]! += weights[4 * i + side]! / 2;
    }
  }
  return { parent, coarse };
}
