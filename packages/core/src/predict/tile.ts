import type { Arena } from '../wasm/arena.js';
import { openArena } from '../wasm/arena.js';
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

/** An empty tile. Good until the next one is laid out. */
export function layTile(width: number, height: number): Tile {
  const across = Math.ceil(width / BLOCK);
  const down = Math.ceil(height / BLOCK);
  const stride = across * BLOCK;
  const cells = stride * down * BLOCK;
  const count = BEFORE.length;
  const blocks = across * down;
  const details = cells / DETAIL ** 2;
  const nodes = nodesAlong(width) * nodesAlong(height);
  const room = LANES * (count + PRODUCTS);
  // Stretches and runs: at worst every other cell begins one.
  const stretchWords = 3 * (cells / 2 + blocks * BLOCK);
  const words = stretchWords + cells + 2 + count;
  const floats =
    cells * (6 * LANES + 3) + room + blocks * (PRODUCTS + 1 + count) + 3 * details + nodes;
  const arena: Arena<PredictKernel> = openArena(
    PREDICT_KERNEL,
    4 * (floats + words) + 2 * cells + blocks + details + 8 * PRODUCTS,
    24,
    { once: true },
  );
  const offsets = arena.words(count);
  offsets.set(BEFORE.map(([x, y]) => y * stride + x));
  const lanes = (): Float32Array => arena.floats(cells * LANES);
  return {
    kernel: arena.kernel,
    width,
    height,
    stride,
    across,
    down,
    offsets,
    unknown: arena.bytes(cells),
    values: lanes(),
    grey: arena.floats(cells),
    sound: arena.floats(cells),
    wanted: arena.bytes(blocks),
    told: arena.floats(blocks * PRODUCTS),
    tellers: arena.floats(blocks),
    taps: arena.floats(blocks * count),
    stretches: arena.words(stretchWords),
    runs: arena.words(cells + 2),
    matrix: arena.doubles(PRODUCTS),
    work: arena.floats(room),
    missed: lanes(),
    rest: lanes(),
    way: lanes(),
    answer: lanes(),
    before: lanes(),
    touched: arena.bytes(cells),
    grid: arena.floats(nodes),
    weights: arena.floats(cells),
    near: arena.bytes(details),
    wantedDetail: arena.floats(details),
    shownDetail: arena.floats(details),
    gains: arena.floats(details),
  };
}

/** Squares along so many cells, one more at either end. */
export function nodesAlong(cells: number): number {
  return Math.ceil(cells / SQUARE) + 2;
}
