// Multigrid on masks, four right-hand sides at once: see src/solve/multigrid.ts for what it does and why.
// A level is a row of words: what it has of cells and runs, then the addresses of its arrays. Cell 0 is no unknown: it is
// the neighbour of those that have none, its weights and its answer stay 0.

import { addDoubles } from './lanes';

const WIDTH: usize = 0;
const HEIGHT: usize = 4;
const CELLS: usize = 8;
const RUNS: usize = 12;
/** First pixel of each run and the one after its last. */
const PIXELS: usize = 16;
/** First cell of each run, doubled, and whether it is odd on the chessboard; at the end the cell after the last. */
const STARTS: usize = 20;
const ABOVE: usize = 24;
const UNDER: usize = 28;
const RIGHT: usize = 32;
const BELOW: usize = 36;
const OWN: usize = 40;
const DIAGONAL: usize = 44;
const INVERSE: usize = 48;
const X: usize = 52;
const B: usize = 56;
/** The four cells of the next level about each: its own, the near one beside that, and those of the near row. */
const PARENTS: usize = 60;
/** First run of each row, and at the end the run after the last. */
const ROWS: usize = 64;
const LEVEL: usize = 80;

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

/** Whatever follows from the first level's runs, neighbours and weights. @param map room for a word a pixel of the second */
export function prepare(levels: usize, count: i32, map: usize): void {
  for (let k: i32 = 0; k < count; k++) {
    const level = levels + <usize>k * LEVEL;
    startRuns(level);
    addUp(level);
    if (k + 1 < count) {
      numberCoarse(level, level + LEVEL, map);
      coarsen(level, level + LEVEL, map);
    }
  }
}

function startRuns(level: usize): void {
  const width = word(level, WIDTH);
  const height = word(level, HEIGHT);
  const pixels = word(level, PIXELS);
  const starts = word(level, STARTS);
  const rows = word(level, ROWS);
  const runs = word(level, RUNS);
  let cell: usize = 1;
  let row: usize = 0;
  for (let k: usize = 0; k < runs; k++) {
    const begin = word(pixels, k << 3);
    const y = begin / width;
    for (; row <= y; row++) store<u32>(rows + (row << 2), <u32>k);
    const odd = (begin - y * width + y) & 1;
    store<u32>(starts + (k << 2), <u32>((cell << 1) | odd));
    cell += word(pixels, (k << 3) + 4) - begin;
  }
  for (; row <= height; row++) store<u32>(rows + (row << 2), <u32>runs);
  store<u32>(starts + (runs << 2), <u32>(cell << 1));
}

function addUp(level: usize): void {
  const above = word(level, ABOVE);
  const right = word(level, RIGHT);
  const below = word(level, BELOW);
  const own = word(level, OWN);
  const diagonal = word(level, DIAGONAL);
  const inverse = word(level, INVERSE);
  const cells = word(level, CELLS);
  for (let i: usize = 1; i < cells; i++) {
    const sum =
      single(own, i) +
      single(right, i) +
      single(right, i - 1) +
      single(below, i) +
      single(below, word(above, i << 2));
    // A part tied to nothing known has a free constant: a tiny tie keeps the system definite.
    const held = sum < <f32>1e-9 ? <f32>1e-9 : sum;
    store<f32>(diagonal + (i << 2), held);
    store<f32>(inverse + (i << 2), <f32>1 / held);
  }
}

/** Numbers the cells of the next level, 2x2 pixels to a cell that is an unknown when any of them is; 0 stands for none. */
function numberCoarse(fine: usize, coarse: usize, map: usize): void {
  const width = word(fine, WIDTH);
  const wide = word(coarse, WIDTH);
  const high = word(coarse, HEIGHT);
  memory.fill(map, 0, (wide * high) << 2);
  const pixels = word(fine, PIXELS);
  const runs = word(fine, RUNS);
  for (let k: usize = 0; k < runs; k++) {
    const begin = word(pixels, k << 3);
    const y = begin / width;
    const row = (y >> 1) * wide;
    const last = (word(pixels, (k << 3) + 4) - 1 - y * width) >> 1;
    for (let x = (begin - y * width) >> 1; x <= last; x++) store<u32>(map + ((row + x) << 2), 1);
  }
  const above = word(coarse, ABOVE);
  const under = word(coarse, UNDER);
  let out = word(coarse, PIXELS);
  let cell: usize = 1;
  let number: u32 = 0;
  for (let y: usize = 0; y < high; y++) {
    const end = (y + 1) * wide;
    for (let p = y * wide; p < end; p++) {
      if (!word(map, p << 2)) continue;
      store<u32>(out, <u32>p);
      for (; p < end && word(map, p << 2); p++, cell++) {
        store<u32>(map + (p << 2), <u32>cell);
        const up = y ? word(map, (p - wide) << 2) : 0;
        store<u32>(above + (cell << 2), <u32>up);
        if (up) store<u32>(under + (up << 2), <u32>cell);
      }
      store<u32>(out, <u32>p, 4);
      out += 8;
      number++;
    }
  }
  store<u32>(coarse + CELLS, <u32>cell);
  store<u32>(coarse + RUNS, number);
}

@inline
function add(base: usize, i: usize, by: f32): void {
  const at = base + (i << 2);
  store<f32>(at, load<f32>(at) + by);
}

/** The cell of a pixel of the next level, 0 beyond its sides. */
@inline
function cellAt(map: usize, x: isize, y: isize, wide: usize, high: usize): u32 {
  if (x < 0 || y < 0 || x >= <isize>wide || y >= <isize>high) return 0;
  return load<u32>(map + ((<usize>y * wide + <usize>x) << 2));
}

/**
 * The next level's weights. A coarse edge stands for two fine ones over twice the distance, so fine weights are added and
 * halved; ties to known values go over about 3/2 of the fine distance, so theirs are added, halved and taken 4/3 times.
 */
function coarsen(fine: usize, coarse: usize, map: usize): void {
  const width = word(fine, WIDTH);
  const wide = word(coarse, WIDTH);
  const high = word(coarse, HEIGHT);
  const right = word(coarse, RIGHT);
  const below = word(coarse, BELOW);
  const own = word(coarse, OWN);
  const fineRight = word(fine, RIGHT);
  const fineBelow = word(fine, BELOW);
  const fineOwn = word(fine, OWN);
  const pixels = word(fine, PIXELS);
  const runs = word(fine, RUNS);
  let parents = word(fine, PARENTS);
  let i: usize = 0;
  for (let k: usize = 0; k < runs; k++) {
    const begin = word(pixels, k << 3);
    const end = word(pixels, (k << 3) + 4);
    const y = begin / width;
    const row = <isize>(y >> 1);
    const beside = y & 1 ? row + 1 : row - 1;
    for (let x = begin - y * width; x < end - y * width; x++) {
      i++;
      parents += 16;
      const column = <isize>(x >> 1);
      const near = x & 1 ? column + 1 : column - 1;
      const c = cellAt(map, column, row, wide, high);
      store<u32>(parents, c);
      store<u32>(parents, cellAt(map, near, row, wide, high), 4);
      store<u32>(parents, cellAt(map, column, beside, wide, high), 8);
      store<u32>(parents, cellAt(map, near, beside, wide, high), 12);
      add(own, c, single(fineOwn, i) * <f32>(2.0 / 3.0));
      // Even columns are the left halves of their parents: only odd ones have an edge to the next parent.
      if (x & 1) add(right, c, single(fineRight, i) * <f32>0.5);
      if (y & 1) add(below, c, single(fineBelow, i) * <f32>0.5);
    }
  }
}

/** What the neighbours say, by their weights. */
@inline
function around(
  i: usize,
  above: usize,
  under: usize,
  right: usize,
  below: usize,
  x: usize,
): v128 {
  const up = word(above, i << 2);
  return f32x4.add(
    f32x4.add(
      f32x4.mul(splat(right, i), quad(x, i + 1)),
      f32x4.mul(splat(right, i - 1), quad(x, i - 1)),
    ),
    f32x4.add(
      f32x4.mul(splat(below, i), quad(x, word(under, i << 2))),
      f32x4.mul(splat(below, up), quad(x, up)),
    ),
  );
}

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

/** First cell of a row. */
@inline
function firstOf(level: usize, y: usize): usize {
  return word(word(level, STARTS), word(word(level, ROWS), y << 2) << 2) >> 1;
}

/** Sweeps before and after a correction. */
const SWEEPS: usize = 4;

/**
 * Sweeps of both colours in turn, from 0, and the rest handed on. All in one go over the rows, each sweep a row behind the
 * one before it, so that what a row has is read from memory once; every cell comes to what sweep after sweep would make it.
 */
function goDown(level: usize, coarse: usize): void {
  const height = word(level, HEIGHT);
  memory.fill(word(level, X), 0, word(level, CELLS) << 4);
  memory.fill(word(coarse, B), 0, word(coarse, CELLS) << 4);
  for (let t: usize = 0; t < height + SWEEPS; t++) {
    if (t < height) relaxRowFromZero(level, t);
    for (let sweep: usize = 1; sweep < SWEEPS; sweep++)
      if (t >= sweep && t - sweep < height) relaxRow(level, t - sweep, sweep & 1);
    if (t >= SWEEPS) restrictRow(level, coarse, t - SWEEPS);
  }
}

/** The coarse correction, and the sweeps in the opposite order, in the same way. */
function goUp(level: usize, coarse: usize): void {
  const height = word(level, HEIGHT);
  for (let t: usize = 0; t < height + SWEEPS; t++) {
    if (t < height) prolongRow(level, coarse, t);
    for (let sweep: usize = 1; sweep <= SWEEPS; sweep++)
      if (t >= sweep && t - sweep < height) relaxRow(level, t - sweep, sweep & 1);
  }
}

/** One symmetric V-cycle: x of the first level becomes an approximate solution for its b, starting from 0. */
export function cycle(level: usize, left: i32): void {
  if (left == 1) return solveCoarsest(level);
  const coarse = level + LEVEL;
  goDown(level, coarse);
  cycle(coarse, left - 1);
  goUp(level, coarse);
}

function solveCoarsest(level: usize): void {
  const height = word(level, HEIGHT);
  memory.fill(word(level, X), 0, word(level, CELLS) << 4);
  for (let sweep: usize = 0; sweep < 19; sweep++)
    for (let y: usize = 0; y < height; y++) relaxRow(level, y, sweep & 1);
}

/** So many cells are added up in single precision. */
const TOGETHER: usize = 64;

/** a . c over the first level's unknowns, lane by lane, into four doubles. */
export function dot(level: usize, a: usize, c: usize, out: usize): void {
  memory.fill(out, 0, 32);
  const cells = word(level, CELLS);
  for (let i: usize = 1; i < cells; ) {
    const end = min(cells, i + TOGETHER);
    let sum = f32x4.splat(0);
    for (; i < end; i++) sum = f32x4.add(sum, f32x4.mul(quad(a, i), quad(c, i)));
    addDoubles(out, sum);
  }
}

/** p = z + share * p, then q = A p. p . q goes into four doubles. `shares` are four floats. */
export function advance(level: usize, z: usize, p: usize, q: usize, shares: usize, out: usize): void {
  memory.fill(out, 0, 32);
  const above = word(level, ABOVE);
  const under = word(level, UNDER);
  const right = word(level, RIGHT);
  const below = word(level, BELOW);
  const diagonal = word(level, DIAGONAL);
  const cells = word(level, CELLS);
  const share = v128.load(shares);
  for (let i: usize = 1; i < cells; i++)
    v128.store(p + (i << 4), f32x4.add(quad(z, i), f32x4.mul(share, quad(p, i))));
  for (let i: usize = 1; i < cells; ) {
    const end = min(cells, i + TOGETHER);
    let sum = f32x4.splat(0);
    for (; i < end; i++) {
      const mine = quad(p, i);
      const v = f32x4.sub(
        f32x4.mul(splat(diagonal, i), mine),
        around(i, above, under, right, below, p),
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
  const cells = word(level, CELLS);
  const share = v128.load(shares);
  for (let i: usize = 1; i < cells; ) {
    const end = min(cells, i + TOGETHER);
    let sum = f32x4.splat(0);
    for (; i < end; i++) {
      v128.store(x + (i << 4), f32x4.add(quad(x, i), f32x4.mul(share, quad(p, i))));
      const left = f32x4.sub(quad(b, i), f32x4.mul(share, quad(q, i)));
      v128.store(b + (i << 4), left);
      sum = f32x4.add(sum, f32x4.mul(left, left));
    }
    addDoubles(out, sum);
  }
}
