import { findFilters } from './filters.js';
import { REACH } from './half-plane.js';
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
  const { kernel, offsets, unknown, values, rest, way, answer, missed, work } = tile;
  const stretches = kernel.stretches(
    unknown.byteOffset,
    tile.touched.byteOffset,
    tile.width,
    tile.height,
    tile.stride,
    REACH,
    BLOCK,
    offsets.byteOffset,
    offsets.length,
    unknown.length,
    tile.taps.byteOffset,
    tile.wanted.byteOffset,
    tile.stretches.byteOffset,
  );
  if (!stretches || !findFilters(tile)) return 0;
  const runs = kernel.runs(unknown.byteOffset, tile.stride, unknown.length, tile.runs.byteOffset);
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
