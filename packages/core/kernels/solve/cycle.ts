// The V-cycle.

import {
  ABOVE,
  B,
  BELOW,
  CELLS,
  DIAGONAL,
  HEIGHT,
  INVERSE,
  LEVEL,
  MARKS,
  PARENTS,
  RIGHT,
  ROWS,
  STARTS,
  UNDER,
  X,
  around,
  firstOf,
  quad,
  splat,
  word,
} from './memory';

/** Gauss-Seidel on the cells of one colour of the chessboard, in one row. */
function relaxRow(level: usize, y: usize, colour: usize): void {
  const above = word(level, ABOVE);
  const under = word(level, UNDER);
  const right = word(level, RIGHT);
  const below = word(level, BELOW);
  const inverse = word(level, INVERSE);
  const x = word(level, X);
  const b = word(level, B);
  const starts = word(level, STARTS);
  const rows = word(level, ROWS) + (y << 2);
  const runs = word(rows, 4);
  let k = word(rows, 0);
  let start = word(starts, k << 2);
  while (k < runs) {
    const next = word(starts, ++k << 2);
    const end = next >> 1;
    for (let i = (start >> 1) + ((start + colour) & 1); i < end; i += 2)
      v128.store(
        x + (i << 4),
        f32x4.mul(
          f32x4.add(quad(b, i), around(i, above, under, right, below, x)),
          splat(inverse, i),
        ),
      );
    start = next;
  }
}

/** The first colour's relaxation from zero, in one row: there is nothing around yet. */
function relaxRowFromZero(level: usize, y: usize): void {
  const inverse = word(level, INVERSE);
  const x = word(level, X);
  const b = word(level, B);
  const starts = word(level, STARTS);
  const rows = word(level, ROWS) + (y << 2);
  const runs = word(rows, 4);
  let k = word(rows, 0);
  let start = word(starts, k << 2);
  while (k < runs) {
    const next = word(starts, ++k << 2);
    const end = next >> 1;
    for (let i = (start >> 1) + (start & 1); i < end; i += 2)
      v128.store(x + (i << 4), f32x4.mul(quad(b, i), splat(inverse, i)));
    start = next;
  }
}

/** b - A x at a cell. */
@inline
function residualAt(
  i: usize,
  above: usize,
  under: usize,
  right: usize,
  below: usize,
  diagonal: usize,
  x: usize,
  b: usize,
): v128 {
  return f32x4.sub(
    f32x4.add(quad(b, i), around(i, above, under, right, below, x)),
    f32x4.mul(splat(diagonal, i), quad(x, i)),
  );
}

@inline
function accumulate(base: usize, i: usize, share: f32, v: v128): void {
  const at = base + (i << 4);
  v128.store(at, f32x4.add(v128.load(at), f32x4.mul(f32x4.splat(share), v)));
}

/**
 * Hands what is left of a row of one level, b - A x, to the next. Bilinear weights of a cell on the coarse cells about it: 9/16 its
 * own, 3/16 the near one in x and in y, 1/16 the diagonal one; coarse cells that are no unknowns stand for the known values'
 * zero correction.
 */
function restrictRow(level: usize, coarse: usize, y: usize): void {
  const above = word(level, ABOVE);
  const under = word(level, UNDER);
  const right = word(level, RIGHT);
  const below = word(level, BELOW);
  const diagonal = word(level, DIAGONAL);
  const x = word(level, X);
  const b = word(level, B);
  const down = word(coarse, B);
  let i = firstOf(level, y);
  const end = firstOf(level, y + 1);
  let parents = word(level, PARENTS) + (i << 4);
  for (; i < end; i++, parents += 16) {
    const v = residualAt(i, above, under, right, below, diagonal, x, b);
    accumulate(down, word(parents, 0), 0.5625, v);
    accumulate(down, word(parents, 4), 0.1875, v);
    accumulate(down, word(parents, 8), 0.1875, v);
    accumulate(down, word(parents, 12), 0.0625, v);
  }
}

function prolongRow(level: usize, coarse: usize, y: usize): void {
  const x = word(level, X);
  const e = word(coarse, X);
  let i = firstOf(level, y);
  const end = firstOf(level, y + 1);
  let parents = word(level, PARENTS) + (i << 4);
  for (; i < end; i++, parents += 16) {
    const along = f32x4.add(
      f32x4.mul(f32x4.splat(0.5625), quad(e, word(parents, 0))),
      f32x4.mul(f32x4.splat(0.1875), quad(e, word(parents, 4))),
    );
    const across = f32x4.add(
      f32x4.mul(f32x4.splat(0.1875), quad(e, word(parents, 8))),
      f32x4.mul(f32x4.splat(0.0625), quad(e, word(parents, 12))),
    );
    const at = x + (i << 4);
    v128.store(at, f32x4.add(v128.load(at), f32x4.add(along, across)));
  }
}

/** Sweeps before and after a correction, of both colours in turn. */
const SWEEPS: i32 = 4;
/** What a row goes through on the way down, or up: the sweeps, and what passes between the levels. */
const STAGES: i32 = SWEEPS + 1;

/** Stages of the way down: relaxed from 0, then from what there is, then the rest handed on. */
@inline
function lower(level: usize, coarse: usize, y: usize, stage: i32): void {
  if (stage == 0) relaxRowFromZero(level, y);
  else if (stage < SWEEPS) relaxRow(level, y, stage & 1);
  else restrictRow(level, coarse, y);
}

/** Stages of the way up: the coarse correction, and the sweeps in the opposite order. */
@inline
function raise(level: usize, coarse: usize, y: usize, stage: i32): void {
  if (stage == 0) prolongRow(level, coarse, y);
  else relaxRow(level, y, stage & 1);
}

/** Bytes between marks: no two threads write to one line of their caches. */
const MARK: usize = 128;

@inline
function markOf(level: usize, stage: i32): usize {
  return word(level, MARKS) + <usize>stage * MARK;
}

/** How often a thread looks for the rows it waits for before it sleeps, and for how long it then does, ns. */
const PATIENCE: i32 = 4096;
const PAUSE: i64 = 50_000;

/** Waits until so many rows are done with what comes before a stage: hardly ever long, unless threads are more than cores. */
@inline
function waitFor(level: usize, stage: i32, rows: i32): void {
  const mark = markOf(level, stage);
  let looks = 0;
  for (let done = atomic.load<i32>(mark); done < rows; done = atomic.load<i32>(mark))
    if (++looks > PATIENCE) atomic.wait<i32>(mark, done, PAUSE);
}

/**
 * Stages of a way, from one up to another, in one go over the rows, each a row behind the one before it, so that what a row
 * has is read from memory once; every cell comes to what stage after stage would make it. Another thread may be a row ahead with
 * the stages before.
 */
@inline
function goThrough(level: usize, coarse: usize, from: i32, to: i32, isDown: bool): void {
  const height = <i32>word(level, HEIGHT);
  const last = to - from - 1;
  for (let t = 0; t < height + last; t++) {
    if (from && t < height) waitFor(level, from, min(t + 2, height));
    for (let k = 0; k <= last; k++) {
      const y = t - k;
      if (y < 0 || y >= height) continue;
      if (isDown) lower(level, coarse, <usize>y, from + k);
      else raise(level, coarse, <usize>y, from + k);
    }
    if (to < STAGES && t >= last) atomic.store<i32>(markOf(level, to), t - last + 1);
  }
}

/** Stages of the way down from a level: its right-hand side becomes its x and the next level's right-hand side. */
export function down(level: usize, _part: i32, from: i32, to: i32): void {
  const coarse = level + LEVEL;
  if (!from) memory.fill(word(coarse, B), 0, word(coarse, CELLS) << 4);
  goThrough(level, coarse, from, to, true);
}

/** Stages of the way up to a level: its x is corrected by the next one's. */
export function up(level: usize, _part: i32, from: i32, to: i32): void {
  goThrough(level, level + LEVEL, from, to, false);
}

/** One symmetric V-cycle: x of the first level becomes an approximate solution for its b, starting from 0. */
export function cycle(level: usize, left: i32): void {
  if (left == 1) return solveCoarsest(level);
  down(level, 0, 0, STAGES);
  cycle(level + LEVEL, left - 1);
  up(level, 0, 0, STAGES);
}

function solveCoarsest(level: usize): void {
  const height = word(level, HEIGHT);
  memory.fill(word(level, X), 0, word(level, CELLS) << 4);
  for (let sweep: usize = 0; sweep < 19; sweep++)
    for (let y: usize = 0; y < height; y++) relaxRow(level, y, sweep & 1);
}
