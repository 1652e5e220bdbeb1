import { layLab } from '../colour/lab.js';
import { toLinear } from '../colour/srgb.js';
import type { Cells } from '../raster/cells.js';
import { cellsOf, SUMS } from '../raster/cells.js';
import { orderOf } from '../raster/order.js';
import type { Raster } from '../raster/raster.js';
import { whiteOf } from '../raster/raster.js';
import type { Crew } from '../task/crew.js';

/** A picture in square cells, and which ground each belongs to. Cells are in reading order. */
export interface GroundCells {
  /** px; the first cell begins in the picture's corner, the last ones of a row and a column may be cut off. */
  readonly cell: number;
  readonly columns: number;
  readonly rows: number;
  /** 1 = enough of it is to be looked at. */
  readonly open: Uint8Array;
  /** Number of every cell's ground, the largest is 0; -1 where it is closed, or of none of the largest. */
  readonly regions: Int8Array;
  /** How many grounds there are. */
  readonly count: number;
  /** Three a cell, 8-bit codes. */
  readonly colours: Float64Array;
}

/** Cells along the longer side. */
const CELLS = 128;
const LEAST_CELL = 4;
/** Larger regions are kept apart by smaller differences (the k of Felzenszwalb and Huttenlocher), CIELAB units. */
const SCALE = 90;
/** How much a difference in texture counts beside colour. */
const TEXTURE = 1.5;
const SMALLEST = 0.025;
/** Steps in a unit that differences are ordered by. */
const FINE = 1 << 24;
const MOST = 24;

/**
 * Splits a picture into grounds: Felzenszwalb and Huttenlocher, "Efficient Graph-Based Image Segmentation", IJCV 59(2),
 * 2004, on cells of some pixels with mean CIELAB colour and texture; small regions join the neighbour they are most like.
 * @param closed 1 = not to be looked at, a value a pixel
 */
export function groundCells(picture: Raster, closed: Uint8Array, crew?: Crew): GroundCells {
  const cell = Math.max(LEAST_CELL, Math.ceil(Math.max(picture.width, picture.height) / CELLS));
  const cells = cellsOf(picture, closed, cell, crew);
  const { columns, rows } = cells;
  const { looks, open, colours } = looksOf(picture, cells);
  const roots = join(smoothed(looks, open, columns, rows), open, columns, rows);
  const sizes = new Int32Array(roots.length);
  const order: number[] = [];
  for (const r of roots) if (r >= 0 && !sizes[r]!++) order.push(r);
  order.sort((a, b) => sizes[b]! - sizes[a]!);
  const numbers = new Int8Array(roots.length).fill(-1);
  const count = Math.min(MOST, order.length);
  for (let k = 0; k < count; k++) numbers[order[k]!] = k;
  const regions = new Int8Array(roots.length);
  for (let k = 0; k < roots.length; k++) regions[k] = roots[k]! < 0 ? -1 : numbers[roots[k]!]!;
  return { cell, columns, rows, open, regions, count, colours };
}

/** Values of a cell's look: CIELAB and texture. */
const LOOK = 4;

function looksOf(picture: Raster, { cell, columns, rows, sums }: Cells) {
  const scale = 255 / whiteOf(picture.data);
  const open = new Uint8Array(columns * rows);
  const looks = new Float64Array(LOOK * open.length);
  const colours = new Float64Array(3 * open.length);
  const lab = [new Float64Array(1), new Float64Array(1), new Float64Array(1)] as const;
  for (let k = 0, i = 0; k < open.length; k++, i += SUMS) {
    const count = sums[i]!;
    const n = Math.max(1, count);
    const r = (sums[i + 1]! * scale) / n;
    const g = (sums[i + 2]! * scale) / n;
    const b = (sums[i + 3]! * scale) / n;
    layLab(lab, 0, toLinear(r / 255), toLinear(g / 255), toLinear(b / 255));
    if (count * 2 >= cell * cell || count >= 8) open[k] = 1;
    for (let c = 0; c < 3; c++) looks[LOOK * k + c] = lab[c]![0]!;
    looks[LOOK * k + 3] = (sums[i + 4]! * scale) / n;
    colours[3 * k] = r;
    colours[3 * k + 1] = g;
    colours[3 * k + 2] = b;
  }
  return { looks, open, colours };
}

/** Looks as means over neighbouring cells: a pattern is one ground, not many. */
function smoothed(
  looks: Float64Array,
  open: Uint8Array,
  columns: number,
  rows: number,
): Float64Array {
  const means = looks.slice();
  for (let y = 0, i = 0; y < rows; y++)
    for (let x = 0; x < columns; x++, i++) {
      let count = 0;
      let L = 0;
      let A = 0;
      let B = 0;
      let texture = 0;
      for (let b = Math.max(0, y - 1); b <= Math.min(rows - 1, y + 1); b++)
        for (let a = Math.max(0, x - 1); a <= Math.min(columns - 1, x + 1); a++) {
          const q = b * columns + a;
          if (!open[q]) continue;
          count++;
          L += looks[LOOK * q]!;
          A += looks[LOOK * q + 1]!;
          B += looks[LOOK * q + 2]!;
          texture += looks[LOOK * q + 3]!;
        }
      if (!count) continue;
      means[LOOK * i] = L / count;
      means[LOOK * i + 1] = A / count;
      means[LOOK * i + 2] = B / count;
      means[LOOK * i + 3] = texture / count;
    }
  return means;
}

/** One cell of every cell's region; -1 where it is closed. */
function join(looks: Float64Array, open: Uint8Array, columns: number, rows: number): Int32Array {
  const count = open.length;
  const parent = new Int32Array(count);
  for (let i = 0; i < count; i++) parent[i] = i;
  const size = new Int32Array(count).fill(1);
  const inner = new Float64Array(count);
  const find = (i: number): number => {
    let root = i;
    while (parent[root] !== root) root = parent[root]!;
    while (parent[i] !== root) {
      const next = parent[i]!;
      parent[i] = root;
      i = next;
    }
    return root;
  };
  const { pairs, weights } = neighbours(looks, open, columns, rows);
  const order = orderOf(weights, FINE);
  const unite = (a: number, b: number, w: number): void => {
    parent[b] = a;
    size[a]! += size[b]!;
    inner[a] = Math.max(w, inner[a]!, inner[b]!);
  };
  for (const k of order) {
    const i = find(pairs[2 * k]!);
    const j = find(pairs[2 * k + 1]!);
    const w = weights[k]!;
    if (i === j) continue;
    if (w <= inner[i]! + SCALE / size[i]! && w <= inner[j]! + SCALE / size[j]!) unite(i, j, w);
  }
  const least = SMALLEST * count;
  for (const k of order) {
    const i = find(pairs[2 * k]!);
    const j = find(pairs[2 * k + 1]!);
    if (i !== j && (size[i]! < least || size[j]! < least)) unite(i, j, weights[k]!);
  }
  for (let i = 0; i < count; i++) parent[i] = open[i] ? find(i) : -1;
  return parent;
}

/** Pairs of cells side by side, and how unlike they are. */
function neighbours(looks: Float64Array, open: Uint8Array, columns: number, rows: number) {
  const pairs = new Int32Array(4 * open.length);
  const weights = new Float64Array(2 * open.length);
  let count = 0;
  const see = (i: number, j: number): void => {
    if (!open[j]) return;
    pairs[2 * count] = i;
    pairs[2 * count + 1] = j;
    weights[count++] = unlike(looks, LOOK * i, LOOK * j);
  };
  for (let y = 0, i = 0; y < rows; y++)
    for (let x = 0; x < columns; x++, i++) {
      if (!open[i]) continue;
      if (x + 1 < columns) see(i, i + 1);
      if (y + 1 < rows) see(i, i + columns);
    }
  return { pairs, weights: weights.subarray(0, count) };
}

function unlike(looks: Float64Array, a: number, b: number): number {
  const L = looks[a]! - looks[b]!;
  const A = looks[a + 1]! - looks[b + 1]!;
  const B = looks[a + 2]! - looks[b + 2]!;
  const t = TEXTURE * (looks[a + 3]! - looks[b + 3]!);
  return Math.sqrt(L * L + A * A + B * B + t * t);
}
