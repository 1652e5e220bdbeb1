import type { Detail } from '../predict/bring.js';
import { whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { grow, intersect } from '../raster/rect.js';
import type { LaidCopies } from './laid-copies.js';
import { Narrowness } from './narrowness.js';
import type { Piece } from './pieces.js';
import { openPieces } from './pieces.js';
import { wavesOf } from './waves.js';

/** px round a site that say what is to be expected in it. */
export const EXPECTED_RING = 18;
/** How far a site is brought towards what its surroundings make most likely: the rest stays as it was copied. */
const SHARE = 0.8;
/** Side of the pieces that are settled each for itself, px, and how many are at once. */
const PIECE = 128;
const AT_ONCE = 8;
/** Columns and rows of pieces that are settled in turn. */
const TURNS = [
  [0, 0],
  [1, 1],
  [1, 0],
  [0, 1],
] as const;

/** How strong detail is to become in deeper sites, and in slender ones. */
interface Strengths {
  readonly usual: Detail;
  readonly slender: Detail;
}
/** Of what was filled: sources chosen pixel by pixel are nearly as strong as what they are of, in specks and hairs less so. */
export const FILLED: Strengths = {
  usual: { strength: 1.25, softest: 1, half: 2 },
  slender: { strength: 1.25, softest: 1.15, half: 2 },
};
/** Of portions copied as they stand, of the tamer of what fits. */
const OF_PORTIONS: Detail = { strength: 1.1, softest: 1.6, half: 3 };
export const COPIED: Strengths = { usual: OF_PORTIONS, slender: OF_PORTIONS };

/**
 * Brings what was copied into a site towards what its surroundings make most likely, as strong in detail as it was:
 * edges and grain that enter go on, the rest is the copied texture. Narrow sites alone: in deep ones copies say more.
 * @param copies whose colour is changed in place @param site 1 inside @param frame where the picture itself lies: beyond is what else is copied from
 * @param boxes that together hold it
 * @param share 0..1, of what is usual @param detail how strong it is to become
 */
export function towardsExpected(
  copies: LaidCopies,
  site: Uint8Array,
  frame: Rect,
  boxes: readonly Rect[],
  share: number,
  detail: Strengths,
): void {
  if (share <= 0) return;
  const { picture: below } = copies;
  const open = site.slice();
  const narrowness = new Narrowness(open, below);
  narrowness.leaveDeep(open);
  const sizes = new Map<Rect, number>();
  for (const core of boxes.flatMap(piecesOf)) {
    const size = countIn(open, below.width, core);
    if (size) sizes.set(core, size);
  }
  const cores = [...sizes.keys()];
  if (!cores.length) return;
  const pieceOf = (core: Rect): Piece => ({
    core,
    room: intersect(grow(core, EXPECTED_RING), frame),
    detail: narrowness.isSlender(core) ? detail.slender : detail.usual,
  });
  const most = (side: 'width' | 'height'): number =>
    Math.max(...cores.map((core) => core[side])) + 2 * EXPECTED_RING;
  const size = { width: most('width'), height: most('height') };
  const room = openPieces(copies, open, narrowness, size, Math.min(AT_ONCE, cores.length));
  const white = whiteOf(below.data);
  for (const wave of wavesOf(cores, EXPECTED_RING)) {
    // Those that take longest first: so threads come to an end at about the same time.
    wave.sort((a, b) => sizes.get(b)! - sizes.get(a)!);
    for (let k = 0; k < wave.length; k += AT_ONCE)
      room.settle(wave.slice(k, k + AT_ONCE).map(pieceOf), SHARE * share, white);
  }
}

/** The pieces of a box: every other one of every other row first, so that as many as can be lie apart. */
function piecesOf(box: Rect): Rect[] {
  const pieces: Rect[] = [];
  for (const [u, v] of TURNS)
    for (let y = box.y + v * PIECE; y < box.y + box.height; y += 2 * PIECE)
      for (let x = box.x + u * PIECE; x < box.x + box.width; x += 2 * PIECE)
        pieces.push(intersect({ x, y, width: PIECE, height: PIECE }, box));
  return pieces;
}

/** How many pixels of a mask lie in a box. */
function countIn(mask: Uint8Array, width: number, { x, y, width: w, height: h }: Rect): number {
  let count = 0;
  for (let row = y; row < y + h; row++)
    for (let p = row * width + x; p < row * width + x + w; p++) count += mask[p]!;
  return count;
}
