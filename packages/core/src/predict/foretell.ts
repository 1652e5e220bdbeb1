import type { Crew, Range } from '../task/crew.js';
import { alone } from '../task/crew.js';
import { BEFORE, REACH } from './half-plane.js';
import type { TileRoom } from './tile.js';
import { BLOCK } from './tile.js';

/** Options of {@link foretell}. */
export interface ForetellOptions {
  /** Rounds of conjugate gradients, at most. @default 60 */
  rounds?: number;
  /** Stops when what is left of every colour's gradient has fallen to this share. @default 1e-2 */
  tolerance?: number;
  /** Threads that take a tile each. @default the calling one alone */
  crew?: Crew;
}

/** Cells that tell a filter, at least. */
const LEAST_TOLD = 3 * BEFORE.length;
/** Evenness asked of a filter, as a share of the mean square of a step: near-flat ground tells no filter apart. */
const RIDGE = 0.01;

/**
 * Replaces the unknown cells of tiles by what their surroundings make most likely: the values of least prediction
 * error, where every cell is foretold from its neighbours by the filter of its block (Janssen, Veldhuis, Vries,
 * "Adaptive interpolation of discrete-time signals that can be modeled as autoregressive processes", IEEE Trans. ASSP
 * 34(2), 1986; in two dimensions Kokaram et al., "Interpolation of missing data in image sequences", IEEE Trans. Image
 * Processing 4(11), 1995). Conjugate gradients on the normal equations, from what stands in the unknown cells.
 *
 * A block's filter foretells a cell from its {@link BEFORE neighbours} with least squared error over the known cells in and
 * round the block, its taps adding up to 1, so that even ground stays as it is (least-squares linear prediction; Jain,
 * "Fundamentals of Digital Image Processing", 1989, ch. 6). With steps from the cell itself as what is multiplied, the
 * error is the taps' own mean of steps, so the taps of least a' M a are M's inverse on ones, scaled.
 *
 * Told in the tiles' records: how many runs of unknown cells each has; 0, and nothing is changed, when too little is known
 * to tell filters from.
 * @param count of the room's first tiles, `values` and `unknown` filled in; the values are changed
 */
export function foretell(
  { room, records }: TileRoom,
  count: number,
  { crew = alone, ...options }: ForetellOptions = {},
): void {
  crew.run(
    room,
    'foretell',
    [records.byteOffset, ...filterConstants(options)],
    foretellRanges(count),
  );
}

/** What a kernel is told of filters and of how closely to foretell. */
export function filterConstants({
  rounds = 60,
  tolerance = 1e-2,
}: Omit<ForetellOptions, 'crew'>): number[] {
  return [REACH, BLOCK, BEFORE.length, LEAST_TOLD, RIDGE, rounds, tolerance];
}

/** A range for each of so many tiles. */
export function foretellRanges(count: number): Range[] {
  return Array.from({ length: count }, (_, k) => [k, k + 1]);
}
