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
  markNear(tile, runs);
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
    tellGains(tile, strength * softer, 3 * FAINT * white * DETAIL * DETAIL, most);
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

/** Marks blocks with unknown cells, and those up to two beside them. */
function markNear({ stride, near, runs: words }: Tile, runs: number): void {
  const wide = stride / DETAIL;
  const high = near.length / wide;
  for (let k = 0; k < runs; k++) {
    const [from, to] = [words[2 * k]!, words[2 * k + 1]! - 1];
    const y = Math.floor(from / stride / DETAIL);
    const left = Math.max(0, Math.floor((from % stride) / DETAIL) - 2);
    const right = Math.min(wide - 1, Math.floor((to % stride) / DETAIL) + 2);
    for (let v = Math.max(0, y - 2); v <= Math.min(high - 1, y + 2); v++)
      near.fill(1, v * wide + left, v * wide + right + 1);
  }
}

/** Gains a block, from what it and those round it are to show and do show. @param faint least a block shows */
function tellGains(tile: Tile, strength: number, faint: number, most: number): void {
  const wide = tile.stride / DETAIL;
  const high = tile.gains.length / wide;
  for (let y = 0, b = 0; y < high; y++)
    for (let x = 0; x < wide; x++, b++)
      if (tile.near[b]) tile.gains[b] = gainAt(tile, x, y, strength, faint, most);
}

function gainAt(
  { stride, gains, wantedDetail, shownDetail }: Tile,
  x: number,
  y: number,
  strength: number,
  faint: number,
  most: number,
): number {
  const wide = stride / DETAIL;
  const high = gains.length / wide;
  let [want, show, blocks] = [0, 0, 0];
  for (let v = Math.max(0, y - 1); v <= Math.min(high - 1, y + 1); v++)
    for (let u = Math.max(0, x - 1); u <= Math.min(wide - 1, x + 1); u++) {
      want += wantedDetail[v * wide + u]!;
      show += shownDetail[v * wide + u]!;
      blocks++;
    }
  return Math.min(most, Math.max(1, (strength * want) / Math.max(show, faint * blocks)));
}
