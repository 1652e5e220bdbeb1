import type { Cells } from '../raster/cells.js';
import { cellsOf, SUMS } from '../raster/cells.js';
import type { Raster } from '../raster/raster.js';
import { whiteOf } from '../raster/raster.js';
import { depthsOf } from '../shape/depth.js';
import { maskWhere } from '../shape/mask-where.js';
import { partsOf } from '../shape/parts.js';
import type { Crew } from '../task/crew.js';

/** Cells along the window's longer side, and the least side of one, px. */
const CELLS = 120;
const LEAST_CELL = 4;
/** What is as near as the hole is deep tells what may be in it. */
const NEAR = 1;
/** How far the looks of what is copied may differ from everything near, about CIELAB units. */
const LIKE = 6;
/** Looks are told apart in steps of so much. */
const STEP = 2;
/** Holes less deep than this are ruled by what is right beside them, px. */
const DEEP = 32;
/** Share of that which cells tell. */
const MOSTLY = 0.75;
/** So many times the hole must be left to copy from. */
const ENOUGH = 1.5;

/** Values of a cell's look: grey, two differences of colours, and texture, each about in CIELAB units. */
const LOOK = 4;

/**
 * Forbids besides what is of a kind not seen near a hole that lies open to the picture's border: nothing holds such a
 * hole from beyond, and what lies far off, a door like dark water from afar, is no guess at what was there.
 * @param hole 1 = to be filled, one value a pixel of the window
 * @param banned 1 = must not be copied
 * @param depth greatest depth of the hole, px
 * @returns 1 = not to be copied; what was forbidden anyway for other holes, and where too little would be left
 */
export function withUnlike(
  window: Raster,
  hole: Uint8Array,
  banned: Uint8Array,
  depth: number,
  crew?: Crew,
): Uint8Array {
  const { width, height } = window;
  if (depth < DEEP) return banned;
  const side = Math.max(LEAST_CELL, Math.ceil(Math.max(width, height) / CELLS));
  const { sums, ...cells } = cellsOf(window, hole, side, crew);
  const grid = { ...cells, width, height };
  const { looks, open, gone, known } = looksOf(window, grid, sums);
  const away = awayFromOpen(open, grid);
  if (!away) return banned;
  const reach = (NEAR * depth) / grid.cell;
  const isNear = maskWhere(away.length, (k) => !gone[k] && away[k]! <= reach);
  const near = distinct(looks, isNear);
  const closed = banned.slice();
  const isFree = !banned.includes(1);
  let left = 0;
  for (let k = 0; k < away.length; k++) {
    const isLike = !gone[k] && (isNear[k] === 1 || isLikeOne(looks, k, near));
    const { from, to, top, bottom } = placeOf(grid, k);
    if (isLike && isFree && open[k]) {
      left += (to - from) * (bottom - top);
      continue;
    }
    for (let y = top; y < bottom; y++) {
      const last = y * width + to;
      if (isLike) for (let p = y * width + from; p < last; p++) left += 1 - (hole[p]! | closed[p]!);
      else for (let p = y * width + from; p < last; p++) closed[p]! |= 1 - hole[p]!;
    }
  }
  return left < ENOUGH * (hole.length - known) ? banned : closed;
}

/** Cells over a window. */
interface Grid extends Pick<Cells, 'cell' | 'columns' | 'rows'> {
  /** Of the window, px. */
  readonly width: number;
  readonly height: number;
}

/** Columns and rows of pixels that a cell takes. */
function placeOf({ cell, columns, width, height }: Grid, k: number) {
  const [from, top] = [(k % columns) * cell, Math.floor(k / columns) * cell];
  return { from, to: Math.min(width, from + cell), top, bottom: Math.min(height, top + cell) };
}

/**
 * How far every cell is from the deep parts of a hole that lie open to the border, in cells; what thin parts elsewhere
 * lie among tells nothing of those. Null where there is none.
 * @param open 1 for cells the hole takes nothing of
 */
function awayFromOpen(open: Uint8Array, { cell, columns, rows }: Grid): Float32Array | null {
  const taken = open.map((v) => 1 - v);
  const depths = depthsOf(taken, columns, rows);
  const isAtBorder = (k: number): boolean => {
    const x = k % columns;
    return x === 0 || x === columns - 1 || k < columns || k >= columns * (rows - 1);
  };
  const outside = new Uint8Array(open.length).fill(1);
  let isAny = false;
  for (const part of partsOf(taken, columns)) {
    if (!part.some(isAtBorder) || !part.some((k) => depths[k]! >= (MOSTLY * DEEP) / cell)) continue;
    for (const k of part) outside[k] = 0;
    isAny = true;
  }
  return isAny ? depthsOf(outside, columns, rows) : null;
}

/** The mean looks of every cell, 1 where the hole takes nothing of it and where all, and how many px it leaves. */
function looksOf({ data }: Raster, grid: Grid, sums: Float64Array) {
  const scale = 255 / whiteOf(data);
  const open = new Uint8Array(grid.columns * grid.rows);
  const gone = new Uint8Array(open.length);
  const looks = new Float64Array(LOOK * open.length);
  let known = 0;
  for (let k = 0, i = 0; k < open.length; k++, i += SUMS) {
    const n = sums[i]!;
    const { from, to, top, bottom } = placeOf(grid, k);
    if (n === (to - from) * (bottom - top)) open[k] = 1;
    if (!n) gone[k] = 1;
    else {
      known += n;
      const r = (sums[i + 1]! * scale) / n;
      const g = (sums[i + 2]! * scale) / n;
      const b = (sums[i + 3]! * scale) / n;
      looks[LOOK * k] = 0.4 * (0.299 * r + 0.587 * g + 0.114 * b);
      looks[LOOK * k + 1] = 0.4 * (r - g);
      looks[LOOK * k + 2] = 0.35 * ((r + g) / 2 - b);
      looks[LOOK * k + 3] = (1.5 * sums[i + 4]! * scale) / n;
    }
  }
  return { looks, open, gone, known };
}

/** One of every so many looks of some cells that differ by less than a step, darkest first. */
function distinct(looks: Float64Array, some: Uint8Array): Float64Array {
  const found = new Map<number, number>();
  for (let k = 0; k < some.length; k++) {
    if (!some[k]) continue;
    let key = 0;
    for (let v = 0; v < LOOK; v++) key = 1024 * key + Math.round(looks[LOOK * k + v]! / STEP);
    found.set(key, k);
  }
  const cells = [...found.values()].sort((a, b) => looks[LOOK * a]! - looks[LOOK * b]!);
  const out = new Float64Array(LOOK * cells.length);
  cells.forEach((k, i) => out.set(looks.subarray(LOOK * k, LOOK * (k + 1)), LOOK * i));
  return out;
}

/** Whether a cell's look differs little from one of some. @param near looks, darkest first */
function isLikeOne(looks: Float64Array, k: number, near: Float64Array): boolean {
  const grey = looks[LOOK * k]!;
  let first = 0;
  let last = near.length / LOOK;
  while (first < last) {
    const middle = (first + last) >> 1;
    if (near[LOOK * middle]! < grey - LIKE) first = middle + 1;
    else last = middle;
  }
  for (let i = LOOK * first; i < near.length && near[i]! <= grey + LIKE; i += LOOK) {
    let sum = 0;
    for (let v = 0; v < LOOK; v++) {
      const off = near[i + v]! - looks[LOOK * k + v]!;
      sum += off * off;
    }
    if (Math.sqrt(sum) <= LIKE) return true;
  }
  return false;
}
