import type { Arena, Room, Stretch } from '../wasm/arena.js';
import { ALIGN, openArena, stretchOf } from '../wasm/arena.js';
import { BEFORE } from './half-plane.js';
import { PREDICT_KERNEL } from './predict-kernel.js';

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
  /** Of the picture's piece, px. */
  readonly width: number;
  readonly height: number;
  /** Cells in a row, and blocks across. */
  readonly stride: number;
  readonly across: number;
  /** Four values a cell, on any scale. */
  readonly values: Float32Array;
  /** 1 = to be foretold, a byte a cell. */
  readonly unknown: Uint8Array;
  /** How far cells are to go over to what is foretold, 0..1, told at the middles of {@link SQUARE squares}. */
  readonly grid: Float32Array;
  /** How strong detail is to become: strength, softest and half side. */
  readonly detail: Float64Array;
  /** Sizes and addresses, for the kernel. */
  readonly record: Int32Array;
  /** Every block's filter, as it was told last. */
  readonly taps: Float32Array;
}

/** Memory for some tiles at once. */
export interface TileRoom {
  readonly room: Room;
  /** Addresses of the tiles' records, for the kernel. */
  readonly records: Int32Array;
  /**
   * A tile, no larger than the room was opened for. Good until the next one is laid there; the first one's arrays are zeros,
   * others' are what they were.
   */
  lay(slot: number, width: number, height: number): Tile;
}

/** Opens room for so many tiles of up to this size. @param arena whose memory is to be used @default a new one */
export function openTiles(
  width: number,
  height: number,
  slots: number,
  arena?: Arena<unknown>,
): TileRoom {
  const size = bytesOf(sizesOf(width, height));
  const [bytes, arrays] = [slots * (size + 4 * RECORD) + 4 * slots, 2 * slots + 1];
  const own = arena ?? openArena<unknown>(PREDICT_KERNEL, bytes, arrays, { shared: true });
  const { room } = arena ? arena.join(PREDICT_KERNEL) : own;
  const stretch = arena ? arena.more(bytes, arrays) : own;
  const records = stretch.words(slots);
  const all = Array.from({ length: slots }, () => ({
    record: stretch.words(RECORD),
    begin: stretch.bytes(size).byteOffset,
  }));
  all.forEach(({ record }, k) => (records[k] = record.byteOffset));
  return {
    room,
    records,
    lay: (slot, wide, high) => {
      const { record, begin } = all[slot]!;
      return layTile(record, stretchOf(room.memory.buffer, begin), sizesOf(wide, high));
    },
  };
}

/** Words of a tile's record: seven sizes, the addresses of what is laid into it, and those of what is the kernel's own. */
const RECORD = 7 + 5 + 1 + 21;
/** The word of a record that tells how many runs of unknown cells were foretold. */
export const FOUND = 6;

/** How many of what a tile takes. */
interface Sizes {
  readonly width: number;
  readonly height: number;
  readonly stride: number;
  readonly across: number;
  readonly down: number;
  readonly cells: number;
  readonly blocks: number;
  readonly nodes: number;
}

function sizesOf(width: number, height: number): Sizes {
  const across = Math.ceil(width / BLOCK);
  const down = Math.ceil(height / BLOCK);
  const stride = across * BLOCK;
  const cells = stride * down * BLOCK;
  const nodes = nodesAlong(width) * nodesAlong(height);
  return { width, height, stride, across, down, cells, blocks: across * down, nodes };
}

/** Bytes of what is laid into a tile: offsets, unknown cells, values, grid and detail. */
function laidBytes({ cells, nodes }: Sizes): number[] {
  return [4 * BEFORE.length, cells, 4 * LANES * cells, 4 * nodes, 8 * 3];
}

/** Bytes of the arrays that are the kernel's own, as its record names them. */
function ownBytes({ cells, blocks }: Sizes): number[] {
  const lanes = 4 * LANES * cells;
  const detail = (4 * cells) / DETAIL ** 2;
  return [
    cells, // touched
    ...[4 * cells, 4 * cells], // grey, sound
    ...[blocks, 4 * blocks * PRODUCTS, 4 * blocks, 4 * blocks * BEFORE.length], // wanted, told, tellers, taps
    ...[8 * PRODUCTS, 4 * LANES * (BEFORE.length + PRODUCTS)], // matrix, work
    ...[lanes, lanes, lanes, lanes], // missed, rest, way, answer
    // At worst every other cell begins a stretch of cells with one filter, or a run of unknown ones.
    ...[4 * 3 * (cells / 2 + blocks * BLOCK), 4 * (cells + 2)],
    ...[lanes, 4 * cells], // before, weights
    ...[detail / 4, detail, detail, detail], // near, detail wanted and shown, gains
  ];
}
/** Where taps are among them. */
const TAPS = 6;

function bytesOf(sizes: Sizes): number {
  return [...laidBytes(sizes), ...ownBytes(sizes)].reduce((sum, bytes) => sum + bytes + ALIGN, 0);
}

function layTile(record: Int32Array, stretch: Stretch, sizes: Sizes): Tile {
  const { width, height, stride, across, down, cells } = sizes;
  const offsets = stretch.words(BEFORE.length);
  const unknown = stretch.bytes(cells);
  const values = stretch.floats(cells * LANES);
  const grid = stretch.floats(sizes.nodes);
  const detail = stretch.doubles(3);
  const own = ownBytes(sizes).map((bytes) => stretch.bytes(bytes).byteOffset);
  const [first, last] = [own[0]!, stretch.bytes(0).byteOffset];
  offsets.set(BEFORE.map(([x, y]) => y * stride + x));
  record.set([width, height, stride, across, down, cells, 0]);
  const laid = [offsets, unknown, values, grid, detail].map((array) => array.byteOffset);
  record.set([...laid, last - first, ...own], FOUND + 1);
  const taps = new Float32Array(values.buffer, own[TAPS]!, sizes.blocks * BEFORE.length);
  return { width, height, stride, across, values, unknown, grid, detail, record, taps };
}

/** Squares along so many cells, one more at either end. */
export function nodesAlong(cells: number): number {
  return Math.ceil(cells / SQUARE) + 2;
}
