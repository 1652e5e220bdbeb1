import type { Crew, Range } from '../task/crew.js';
import { alone } from '../task/crew.js';
import { BEFORE, REACH } from './half-plane.js';
import type { TileRoom } from './tile.js';
import { BLOCK, DETAIL, SQUARE } from './tile.js';

/** How strong detail is to become. */
export interface Detail {
  /** Beside what it was before: means are soft, and copies a little softer than what they are of. */
  readonly strength: number;
  /** Copies softer than what lies round them are made up for so many times, at most; softer ones are of softer things. */
  readonly softest: number;
  /** Detail is what stands out of a square of this half side, cells. */
  readonly half: number;
}

/** Most that a round strengthens by: the second makes up for what the first was too soft to take hold of. */
const MOST = [3, 1.5] as const;
/** Gradients below this share of white are noise: nothing is drawn out of them. */
const FAINT = 0.3 / 255;

/** Cells that tell a filter, at least. */
const LEAST_TOLD = 3 * BEFORE.length;
/** Evenness asked of a filter, as a share of the mean square of a step: near-flat ground tells no filter apart. */
const RIDGE = 0.01;

/** Options of {@link bring}. */
export interface BringOptions {
  /** Rounds of conjugate gradients, at most. @default 60 */
  rounds?: number;
  /** Stops when what is left of every colour's gradient has fallen to this share. @default 1e-2 */
  tolerance?: number;
  /** How far a cell of weight 1 goes over, 0..1. @default 1 */
  share?: number;
  /** White of the values' scale. @default 255 */
  white?: number;
  /** Threads that take a tile each. @default the calling one alone */
  crew?: Crew;
}

/**
 * Brings the unknown cells of tiles towards what their surroundings make most likely, as far as the weights in the tiles' grids
 * say: the values of least prediction error, where every cell is foretold from its neighbours by the filter of its block
 * (Janssen, Veldhuis, Vries, "Adaptive interpolation of discrete-time signals that can be modeled as autoregressive processes",
 * IEEE Trans. ASSP 34(2), 1986; in two dimensions Kokaram et al., "Interpolation of missing data in image sequences", IEEE
 * Trans. Image Processing 4(11), 1995). Conjugate gradients on the normal equations, from what stands in the unknown cells.
 *
 * A block's filter foretells a cell from its {@link BEFORE neighbours} with least squared error over the known cells in and
 * round the block, its taps adding up to 1, so that even ground stays as it is (least-squares linear prediction; Jain,
 * "Fundamentals of Digital Image Processing", 1989, ch. 6). With steps from the cell itself as what is multiplied, the
 * error is the taps' own mean of steps, so the taps of least a' M a are M's inverse on ones, scaled.
 *
 * What then stands in the cells is strengthened as far as it went over, until it shows as much detail (mean gradient, in squares
 * of three blocks' side) as it did before, or a little more.
 *
 * Told in the tiles' records: how many runs of unknown cells each has; 0, and nothing is changed, when too little is known
 * to tell filters from.
 * @param count of the room's first tiles, `values`, `unknown`, `grid` and `detail` filled in; the values are changed
 */
export function bring(
  { room, records }: TileRoom,
  count: number,
  { rounds = 60, tolerance = 1e-2, share = 1, white = 255, crew = alone }: BringOptions = {},
): void {
  const filters = [REACH, BLOCK, BEFORE.length, LEAST_TOLD, RIDGE, rounds, tolerance];
  const towards = [share, SQUARE, DETAIL, 3 * FAINT * white, ...MOST];
  const ranges = Array.from({ length: count }, (_, k): Range => [k, k + 1]);
  crew.run(room, 'bring', [records.byteOffset, ...filters, ...towards], ranges);
}
