import type { Arena, Room, Stretch } from '../wasm/arena.js';
import { ALIGN, openArena, stretchOf } from '../wasm/arena.js';
import { BEFORE } from './half-plane.js';
import { PREDICT_KERNEL } from './predict-kernel.js';
import type { PredictKernel } from './kernel.js';

/** Values a cell holds: up to three colours. */
export const LANES = 4;
/** Side of the blocks that have a filter each, cells. */
export const BLOCK = 16;
/** Side of the blocks that detail is measured in, cells; a block's side is a multiple. */
export const DETAIL = 8;
/** Side of the squares that weights are told in, cells. */
export const SQUARE = 8;
/** Products of two neighbours' steps: a lower triangle. */
const PRODUCTS = (BEFORE.length * (BEFORE.length + 1)) / 2;

/** A piece of a picture in a kernel's memory, its sides made up to whole blocks. */
export interface Tile {
  readonly kernel: PredictKernel;
  /** Of the picture's piece, px. */
  readonly width: number;
  readonly height: number;
  /** Cells in a row, and blocks across and down. */
  readonly stride: number;
  readonly across: number;
  readonly down: number;
  /** Four values a cell, on any scale. */
  readonly values: Float32Array;
  /** 1 = to be foretold, a byte a cell. */
  readonly unknown: Uint8Array;
  /** Cells from a cell to each of its neighbours. */
  readonly offsets: Int32Array;
  /** Sizes and addresses, for the kernel. */
  readonly record: Int32Array;
  /** Mean of the lanes, and 1 where a cell and all its neighbours are known. */
  readonly grey: Float32Array;
  readonly sound: Float32Array;
  /** Blocks whose filter is wanted, a byte each; what was told of each, how many cells did, and its filter. */
  readonly wanted: Uint8Array;
  readonly told: Float32Array;
  readonly tellers: Float32Array;
  readonly taps: Float32Array;
  /** Stretches of cells with one filter, three words each; runs of unknowns, two words each. */
  readonly stretches: Int32Array;
  readonly runs: Int32Array;
  /** Room for the kernel: matrix, floats, and four values a cell four times. */
  readonly matrix: Float64Array;
  readonly work: Float32Array;
  readonly missed: Float32Array;
  readonly rest: Float32Array;
  readonly way: Float32Array;
  readonly answer: Float32Array;
  /** The values as they were. */
  readonly before: Float32Array;
  /** Room for a byte a cell, zeros. */
  readonly touched: Uint8Array;
  /** How far cells are to go over to what is foretold, told at the middles of squares, and how far each has, 0..1. */
  readonly grid: Float32Array;
  readonly weights: Float32Array;
  /** Blocks of detail near what is unknown, a byte each; what they are to show, do show, and what that makes. */
  readonly near: Uint8Array;
  readonly wantedDetail: Float32Array;
  readonly shownDetail: Float32Array;
  readonly gains: Float32Array;
}

/** Memory for some tiles at once. */
export interface TileRoom {
  readonly room: Room;
  readonly kernel: PredictKernel;
  /** Addresses of the tiles' records, for the kernel. */
  readonly records: Int32Array;
  /** An empty tile, no larger than the room was opened for. Good until the next one is laid there. */
  lay(slot: number, width: number, height: number): Tile;
}

/** Opens room for so many tiles of up to this size. */
export function openTiles(width: number, height: number, slots: number): TileRoom {
  const size = bytesOf(sizesOf(width, height));
  const arena: Arena<PredictKernel> = openArena(
    PREDICT_KERNEL,
    slots * (size + 4 * RECORD) + 4 * slots + 4 * BEFORE.length,
    2 * slots + 2,
    { shared: true },
  );
  const records = arena.words(slots);
  const all = Array.from({ length: slots }, () => ({
    record: arena.words(RECORD),
    bytes: arena.bytes(size),
  }));
  all.forEach(({ record }, k) => (records[k] = record.byteOffset));
  return {
    room: arena.room,
    kernel: arena.kernel,
    records,
    lay: (slot, wide, high) => {
      const { record, bytes } = all[slot]!;
      const sizes = sizesOf(wide, high);
      arena.kernel.blank(bytes.byteOffset, bytesOf(sizes));
      return layTile(
        record,
        stretchOf(arena.room.memory.buffer, bytes.byteOffset),
        sizes,
        arena.kernel,
      );
    },
  };
}

/** Words of a tile's record: seven sizes and eighteen addresses. */
const RECORD = 25;

/** How many of what a tile takes. */
interface Sizes {
  readonly width: number;
  readonly height: number;
  readonly stride: number;
  readonly across: number;
  readonly down: number;
  readonly cells: number;
  readonly blocks: number;
  readonly details: number;
  readonly nodes: number;
  /** Floats of a filter's working room. */
  readonly room: number;
  /** Words of stretches: at worst every other cell begins one. */
  readonly stretches: number;
}

function sizesOf(width: number, height: number): Sizes {
  const across = Math.ceil(width / BLOCK);
  const down = Math.ceil(height / BLOCK);
  const stride = across * BLOCK;
  const cells = stride * down * BLOCK;
  const blocks = across * down;
  return {
    width,
    height,
    stride,
    across,
    down,
    cells,
    blocks,
    details: cells / DETAIL ** 2,
    nodes: nodesAlong(width) * nodesAlong(height),
    room: LANES * (BEFORE.length + PRODUCTS),
    stretches: 3 * (cells / 2 + blocks * BLOCK),
  };
}

const TILE_ARRAYS = 24;

function bytesOf({ cells, blocks, details, nodes, room, stretches }: Sizes): number {
  const count = BEFORE.length;
  const words = stretches + cells + 2 + count;
  const floats =
    cells * (6 * LANES + 3) + room + blocks * (PRODUCTS + 1 + count) + 3 * details + nodes;
  return 4 * (floats + words) + 2 * cells + blocks + details + 8 * PRODUCTS + TILE_ARRAYS * ALIGN;
}

function layTile(record: Int32Array, stretch: Stretch, sizes: Sizes, kernel: PredictKernel): Tile {
  const { width, height, stride, across, down, cells, blocks, details } = sizes;
  const offsets = stretch.words(BEFORE.length);
  offsets.set(BEFORE.map(([x, y]) => y * stride + x));
  const lanes = (): Float32Array => stretch.floats(cells * LANES);
  const tile: Tile = {
    kernel,
    width,
    height,
    stride,
    across,
    down,
    offsets,
    record,
    unknown: stretch.bytes(cells),
    values: lanes(),
    grey: stretch.floats(cells),
    sound: stretch.floats(cells),
    wanted: stretch.bytes(blocks),
    told: stretch.floats(blocks * PRODUCTS),
    tellers: stretch.floats(blocks),
    taps: stretch.floats(blocks * BEFORE.length),
    stretches: stretch.words(sizes.stretches),
    runs: stretch.words(cells + 2),
    matrix: stretch.doubles(PRODUCTS),
    work: stretch.floats(sizes.room),
    missed: lanes(),
    rest: lanes(),
    way: lanes(),
    answer: lanes(),
    before: lanes(),
    touched: stretch.bytes(cells),
    grid: stretch.floats(sizes.nodes),
    weights: stretch.floats(cells),
    near: stretch.bytes(details),
    wantedDetail: stretch.floats(details),
    shownDetail: stretch.floats(details),
    gains: stretch.floats(details),
  };
  record.set([width, height, stride, across, down, cells, 0]);
  const arrays: readonly { readonly byteOffset: number }[] = [
    ...[tile.unknown, tile.touched, tile.values, tile.grey, tile.sound, tile.wanted],
    ...[tile.told, tile.tellers, tile.taps, tile.matrix, tile.work, tile.missed, tile.rest],
    ...[tile.way, tile.answer, tile.stretches, tile.runs, offsets],
  ];
  record.set(
    arrays.map((array) => array.byteOffset),
    FOUND + 1,
  );
  return tile;
}

/** The word of a record that tells how many runs of unknown cells were foretold. */
export const FOUND = 6;

/** Squares along so many cells, one more at either end. */
export function nodesAlong(cells: number): number {
  return Math.ceil(cells / SQUARE) + 2;
}
