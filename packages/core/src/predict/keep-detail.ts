import type { Tile } from './tile.js';
import { DETAIL } from './tile.js';

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

/**
 * Strengthens what stands in a tile's unknown cells until it shows as much detail (mean gradient, in squares of three
 * blocks' side) as it did before, or a little more.
 * @param tile as the cells were foretold, its runs of unknown cells told; `values` are changed there,
 * as far as their `weights` go
 * @param runs how many runs there are
 * @param before values of all cells then @param white of the values' scale
 */
export function keepDetail(
  tile: Tile,
  runs: number,
  before: Float32Array,
  white: number,
  { strength, softest, half }: Detail,
): void {
  const { kernel, values, stride, width, height, gains, rest, near } = tile;
  const high = gains.length / (stride / DETAIL);
  const measure = (of: Float32Array, into: Float32Array): void => {
    const blocks = [near.byteOffset, DETAIL, high, into.byteOffset] as const;
    kernel.steepnesses(of.byteOffset, stride, width, height, ...blocks);
  };
  kernel.markNear(tile.runs.byteOffset, runs, stride, DETAIL, high, near.byteOffset);
  measure(before, tile.wantedDetail);
  const softer = kernel.softness(
    before.byteOffset,
    tile.unknown.byteOffset,
    stride,
    width,
    height,
    near.byteOffset,
    DETAIL,
    softest,
  );
  const own = [tile.runs.byteOffset, runs, stride] as const;
  for (const most of MOST) {
    measure(values, tile.shownDetail);
    kernel.tellGains(
      near.byteOffset,
      stride / DETAIL,
      high,
      tile.wantedDetail.byteOffset,
      tile.shownDetail.byteOffset,
      strength * softer,
      3 * FAINT * white * DETAIL * DETAIL,
      most,
      gains.byteOffset,
    );
    kernel.soften(values.byteOffset, ...own, width, height, half, rest.byteOffset);
    const grid = [
      tile.weights.byteOffset,
      gains.byteOffset,
      DETAIL,
      stride / DETAIL,
      high,
    ] as const;
    kernel.strengthen(values.byteOffset, rest.byteOffset, ...own, ...grid);
  }
}
