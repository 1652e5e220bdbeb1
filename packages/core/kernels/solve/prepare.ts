// Levels made from the first one.

import {
  ABOVE,
  BELOW,
  CELLS,
  DIAGONAL,
  HEIGHT,
  INVERSE,
  LEVEL,
  OWN,
  PARENTS,
  PIXELS,
  RIGHT,
  ROWS,
  RUNS,
  STARTS,
  UNDER,
  WIDTH,
  single,
  word,
} from './memory';

/**
 * Whatever follows from where the first level's cells lie: which cells the other levels have, their neighbours and parents.
 * @param map room for a word a pixel of the second
 */
export function number(levels: usize, count: i32, map: usize): void {
  for (let k: i32 = 0; k < count; k++) {
    const level = levels + <usize>k * LEVEL;
    startRuns(level);
    if (k + 1 == count) return;
    numberCoarse(level, level + LEVEL, map);
    findParents(level, level + LEVEL, map);
  }
}

/** Whatever follows from the first level's weights. */
export function weigh(levels: usize, count: i32): void {
  for (let k: i32 = 0; k < count; k++) {
    const level = levels + <usize>k * LEVEL;
    addUp(level);
    if (k + 1 < count) coarsen(level, level + LEVEL);
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

/** The four cells of the next level about every cell. */
function findParents(fine: usize, coarse: usize, map: usize): void {
  const width = word(fine, WIDTH);
  const wide = word(coarse, WIDTH);
  const high = word(coarse, HEIGHT);
  const pixels = word(fine, PIXELS);
  const runs = word(fine, RUNS);
  let parents = word(fine, PARENTS);
  for (let k: usize = 0; k < runs; k++) {
    const begin = word(pixels, k << 3);
    const end = word(pixels, (k << 3) + 4);
    const y = begin / width;
    const row = <isize>(y >> 1);
    const beside = y & 1 ? row + 1 : row - 1;
    for (let x = begin - y * width; x < end - y * width; x++) {
      parents += 16;
      const column = <isize>(x >> 1);
      const near = x & 1 ? column + 1 : column - 1;
      store<u32>(parents, cellAt(map, column, row, wide, high));
      store<u32>(parents, cellAt(map, near, row, wide, high), 4);
      store<u32>(parents, cellAt(map, column, beside, wide, high), 8);
      store<u32>(parents, cellAt(map, near, beside, wide, high), 12);
    }
  }
}

/**
 * The next level's weights. A coarse edge stands for two fine ones over twice the distance, so fine weights are added and
 * halved; ties to known values go over about 3/2 of the fine distance, so theirs are added, halved and taken 4/3 times.
 */
function coarsen(fine: usize, coarse: usize): void {
  const width = word(fine, WIDTH);
  const right = word(coarse, RIGHT);
  const below = word(coarse, BELOW);
  const own = word(coarse, OWN);
  const bytes = word(coarse, CELLS) << 2;
  memory.fill(right, 0, bytes);
  memory.fill(below, 0, bytes);
  memory.fill(own, 0, bytes);
  const fineRight = word(fine, RIGHT);
  const fineBelow = word(fine, BELOW);
  const fineOwn = word(fine, OWN);
  const pixels = word(fine, PIXELS);
  const runs = word(fine, RUNS);
  const parents = word(fine, PARENTS);
  let i: usize = 0;
  for (let k: usize = 0; k < runs; k++) {
    const begin = word(pixels, k << 3);
    const end = word(pixels, (k << 3) + 4);
    const y = begin / width;
    for (let x = begin - y * width; x < end - y * width; x++) {
      i++;
      const c = word(parents, i << 4);
      add(own, c, single(fineOwn, i) * <f32>(2.0 / 3.0));
      // Even columns are the left halves of their parents: only odd ones have an edge to the next parent.
      if (x & 1) add(right, c, single(fineRight, i) * <f32>0.5);
      if (y & 1) add(below, c, single(fineBelow, i) * <f32>0.5);
    }
  }
}
