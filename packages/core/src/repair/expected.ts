import { foretell } from '../predict/foretell.js';
import { REACH } from '../predict/half-plane.js';
import type { Detail } from '../predict/keep-detail.js';
import { keepDetail } from '../predict/keep-detail.js';
import type { Tile } from '../predict/tile.js';
import { LANES, layTile } from '../predict/tile.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { grow, intersect } from '../raster/rect.js';
import { depthsOf } from '../shape/depth.js';
import { misfitIn } from './misfit.js';

/** px round a site that say what is to be expected in it. */
export const EXPECTED_RING = 18;
/** How far a site is brought towards what its surroundings make most likely: the rest stays as it was copied. */
const SHARE = 0.8;
/** Of sites no deeper than the first, px, surroundings say much; at the second nothing that copies do not say better. */
const [NARROW, DEEP] = [16, 24];
/** px beyond a piece in which what is still open is settled along with it, and again later. */
const BESIDE = 8;
/** Misfit from which on what was copied counts for no more than that; where it fits exactly, it stays. */
const UNLIKE = 0.3;
/** Side of the pieces that are worked on at once, px. */
const PIECE = 192;

/** Detail of what was filled: sources chosen pixel by pixel are nearly as strong as what they are of. */
export const FILLED: Detail = { strength: 1.25, softest: 1, half: 2 };
/** Of portions copied as they stand, of the tamer of what fits. */
export const COPIED: Detail = { strength: 1.1, softest: 1.6, half: 3 };

/** A site and where its pixels were copied from. */
export interface Copied {
  /** The picture with whatever stands in the site, and what else is copied from. */
  readonly below: Raster;
  /** Where the picture itself lies in it. */
  readonly frame: Rect;
  /** For every pixel the one it is copied from, -1 outside the site. */
  readonly from: Int32Array;
}

/**
 * Brings what was copied into a site towards what its surroundings make most likely, as strong in detail as it was:
 * edges and grain that enter go on, the rest is the copied texture. Narrow sites alone: in deep ones copies say more.
 * @param colour samples of the site, on the picture's scale and laid out like it; changed in place
 * @param boxes that together hold it
 * @param share 0..1, of what is usual @param detail how strong it is to become
 */
export function towardsExpected(
  copied: Copied,
  colour: Float32Array | Float64Array,
  boxes: readonly Rect[],
  share: number,
  detail: Detail,
): void {
  if (share <= 0) return;
  const { below, from } = copied;
  const open = new Uint8Array(from.length);
  for (let p = 0; p < open.length; p++) open[p] = from[p]! >= 0 ? 1 : 0;
  const narrowness = narrownessOf(open, below);
  for (let p = open.indexOf(1); p >= 0; p = open.indexOf(1, p + 1))
    if (narrowness(p % below.width, Math.floor(p / below.width)) <= 0) open[p] = 0;
  const work = { ...copied, colour, open, narrowness, share: SHARE * share, detail };
  for (const box of boxes)
    for (let y = box.y; y < box.y + box.height; y += PIECE)
      for (let x = box.x; x < box.x + box.width; x += PIECE)
        settle(work, intersect({ x, y, width: PIECE, height: PIECE }, box));
}

/** How narrow a site is round a pixel, 0..1: by how deep it gets in the square the pixel lies in and those beside it. */
function narrownessOf(
  site: Uint8Array,
  { width, height }: Raster,
): (x: number, y: number) => number {
  const depths = depthsOf(site, width, height);
  const wide = Math.ceil(width / DEEP) + 2;
  const deepest = new Float32Array(wide * (Math.ceil(height / DEEP) + 2));
  const squareOf = (x: number, y: number): number =>
    (Math.floor(y / DEEP) + 1) * wide + Math.floor(x / DEEP) + 1;
  for (let p = site.indexOf(1); p >= 0; p = site.indexOf(1, p + 1)) {
    const at = squareOf(p % width, Math.floor(p / width));
    for (let v = -wide; v <= wide; v += wide)
      for (let u = -1; u <= 1; u++)
        if (depths[p]! > deepest[at + v + u]!) deepest[at + v + u] = depths[p]!;
  }
  return (x, y) => {
    const share = (DEEP - deepest[squareOf(x, y)]!) / (DEEP - NARROW);
    return Math.min(1, Math.max(0, share));
  };
}

interface Work extends Copied {
  readonly colour: Float32Array | Float64Array;
  /** Site pixels that are still to be settled. */
  readonly open: Uint8Array;
  readonly narrowness: (x: number, y: number) => number;
  readonly share: number;
  readonly detail: Detail;
}

/** Settles the open pixels of one piece. */
function settle(work: Work, core: Rect): void {
  const { below, frame, colour, from, open, narrowness, share, detail } = work;
  const { width, channels } = below;
  if (!holdsAny(open, width, core)) return;
  const piece = intersect(grow(core, EXPECTED_RING), frame);
  const tile = layTile(piece.width, piece.height);
  const colours = colourChannels(channels);
  layValues(work, piece, grow(core, BESIDE), tile);
  tile.before.set(tile.values);
  const runs = foretell(tile);
  if (runs) {
    const misfit = misfitIn(below, from, piece);
    for (let k = 0; k < runs; k++)
      for (let cell = tile.runs[2 * k]!; cell < tile.runs[2 * k + 1]!; cell++) {
        const x = piece.x + (cell % tile.stride);
        const y = piece.y + Math.floor(cell / tile.stride);
        const weight = narrowness(x, y) * Math.min(1, misfit(x, y) / UNLIKE);
        tile.weights[cell] = weight;
        const kept = 1 - share * weight;
        for (let j = LANES * cell; j < LANES * cell + colours; j++)
          tile.values[j]! += kept * (tile.before[j]! - tile.values[j]!);
      }
    keepDetail(tile, runs, tile.before, whiteOf(below.data), detail);
  }
  for (let y = core.y; y < core.y + core.height; y++)
    for (let x = core.x, p = y * width + x; x < core.x + core.width; x++, p++) {
      if (!open[p]) continue;
      const cell = LANES * ((y - piece.y) * tile.stride + x - piece.x);
      for (let c = 0; c < colours; c++) colour[p * channels + c] = tile.values[cell + c]!;
      open[p] = 0;
    }
}

/** Lays the picture as mended so far into a tile. @param beside in which open pixels are foretold */
function layValues(
  { below, colour, from, open }: Work,
  piece: Rect,
  beside: Rect,
  tile: Tile,
): void {
  const { width, channels, data } = below;
  const colours = colourChannels(channels);
  // A cell that is foretold from too few could come to anything: at the picture's edges what was copied stays.
  const told = {
    x: piece.x + REACH,
    y: piece.y + REACH,
    width: piece.width - 2 * REACH,
    height: piece.height - REACH,
  };
  const within = intersect(beside, told);
  for (let y = 0; y < piece.height; y++) {
    const row = (piece.y + y) * width + piece.x;
    const first = y * tile.stride;
    for (let x = 0, i = row * channels, j = LANES * first; x < piece.width; x++) {
      for (let c = 0; c < colours; c++) tile.values[j + c] = data[i + c]!;
      i += channels;
      j += LANES;
    }
    for (let x = 0; x < piece.width; x++) {
      if (from[row + x]! < 0) continue;
      for (let c = 0; c < colours; c++)
        tile.values[LANES * (first + x) + c] = colour[(row + x) * channels + c]!;
    }
    if (piece.y + y < within.y || piece.y + y >= within.y + within.height) continue;
    const left = within.x - piece.x;
    tile.unknown.set(open.subarray(row + left, row + left + within.width), first + left);
  }
}

function holdsAny(open: Uint8Array, width: number, { x, y, width: w, height: h }: Rect): boolean {
  for (let row = y; row < y + h; row++)
    if (open.subarray(row * width + x, row * width + x + w).includes(1)) return true;
  return false;
}
