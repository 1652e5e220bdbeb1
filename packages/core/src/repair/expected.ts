import type { Detail } from '../predict/bring.js';
import { bring } from '../predict/bring.js';
import { REACH } from '../predict/half-plane.js';
import type { Tile, TileRoom } from '../predict/tile.js';
import { LANES, nodesAlong, openTiles, SQUARE } from '../predict/tile.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { grow, intersect } from '../raster/rect.js';
import type { Crew } from '../task/crew.js';
import type { LaidCopies } from './laid-copies.js';
import { misfitIn } from './misfit.js';
import { Narrowness } from './narrowness.js';
import { wavesOf } from './waves.js';

/** px round a site that say what is to be expected in it. */
export const EXPECTED_RING = 18;
/** How far a site is brought towards what its surroundings make most likely: the rest stays as it was copied. */
const SHARE = 0.8;
/** px beyond a piece in which what is still open is settled along with it, and again later. */
const BESIDE = 8;
/** Misfit from which on what was copied counts for no more than that; where it fits exactly, it stays. */
const UNLIKE = 0.3;
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
 * @param copies whose colour is changed in place @param frame where the picture itself lies: beyond is what else is copied from
 * @param boxes that together hold it
 * @param share 0..1, of what is usual @param detail how strong it is to become @param crew threads that share the work
 */
export function towardsExpected(
  copies: LaidCopies,
  frame: Rect,
  boxes: readonly Rect[],
  share: number,
  detail: Strengths,
  crew: Crew,
): void {
  if (share <= 0) return;
  const { picture: below } = copies;
  const open = copies.mask.slice();
  const narrowness = new Narrowness(open, below);
  narrowness.leaveDeep(open);
  const work = { copies, frame, open, narrowness, share: SHARE * share, detail };
  const pieces = boxes.flatMap(piecesOf).filter((piece) => holdsAny(open, below.width, piece));
  if (!pieces.length) return;
  const [wide, high] = [pieces.map(({ width }) => width), pieces.map(({ height }) => height)].map(
    (sides) => Math.max(...sides) + 2 * EXPECTED_RING,
  );
  const tiles = openTiles(wide!, high!, Math.min(AT_ONCE, pieces.length));
  for (const wave of wavesOf(pieces, EXPECTED_RING))
    for (let k = 0; k < wave.length; k += AT_ONCE)
      settle(work, wave.slice(k, k + AT_ONCE), tiles, crew);
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

interface Work {
  readonly copies: LaidCopies;
  readonly frame: Rect;
  /** Site pixels that are still to be settled. */
  readonly open: Uint8Array;
  readonly narrowness: Narrowness;
  readonly share: number;
  readonly detail: Strengths;
}

/** Settles the open pixels of pieces that lie apart. */
function settle(work: Work, cores: readonly Rect[], tiles: TileRoom, crew: Crew): void {
  const { share, detail } = work;
  const laid = cores.map((core, slot) => {
    const piece = intersect(grow(core, EXPECTED_RING), work.frame);
    const tile = tiles.lay(slot, piece.width, piece.height);
    layValues(work, piece, grow(core, BESIDE), tile);
    layWeights(work, piece, tile);
    const { strength, softest, half } = work.narrowness.isSlender(core)
      ? detail.slender
      : detail.usual;
    tile.detail.set([strength, softest, half]);
    return { core, piece, tile };
  });
  bring(tiles, laid.length, { share, white: whiteOf(work.copies.picture.data), crew });
  for (const { core, piece, tile } of laid) takeOver(work, core, piece, tile);
}

/** Tells how far cells are to go over: the narrower the site and the less the copied fits, the farther. */
function layWeights(work: Work, piece: Rect, { grid }: Tile): void {
  const wide = nodesAlong(piece.width);
  const high = nodesAlong(piece.height);
  const { narrowness } = work;
  const misfit = misfitIn(work.copies, piece);
  for (let j = 0, node = 0; j < high; j++)
    for (let i = 0; i < wide; i++, node++) {
      const narrow = narrowness.at(piece.x + (i - 0.5) * SQUARE, piece.y + (j - 0.5) * SQUARE);
      grid[node] = narrow * Math.min(1, misfit[node]! / UNLIKE);
    }
}

/** Takes the open pixels of a piece out of its tile: they are settled. */
function takeOver({ copies, open }: Work, core: Rect, piece: Rect, { values, stride }: Tile): void {
  const { colour } = copies;
  const { width, channels } = copies.picture;
  const colours = colourChannels(channels);
  for (let y = core.y; y < core.y + core.height; y++) {
    const end = y * width + core.x + core.width;
    let i = LANES * ((y - piece.y) * stride + core.x - piece.x);
    for (let p = y * width + core.x; p < end; p++, i += LANES) {
      if (!open[p]) continue;
      for (let c = 0; c < colours; c++) colour[p * channels + c] = values[i + c]!;
      open[p] = 0;
    }
  }
}

/** Lays the picture as mended so far into a tile. @param beside in which open pixels are foretold */
function layValues(work: Work, piece: Rect, beside: Rect, tile: Tile): void {
  const { width } = work.copies.picture;
  // A cell that is foretold from too few could come to anything: at the picture's edges what was copied stays.
  const told = {
    x: piece.x + REACH,
    y: piece.y + REACH,
    width: piece.width - 2 * REACH,
    height: piece.height - REACH,
  };
  const within = intersect(beside, told);
  const left = within.x - piece.x;
  for (let y = piece.y; y < piece.y + piece.height; y++) {
    const row = y * width + piece.x;
    const first = (y - piece.y) * tile.stride;
    layRow(work.copies, row, row + piece.width, tile, first);
    if (y < within.y || y >= within.y + within.height) continue;
    tile.unknown.set(work.open.subarray(row + left, row + left + within.width), first + left);
  }
}

/** Lays pixels of a row, as mended so far, into a tile. @param first cell */
function layRow(
  { picture: { channels, data }, colour, from }: LaidCopies,
  begin: number,
  end: number,
  { values }: Tile,
  first: number,
): void {
  const colours = colourChannels(channels);
  for (let p = begin, j = LANES * first; p < end; p++, j += LANES) {
    const of = from[p]! < 0 ? data : colour;
    for (let c = 0; c < colours; c++) values[j + c] = of[p * channels + c]!;
  }
}

function holdsAny(open: Uint8Array, width: number, { x, y, width: w, height: h }: Rect): boolean {
  for (let row = y; row < y + h; row++)
    if (open.subarray(row * width + x, row * width + x + w).includes(1)) return true;
  return false;
}
