import { findFilters } from './filters.js';
import { BEFORE, REACH } from './half-plane.js';
import type { Tile } from './tile.js';
import { BLOCK } from './tile.js';

/** Options of {@link foretell}. */
export interface ForetellOptions {
  /** Rounds of conjugate gradients, at most. @default 60 */
  rounds?: number;
  /** Stops when what is left of every colour's gradient has fallen to this share. @default 1e-2 */
  tolerance?: number;
}

/**
 * Replaces the unknown cells of a tile by what their surroundings make most likely: the values of least prediction
 * error, where every cell is foretold from its neighbours by the filter of its block (Janssen, Veldhuis, Vries,
 * "Adaptive interpolation of discrete-time signals that can be modeled as autoregressive processes", IEEE Trans. ASSP
 * 34(2), 1986; in two dimensions Kokaram et al., "Interpolation of missing data in image sequences", IEEE Trans. Image
 * Processing 4(11), 1995). Conjugate gradients on the normal equations, from what stands in the unknown cells.
 * @param tile `values` and `unknown` filled in; the values are changed
 * @returns how many runs of unknown cells there are, told in the tile; 0, and nothing is changed, when too little is
 * known to tell filters from
 */
export function foretell(tile: Tile, options: ForetellOptions = {}): number {
  const { rounds = 60, tolerance = 1e-2 } = options;
  const stretches = stretchesOf(tile);
  if (!stretches || !findFilters(tile)) return 0;
  const runs = runsOf(tile);
  const { kernel, offsets, values, rest, way, answer, missed, work } = tile;
  kernel.settle(
    values.byteOffset,
    rest.byteOffset,
    way.byteOffset,
    answer.byteOffset,
    missed.byteOffset,
    tile.stretches.byteOffset,
    stretches,
    offsets.byteOffset,
    offsets.length,
    tile.runs.byteOffset,
    runs,
    rounds,
    tolerance,
    work.byteOffset,
  );
  return runs;
}

/** Cells that are foretold from an unknown one or are one, cut where filters change; returns how many stretches they are. */
function stretchesOf(tile: Tile): number {
  const { height, unknown, offsets } = tile;
  const touched = new Uint8Array(unknown.length);
  for (let i = unknown.indexOf(1); i >= 0; i = unknown.indexOf(1, i + 1))
    touch(touched, i, offsets);
  let number = 0;
  for (let y = REACH; y < height; y++) number = addStretches(tile, touched, y, number);
  return number;
}

function touch(touched: Uint8Array, cell: number, offsets: Int32Array): void {
  touched[cell] = 1;
  for (let k = 0; k < offsets.length; k++) touched[cell - offsets[k]!] = 1;
}

/** Adds a row's stretches to the so many there are; returns how many there are then. */
function addStretches(
  { width, stride, across, stretches, taps, wanted }: Tile,
  touched: Uint8Array,
  y: number,
  number: number,
): number {
  const last = y * stride + width - REACH;
  const blocks = Math.floor(y / BLOCK) * across;
  for (let i = touched.indexOf(1, y * stride + REACH); i >= 0 && i < last;) {
    const column = Math.floor((i - y * stride) / BLOCK);
    const end = Math.min(last, y * stride + (column + 1) * BLOCK);
    stretches[3 * number] = i;
    while (i < end && touched[i]) i++;
    stretches[3 * number + 1] = i;
    stretches[3 * number++ + 2] = taps.byteOffset + 4 * (blocks + column) * BEFORE.length;
    wanted[blocks + column] = 1;
    if (!touched[i]) i = touched.indexOf(1, i);
  }
  return number;
}

/** Runs of unknown cells; returns how many. */
function runsOf({ stride, unknown, runs }: Tile): number {
  let number = 0;
  for (let i = unknown.indexOf(1); i >= 0; i = unknown.indexOf(1, i)) {
    const end = (Math.floor(i / stride) + 1) * stride;
    runs[2 * number] = i;
    while (i < end && unknown[i]) i++;
    runs[2 * number++ + 1] = i;
  }
  return number;
}
