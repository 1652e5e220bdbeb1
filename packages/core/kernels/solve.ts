// Multigrid on masked grids, four right-hand sides at once: see src/solve/multigrid.ts for what it does and why.
// A level is a row of words: stride, rows, then the addresses of its arrays, and the count of run words.

import { addDoubles } from './lanes';

const STRIDE: usize = 0;
const ROWS: usize = 4;
const UNKNOWN: usize = 8;
const RIGHT: usize = 12;
const BELOW: usize = 16;
const OWN: usize = 20;
const DIAGONAL: usize = 24;
const INVERSE: usize = 28;
const X: usize = 32;
const B: usize = 36;
const R: usize = 40;
const RUNS: usize = 44;
const RUN_WORDS: usize = 48;
const LEVEL: usize = 64;

@inline
function word(level: usize, field: usize): usize {
  return <usize>load<u32>(level + field);
}

@inline
function quad(base: usize, i: usize): v128 {
  return v128.load(base + (i << 4));
}

@inline
function splat(base: usize, i: usize): v128 {
  return v128.load32_splat(base + (i << 2));
}

@inline
function single(base: usize, i: usize): f32 {
  return load<f32>(base + (i << 2));
}

/** Runs of unknowns, diagonals, and the next level's system, for all levels. */
export function prepare(levels: usize, count: i32): void {
  for (let k: i32 = 0; k < count; k++) {
    const level = levels + <usize>k * LEVEL;
    findRuns(level);
    addUp(level);
    if (k + 1 < count) coarsen(level, level + LEVEL);
  }
}

function findRuns(level: usize): void {
  const stride = word(level, STRIDE);
  const rows = word(level, ROWS);
  const unknown = word(level, UNKNOWN);
  const runs = word(level, RUNS);
  let n: usize = 0;
  for (let row: usize = 1; row < rows - 1; row++) {
    const end = (row + 1) * stride - 1;
    for (let i = row * stride + 1; i < end; i++) {
      if (!load<u8>(unknown + i)) continue;
      store<u32>(runs + (n << 2), <u32>i);
      while (load<u8>(unknown + i)) i++;
      store<u32>(runs + (n << 2), <u32>i, 4);
      n += 2;
    }
  }
  store<u32>(level + RUN_WORDS, <u32>n);
}

function addUp(level: usize): void {
  const stride = word(level, STRIDE);
  const right = word(level, RIGHT);
  const below = word(level, BELOW);
  const own = word(level, OWN);
  const diagonal = word(level, DIAGONAL);
  const inverse = word(level, INVERSE);
  const runs = word(level, RUNS);
  const words = word(level, RUN_WORDS);
  for (let k: usize = 0; k < words; k += 2) {
    const end = word(runs, (k + 1) << 2);
    for (let i = word(runs, k << 2); i < end; i++) {
      const sum =
        single(own, i) +
        single(right, i) +
        single(right, i - 1) +
        single(below, i) +
        single(below, i - stride);
      // A part tied to nothing known has a free constant: a tiny tie keeps the system definite.
      const held = sum < <f32>1e-9 ? <f32>1e-9 : sum;
      store<f32>(diagonal + (i << 2), held);
      store<f32>(inverse + (i << 2), <f32>1 / held);
    }
  }
}

@inline
function add(base: usize, i: usize, by: f32): void {
  const at = base + (i << 2);
  store<f32>(at, load<f32>(at) + by);
}

/**
 * 2x2 cells make one, which is an unknown when any of them is. A coarse edge stands for two fine ones over twice
 * the distance, so fine weights are added and halved; ties to known values go over about 3/2 of the fine
 * distance, so theirs are added, halved and taken 4/3 times.
 */
function coarsen(fine: usize, coarse: usize): void {
  const stride = word(fine, STRIDE);
  const wide = word(coarse, STRIDE);
  const unknown = word(coarse, UNKNOWN);
  const right = word(coarse, RIGHT);
  const below = word(coarse, BELOW);
  const own = word(coarse, OWN);
  const fineRight = word(fine, RIGHT);
  const fineBelow = word(fine, BELOW);
  const fineOwn = word(fine, OWN);
  const runs = word(fine, RUNS);
  const words = word(fine, RUN_WORDS);
  for (let k: usize = 0; k < words; k += 2) {
    const begin = word(runs, k << 2);
    const end = word(runs, (k + 1) << 2);
    const row = begin / stride;
    const base = row * stride;
    const parents = ((row + 1) >> 1) * wide;
    for (let i = begin; i < end; i++) {
      const column = i - base;
      const c = parents + ((column + 1) >> 1);
      store<u8>(unknown + c, 1);
      add(own, c, single(fineOwn, i) * <f32>(2.0 / 3.0));
      // Odd columns are the left halves of their parents: only even ones have an edge to the next parent.
      if (!(column & 1)) add(right, c, single(fineRight, i) * <f32>0.5);
      if (!(row & 1)) add(below, c, single(fineBelow, i) * <f32>0.5);
    }
  }
}

@inline
function around(i: usize, stride: usize, right: usize, below: usize, x: usize): v128 {
  return f32x4.add(
    f32x4.add(
      f32x4.mul(splat(right, i), quad(x, i + 1)),
      f32x4.mul(splat(right, i - 1), quad(x, i - 1)),
    ),
    f32x4.add(
      f32x4.mul(splat(below, i), quad(x, i + stride)),
      f32x4.mul(splat(below, i - stride), quad(x, i - stride)),
    ),
  );
}

/** Gauss-Seidel on the cells of one colour of the chessboard. */
function relax(level: usize, colour: usize): void {
  const stride = word(level, STRIDE);
  const right = word(level, RIGHT);
  const below = word(level, BELOW);
  const inverse = word(level, INVERSE);
  const x = word(level, X);
  const b = word(level, B);
  const runs = word(level, RUNS);
  const words = word(level, RUN_WORDS);
  for (let k: usize = 0; k < words; k += 2) {
    const begin = word(runs, k << 2);
    const end = word(runs, (k + 1) << 2);
    const row = begin / stride;
    for (let i = begin + ((begin - row * stride + row + colour) & 1); i < end; i += 2)
      v128.store(
        x + (i << 4),
        f32x4.mul(f32x4.add(quad(b, i), around(i, stride, right, below, x)), splat(inverse, i)),
      );
  }
}

/** The first colour's relaxation from zero: there is nothing around yet. */
function relaxFromZero(level: usize, colour: usize): void {
  const stride = word(level, STRIDE);
  const inverse = word(level, INVERSE);
  const x = word(level, X);
  const b = word(level, B);
  const runs = word(level, RUNS);
  const words = word(level, RUN_WORDS);
  const zero = f32x4.splat(0);
  for (let k: usize = 0; k < words; k += 2) {
    const begin = word(runs, k << 2);
    const end = word(runs, (k + 1) << 2);
    const row = begin / stride;
    const first = (begin - row * stride + row + colour) & 1;
    for (let i = begin + first; i < end; i += 2)
      v128.store(x + (i << 4), f32x4.mul(quad(b, i), splat(inverse, i)));
    for (let i = begin + 1 - first; i < end; i += 2) v128.store(x + (i << 4), zero);
  }
}

/** r = b - A x of one level. */
function residual(level: usize): void {
  const stride = word(level, STRIDE);
  const right = word(level, RIGHT);
  const below = word(level, BELOW);
  const diagonal = word(level, DIAGONAL);
  const x = word(level, X);
  const b = word(level, B);
  const r = word(level, R);
  const runs = word(level, RUNS);
  const words = word(level, RUN_WORDS);
  for (let k: usize = 0; k < words; k += 2) {
    const end = word(runs, (k + 1) << 2);
    for (let i = word(runs, k << 2); i < end; i++)
      v128.store(
        r + (i << 4),
        f32x4.sub(
          f32x4.add(quad(b, i), around(i, stride, right, below, x)),
          f32x4.mul(splat(diagonal, i), quad(x, i)),
        ),
      );
  }
}

@inline
function accumulate(base: usize, i: usize, share: f32, v: v128): void {
  const at = base + (i << 4);
  v128.store(at, f32x4.add(v128.load(at), f32x4.mul(f32x4.splat(share), v)));
}

/**
 * Bilinear weights of a cell on the coarse cells about it: 9/16 its own, 3/16 the near one in x and in y, 1/16
 * the diagonal one; coarse cells that are no unknowns stand for the known values' zero correction.
 */
function restrict(fine: usize, coarse: usize): void {
  const stride = word(fine, STRIDE);
  const wide = word(coarse, STRIDE);
  const r = word(fine, R);
  const b = word(coarse, B);
  memory.fill(b, 0, (wide * word(coarse, ROWS)) << 4);
  const runs = word(fine, RUNS);
  const words = word(fine, RUN_WORDS);
  for (let k: usize = 0; k < words; k += 2) {
    const begin = word(runs, k << 2);
    const end = word(runs, (k + 1) << 2);
    const row = begin / stride;
    const base = row * stride;
    const parents = ((row + 1) >> 1) * wide;
    const beside = row & 1 ? parents - wide : parents + wide;
    for (let i = begin; i < end; i++) {
      const column = i - base;
      const c = (column + 1) >> 1;
      const near = column & 1 ? c - 1 : c + 1;
      const v = quad(r, i);
      accumulate(b, parents + c, 0.5625, v);
      accumulate(b, parents + near, 0.1875, v);
      accumulate(b, beside + c, 0.1875, v);
      accumulate(b, beside + near, 0.0625, v);
    }
  }
}

function prolong(fine: usize, coarse: usize): void {
  const stride = word(fine, STRIDE);
  const wide = word(coarse, STRIDE);
  const x = word(fine, X);
  const e = word(coarse, X);
  const runs = word(fine, RUNS);
  const words = word(fine, RUN_WORDS);
  for (let k: usize = 0; k < words; k += 2) {
    const begin = word(runs, k << 2);
    const end = word(runs, (k + 1) << 2);
    const row = begin / stride;
    const base = row * stride;
    const parents = ((row + 1) >> 1) * wide;
    const beside = row & 1 ? parents - wide : parents + wide;
    for (let i = begin; i < end; i++) {
      const column = i - base;
      const c = (column + 1) >> 1;
      const near = column & 1 ? c - 1 : c + 1;
      const along = f32x4.add(
        f32x4.mul(f32x4.splat(0.5625), quad(e, parents + c)),
        f32x4.mul(f32x4.splat(0.1875), quad(e, parents + near)),
      );
      const across = f32x4.add(
        f32x4.mul(f32x4.splat(0.1875), quad(e, beside + c)),
        f32x4.mul(f32x4.splat(0.0625), quad(e, beside + near)),
      );
      const at = x + (i << 4);
      v128.store(at, f32x4.add(v128.load(at), f32x4.add(along, across)));
    }
  }
}

/** One symmetric V-cycle: x of the first level becomes an approximate solution for its b, starting from 0. */
export function cycle(level: usize, left: i32): void {
  relaxFromZero(level, 0);
  relax(level, 1);
  if (left == 1) {
    for (let sweep = 0; sweep < 16; sweep++) relax(level, sweep & 1);
    relax(level, 0);
    return;
  }
  const coarse = level + LEVEL;
  relax(level, 0);
  relax(level, 1);
  residual(level);
  restrict(level, coarse);
  cycle(coarse, left - 1);
  prolong(level, coarse);
  relax(level, 1);
  relax(level, 0);
  relax(level, 1);
  relax(level, 0);
}

/** a . c over the first level's unknowns, lane by lane, into four doubles. */
export function dot(level: usize, a: usize, c: usize, out: usize): void {
  memory.fill(out, 0, 32);
  const runs = word(level, RUNS);
  const words = word(level, RUN_WORDS);
  for (let k: usize = 0; k < words; k += 2) {
    const end = word(runs, (k + 1) << 2);
    let sum = f32x4.splat(0);
    for (let i = word(runs, k << 2); i < end; i++)
      sum = f32x4.add(sum, f32x4.mul(quad(a, i), quad(c, i)));
    addDoubles(out, sum);
  }
}

/** p = z + share * p, then q = A p. p . q goes into four doubles. `shares` are four floats. */
export function advance(level: usize, z: usize, p: usize, q: usize, shares: usize, out: usize): void {
  memory.fill(out, 0, 32);
  const stride = word(level, STRIDE);
  const right = word(level, RIGHT);
  const below = word(level, BELOW);
  const diagonal = word(level, DIAGONAL);
  const runs = word(level, RUNS);
  const words = word(level, RUN_WORDS);
  const share = v128.load(shares);
  for (let k: usize = 0; k < words; k += 2) {
    const end = word(runs, (k + 1) << 2);
    for (let i = word(runs, k << 2); i < end; i++)
      v128.store(p + (i << 4), f32x4.add(quad(z, i), f32x4.mul(share, quad(p, i))));
  }
  for (let k: usize = 0; k < words; k += 2) {
    const end = word(runs, (k + 1) << 2);
    let sum = f32x4.splat(0);
    for (let i = word(runs, k << 2); i < end; i++) {
      const mine = quad(p, i);
      const v = f32x4.sub(
        f32x4.mul(splat(diagonal, i), mine),
        around(i, stride, right, below, p),
      );
      v128.store(q + (i << 4), v);
      sum = f32x4.add(sum, f32x4.mul(v, mine));
    }
    addDoubles(out, sum);
  }
}

/** x += share * p, b -= share * q; b . b goes into four doubles. */
export function step(
  level: usize,
  x: usize,
  p: usize,
  b: usize,
  q: usize,
  shares: usize,
  out: usize,
): void {
  memory.fill(out, 0, 32);
  const runs = word(level, RUNS);
  const words = word(level, RUN_WORDS);
  const share = v128.load(shares);
  for (let k: usize = 0; k < words; k += 2) {
    const end = word(runs, (k + 1) << 2);
    let sum = f32x4.splat(0);
    for (let i = word(runs, k << 2); i < end; i++) {
      v128.store(x + (i << 4), f32x4.add(quad(x, i), f32x4.mul(share, quad(p, i))));
      const left = f32x4.sub(quad(b, i), f32x4.mul(share, quad(q, i)));
      v128.store(b + (i << 4), left);
      sum = f32x4.add(sum, f32x4.mul(left, left));
    }
    addDoubles(out, sum);
  }
}
