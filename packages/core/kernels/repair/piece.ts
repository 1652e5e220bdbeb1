// Pieces of the picture as mended so far, laid into tiles and taken out again: see src/repair/pieces.ts.

import { Copies, putValue, sample, source, value } from './memory';
import { addMisfit, tellMisfit } from './misfit';

/** Values a cell of a tile holds. */
const LANES: i32 = 4;

/** A piece and the tile it is laid into. */
@unmanaged
class Piece {
  x: i32;
  y: i32;
  width: i32;
  height: i32;
  /** Where open pixels are foretold. */
  toldLeft: i32;
  toldTop: i32;
  toldWidth: i32;
  toldHeight: i32;
  /** What is taken out. */
  left: i32;
  top: i32;
  across: i32;
  down: i32;
  /** Of the tile: cells in a row, and its arrays. */
  stride: i32;
  cells: i32;
  values: usize;
  unknown: usize;
  /** Becomes how far cells are to go over, at the middles of squares. */
  grid: usize;
  /** Room for two doubles a square. */
  sums: usize;
}

@inline
function pieceOf(pieces: usize, k: i32): Piece {
  return changetype<Piece>(<usize>load<u32>(pieces + (<usize>k << 2)));
}

/** How deep a site is, by squares of so many px and those round them: see src/repair/narrowness.ts. */
@unmanaged
export class Depths {
  side: i32;
  wide: i32;
  high: i32;
  /** Depth up to which a site is narrow; one of a square's side is deep. */
  narrow: i32;
  deepest: usize;
}

/**
 * Lays pieces of a range into their tiles, and tells how far their cells are to go over: the narrower the site and the less
 * the copied fits, the farther.
 * @param open 1 = still to be settled, a byte a pixel @param square side of the squares that weights are told in
 * @param unlike misfit from which on what was copied counts for no more than that
 */
@inline
export function layPiecesOf<T, V>(
  copies: Copies,
  colour: usize,
  open: usize,
  depths: Depths,
  pieces: usize,
  square: i32,
  unlike: f64,
  from: i32,
  to: i32,
): void {
  for (let k = from; k < to; k++) {
    const piece = pieceOf(pieces, k);
    const wide = (piece.width + square - 1) / square + 2;
    const high = (piece.height + square - 1) / square + 2;
    layValues<T, V>(copies, colour, piece);
    layUnknown(copies, open, piece);
    memory.fill(piece.sums, 0, <usize>(wide * high) << 4);
    addMisfit<T>(copies, piece.x, piece.y, piece.width, piece.height, square, wide, piece.sums);
    tellNarrowness(copies, depths, piece, square, wide, high);
    tellMisfit(piece.sums, wide, high, unlike, piece.grid);
  }
}

/** How narrow the site is at the middles of squares, 0..1; places beyond the picture are as its nearest ones. */
function tellNarrowness(
  copies: Copies,
  depths: Depths,
  piece: Piece,
  square: i32,
  wide: i32,
  high: i32,
): void {
  const side = depths.side;
  let to = piece.grid;
  for (let j = 0; j < high; j++) {
    const v = min(copies.height - 1, max(0, piece.y + (2 * j - 1) * square / 2)) / side;
    for (let i = 0; i < wide; i++, to += 4) {
      const u = min(copies.width - 1, max(0, piece.x + (2 * i - 1) * square / 2)) / side;
      const depth = <f64>load<f32>(depths.deepest + (<usize>(v * depths.wide + u) << 2));
      const narrow = (<f64>side - depth) / <f64>(side - depths.narrow);
      store<f32>(to, <f32>min<f64>(1, max<f64>(0, narrow)));
    }
  }
}

@inline
function layValues<T, V>(copies: Copies, colour: usize, piece: Piece): void {
  const channels = copies.channels;
  const colours = copies.colours;
  memory.fill(piece.values, 0, <usize>piece.cells << 4);
  for (let y = 0; y < piece.height; y++) {
    const first = (piece.y + y) * copies.width + piece.x;
    let at = piece.values + (<usize>(y * piece.stride) << 4);
    for (let p = first; p < first + piece.width; p++, at += 16) {
      const i = p * channels;
      if (source(copies.from, p) < 0)
        for (let c = 0; c < colours; c++) putValue<f32>(at, c, sample<T>(copies.samples, i + c));
      else for (let c = 0; c < colours; c++) putValue<f32>(at, c, value<V>(colour, i + c));
    }
  }
}

function layUnknown(copies: Copies, open: usize, piece: Piece): void {
  memory.fill(piece.unknown, 0, piece.cells);
  if (piece.toldWidth <= 0) return;
  for (let y = piece.toldTop; y < piece.toldTop + piece.toldHeight; y++)
    memory.copy(
      piece.unknown + <usize>((y - piece.y) * piece.stride + piece.toldLeft - piece.x),
      open + <usize>(y * copies.width + piece.toldLeft),
      piece.toldWidth,
    );
}

/** Takes the open pixels of pieces out of their tiles: they are settled. */
@inline
export function takeOverOf<V>(
  copies: Copies,
  colour: usize,
  open: usize,
  pieces: usize,
  from: i32,
  to: i32,
): void {
  for (let k = from; k < to; k++) {
    const piece = pieceOf(pieces, k);
    for (let y = piece.top; y < piece.top + piece.down; y++) {
      const first = y * copies.width + piece.left;
      let i = LANES * ((y - piece.y) * piece.stride + piece.left - piece.x);
      for (let p = first; p < first + piece.across; p++, i += LANES) {
        if (!load<u8>(open + p)) continue;
        for (let c = 0; c < copies.colours; c++)
          putValue<V>(colour, p * copies.channels + c, value<f32>(piece.values, i + c));
        store<u8>(open + p, 0);
      }
    }
  }
}
