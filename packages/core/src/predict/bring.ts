import type { ForetellOptions } from './foretell.js';
import { filterConstants, foretellRanges } from './foretell.js';
import { alone } from '../task/crew.js';
import type { TileRoom } from './tile.js';
import { DETAIL, SQUARE } from './tile.js';

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

/** Options of {@link bring}. */
export interface BringOptions extends ForetellOptions {
  /** How far a cell of weight 1 goes over, 0..1. @default 1 */
  share?: number;
  /** White of the values' scale. @default 255 */
  white?: number;
}

/**
 * Foretells the unknown cells of tiles and has them go over to it, as far as the weights in the tiles' grids say. What then
 * stands in them is strengthened as far as it went over, until it shows as much detail (mean gradient, in squares of three
 * blocks' side) as it did before, or a little more.
 *
 * Told in the tiles' records as {@link foretell} tells it: nothing is changed in a tile of which too little is known.
 * @param count of the room's first tiles, `values`, `unknown`, `grid` and `detail` filled in; the values are changed
 */
export function bring(
  { room, records }: TileRoom,
  count: number,
  { share = 1, white = 255, crew = alone, ...options }: BringOptions = {},
): void {
  const towards = [share, SQUARE, DETAIL, 3 * FAINT * white, ...MOST];
  const args = [records.byteOffset, ...filterConstants(options), ...towards];
  crew.run(room, 'bring', args, foretellRanges(count));
}
