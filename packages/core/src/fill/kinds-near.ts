import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import { depthsOf } from '../shape/depth.js';

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
  const looks = looksOf(window, hole, grid);
  const rows = looks.length / grid.columns;
  const away = depthsOf(besides(hole, window.width, grid, rows), grid.columns, rows);
  const reach = (NEAR * depth) / grid.cell;
  const near = distinct(
    looks.filter((look, k): look is Look => look !== null && away[k]! <= reach),
  );
  const isLike = Uint8Array.from(looks, (look, k) =>
    look !== null && (away[k]! <= reach || isLikeOne(look, near)) ? 1 : 0,
  );
  const closed = banned.slice();
  let [left, wanted] = [0, 0];
  for (let y = 0, p = 0; y < height; y++) {
    const row = Math.floor(y / grid.cell) * grid.columns;
    for (let x = 0; x < width; x++, p++) {
      wanted += hole[p]!;
      if (hole[p]) continue;
      if (!isLike[row + grid.columnOf[x]!]) closed[p] = 1;
      if (!closed[p]) left++;
    }
  }
  return left < ENOUGH * wanted ? banned : closed;
}

/** Cells over a window, row by row. */
interface Grid {
  readonly cell: number;
  readonly columns: number;
  /** Of every column of pixels. */
  readonly columnOf: Int32Array;
}

function gridOf({ width, height }: Raster): Grid {
  const cell = Math.max(LEAST_CELL, Math.ceil(Math.max(width, height) / CELLS));
  const columnOf = Int32Array.from({ length: width }, (_, x) => Math.floor(x / cell));
  return { cell, columns: Math.ceil(width / cell), columnOf };
}

/** Cells that hold no pixel of the hole. */
function besides(
  hole: Uint8Array,
  width: number,
  { cell, columns, columnOf }: Grid,
  rows: number,
): Uint8Array {
  const cells = new Uint8Array(columns * rows).fill(1);
  for (let p = hole.indexOf(1); p >= 0; p = hole.indexOf(1, p + 1))
    cells[Math.floor(p / width / cell) * columns + columnOf[p % width]!] = 0;
  return cells;
}

/** Whether a hole reaches the window's border, which it does at the picture's border alone. */
function isOpen(hole: Uint8Array, width: number, height: number): boolean {
  for (let x = 0; x < width; x++) if (hole[x] || hole[hole.length - 1 - x]) return true;
  for (let y = 0; y < height; y++) if (hole[y * width] || hole[(y + 1) * width - 1]) return true;
  return false;
}

/** The mean looks of every cell; null where the hole takes all of it. */
function looksOf(
  { width, height, channels, data }: Raster,
  hole: Uint8Array,
  { cell, columns, columnOf }: Grid,
): (Look | null)[] {
  const rows = Math.ceil(height / cell);
  const [green, blue] = colourChannels(channels) < 3 ? [0, 0] : [1, 2];
  const sums = new Float64Array(5 * columns * rows);
  for (let y = 0, p = 0; y < height; y++) {
    const row = Math.floor(y / cell) * columns;
    for (let x = 0; x < width; x++, p++) {
      if (hole[p]) continue;
      const at = 5 * (row + columnOf[x]!);
      const i = p * channels;
      sums[at]!++;
      sums[at + 1]! += data[i]!;
      sums[at + 2]! += data[i + green]!;
      sums[at + 3]! += data[i + blue]!;
      if (x + 1 < width) sums[at + 4]! += Math.abs(data[i]! - data[i + channels]!);
    }
  }
  const scale = 255 / whiteOf(data);
  return Array.from({ length: columns * rows }, (_, k): Look | null => {
    const n = sums[5 * k]!;
    if (!n) return null;
    const [r, g, b, step] = [1, 2, 3, 4].map((c) => (sums[5 * k + c]! * scale) / n) as [
      number,
      number,
      number,
      number,
    ];
    const grey = 0.299 * r + 0.587 * g + 0.114 * b;
    return [0.4 * grey, 0.4 * (r - g), 0.35 * ((r + g) / 2 - b), 1.5 * step];
  });
}

/** One of every so many looks that differ by less than a step, darkest first. */
function distinct(looks: readonly Look[]): Look[] {
  const found = new Map<string, Look>();
  for (const look of looks) found.set(look.map((v) => Math.round(v / STEP)).join(), look);
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
