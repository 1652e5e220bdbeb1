import type { Detail } from '../predict/bring.js';
import { bring } from '../predict/bring.js';
import { REACH } from '../predict/half-plane.js';
import type { Tile } from '../predict/tile.js';
import { LANES, nodesAlong, openTiles, SQUARE } from '../predict/tile.js';
import type { Rect } from '../raster/rect.js';
import { grow, intersect } from '../raster/rect.js';
import type { Range } from '../task/crew.js';
import type { LaidCopies } from './laid-copies.js';
import type { Narrowness } from './narrowness.js';
import { DEEP, NARROW } from './narrowness.js';

/** px beyond a piece in which what is still open is settled along with it, and again later. */
const BESIDE = 8;
/** Misfit from which on what was copied counts for no more than that; where it fits exactly, it stays. */
export const UNLIKE = 0.3;

/** A piece that is to be settled. */
export interface Piece {
  /** What is settled, and what round it says how. */
  readonly core: Rect;
  readonly room: Rect;
  /** How strong its detail is to become. */
  readonly detail: Detail;
}

/** Room for so many pieces of up to this size at once. */
export interface PieceRoom {
  /** Settles the open pixels of pieces that lie apart: lays them, brings the tiles, takes them out. */
  settle(pieces: readonly Piece[], share: number, white: number): void;
  /**
   * Lays pieces, as mended so far, into tiles. How far cells go over is told by how narrow the site is and by how little what
   * lies beyond its rim is like what lies beside its copies' sources: the mean squared difference of the steps there, beside the
   * mean of their squares, by squares and those round them; 1 where no rim is near. Whatever the tones, since only steps are
   * compared.
   */
  lay(pieces: readonly Piece[]): Tile[];
}

/** Words of a piece's record. */
const RECORD = 18;

/**
 * @param open 1 = site pixels that are still to be settled @param narrowness of the site: the narrower, the farther it goes over
 * @param size greatest size of a piece's room, px
 */
export function openPieces(
  copies: LaidCopies,
  open: Uint8Array,
  narrowness: Narrowness,
  size: Pick<Rect, 'width' | 'height'>,
  slots: number,
): PieceRoom {
  const { arena, crew } = copies;
  const tiles = openTiles(size.width, size.height, slots, arena);
  const nodes = nodesAlong(size.width) * nodesAlong(size.height);
  const { wide, high, deepest } = narrowness;
  const more = arena.more(
    open.length + 4 * (5 + deepest.length) + slots * (4 * RECORD + 16 * nodes + 4),
    2 * slots + 4,
  );
  const still = more.bytes(open.length);
  still.set(open);
  const [depths, squares] = [more.words(5), more.floats(deepest.length)];
  squares.set(deepest);
  depths.set([DEEP, wide, high, NARROW, squares.byteOffset]);
  const places = more.words(slots);
  const all = Array.from({ length: slots }, () => ({
    record: more.words(RECORD),
    sums: more.doubles(2 * nodes).byteOffset,
  }));
  all.forEach(({ record }, k) => (places[k] = record.byteOffset));

  const layOne = ({ core, room, detail }: Piece, slot: number): Tile => {
    const tile = tiles.lay(slot, room.width, room.height);
    const { values, unknown, grid, stride } = tile;
    tile.detail.set([detail.strength, detail.softest, detail.half]);
    const told = intersect(grow(core, BESIDE), toldIn(room));
    const { record, sums } = all[slot]!;
    record.set([
      ...[room, told, core].flatMap(({ x, y, width, height }) => [x, y, width, height]),
      ...[stride, values.length / LANES, values.byteOffset, unknown.byteOffset, grid.byteOffset],
      sums,
    ]);
    return tile;
  };
  const { record, colour, run } = copies;
  const rangesFor = (pieces: readonly Piece[]) => pieces.map((_, k): Range => [k, k + 1]);
  const lay = (pieces: readonly Piece[]): Tile[] => {
    const laid = pieces.map(layOne);
    run('layPieces', [record, colour, still, depths, places, SQUARE, UNLIKE], rangesFor(pieces));
    return laid;
  };
  return {
    lay,
    settle: (pieces, share, white) => {
      lay(pieces);
      bring(tiles, pieces.length, { share, white, crew });
      run('takeOver', [record, colour, still, places], rangesFor(pieces));
    },
  };
}

/** Where cells of a tile are foretold: one told from too few could come to anything, at its edges what was copied stays. */
function toldIn({ x, y, width, height }: Rect): Rect {
  return { x: x + REACH, y: y + REACH, width: width - 2 * REACH, height: height - REACH };
}
