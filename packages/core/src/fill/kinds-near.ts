import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import { depthsOf } from '../shape/depth.js';
import { partsOf } from '../shape/parts.js';

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

/** Grey, two differences of colours, and texture, each about in CIELAB units. */
type Look = readonly [number, number, number, number];

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
): Uint8Array {
  const { width, height } = window;
  if (depth < DEEP || !isOpen(hole, width, height)) return banned;
  const grid = gridOf(window);
  const { looks, open, known } = looksOf(window, hole, grid);
  const away = awayFromOpen(open, grid);
  if (!away) return banned;
  const reach = (NEAR * depth) / grid.cell;
  const near = distinct(
    looks.filter((look, k): look is Look => look !== null && away[k]! <= reach),
  );
  const closed = banned.slice();
  const isFree = !banned.includes(1);
  let left = 0;
  looks.forEach((look, k) => {
    const isLike = look !== null && (away[k]! <= reach || isLikeOne(look, near));
    const { from, to, top, bottom } = placeOf(grid, k);
    if (isLike && isFree && open[k]) left += (to - from) * (bottom - top);
    else
      for (let y = top; y < bottom; y++) {
        const [first, last] = [y * width + from, y * width + to];
        if (isLike) for (let p = first; p < last; p++) left += 1 - (hole[p]! | closed[p]!);
        else if (open[k]) closed.fill(1, first, last);
        else for (let p = first; p < last; p++) closed[p]! |= 1 - hole[p]!;
      }
  });
  return left < ENOUGH * (hole.length - known) ? banned : closed;
}

/** Cells over a window, row by row. */
interface Grid {
  readonly cell: number;
  readonly columns: number;
  readonly rows: number;
  /** Of the window, px. */
  readonly width: number;
  readonly height: number;
}

function gridOf({ width, height }: Raster): Grid {
  const cell = Math.max(LEAST_CELL, Math.ceil(Math.max(width, height) / CELLS));
  return { cell, columns: Math.ceil(width / cell), rows: Math.ceil(height / cell), width, height };
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

/** Whether a hole reaches the window's border, which it does at the picture's border alone. */
function isOpen(hole: Uint8Array, width: number, height: number): boolean {
  for (let x = 0; x < width; x++) if (hole[x] || hole[hole.length - 1 - x]) return true;
  for (let y = 0; y < height; y++) if (hole[y * width] || hole[(y + 1) * width - 1]) return true;
  return false;
}

/** The mean looks of every cell, null where the hole takes all of it, 1 where it takes none, and how many px it leaves. */
function looksOf(
  { width, channels, data }: Raster,
  hole: Uint8Array,
  grid: Grid,
): { readonly looks: (Look | null)[]; readonly open: Uint8Array; readonly known: number } {
  const [green, blue] = colourChannels(channels) < 3 ? [0, 0] : [1, 2];
  const scale = 255 / whiteOf(data);
  const open = new Uint8Array(grid.columns * grid.rows);
  let known = 0;
  const looks = Array.from(open, (_, k): Look | null => {
    const { from, to, top, bottom } = placeOf(grid, k);
    let [n, red, greens, blues, steps] = [0, 0, 0, 0, 0];
    for (let y = top; y < bottom; y++)
      for (let p = y * width + from; p < y * width + to; p++) {
        if (hole[p]) continue;
        const i = p * channels;
        n++;
        red += data[i]!;
        greens += data[i + green]!;
        blues += data[i + blue]!;
        if (p + 1 < (y + 1) * width) steps += Math.abs(data[i]! - data[i + channels]!);
      }
    if (n === (to - from) * (bottom - top)) open[k] = 1;
    if (!n) return null;
    known += n;
    const [r, g, b] = [(red * scale) / n, (greens * scale) / n, (blues * scale) / n];
    const grey = 0.299 * r + 0.587 * g + 0.114 * b;
    return [0.4 * grey, 0.4 * (r - g), 0.35 * ((r + g) / 2 - b), (1.5 * steps * scale) / n];
  });
  return { looks, open, known };
}

/** One of every so many looks that differ by less than a step, darkest first. */
function distinct(looks: readonly Look[]): Look[] {
  const found = new Map<number, Look>();
  for (const look of looks)
    found.set(
      look.reduce((key, v) => 1024 * key + Math.round(v / STEP), 0),
      look,
    );
  return [...found.values()].sort((a, b) => a[0] - b[0]);
}

/** Whether a look differs little from one of some. @param looks darkest first */
function isLikeOne(look: Look, looks: readonly Look[]): boolean {
  let [first, last] = [0, looks.length];
  while (first < last) {
    const middle = (first + last) >> 1;
    if (looks[middle]![0] < look[0] - LIKE) first = middle + 1;
    else last = middle;
  }
  for (let k = first; k < looks.length && looks[k]![0] <= look[0] + LIKE; k++)
    if (apart(looks[k]!, look) <= LIKE) return true;
  return false;
}

function apart(a: Look, b: Look): number {
  const [grey, red, blue, step] = [a[0] - b[0], a[1] - b[1], a[2] - b[2], a[3] - b[3]];
  return Math.sqrt(grey * grey + red * red + blue * blue + step * step);
}
