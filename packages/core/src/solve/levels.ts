import type { Arena, Room, Stretch } from '../wasm/arena.js';
import { ALIGN, openArena, stretchOf, zero } from '../wasm/arena.js';
import { SOLVE_KERNEL } from './solve-kernel.js';
import type { System } from './system.js';

/** Functions of kernels/solve.ts that one thread runs. Addresses in bytes; a level is named by the address of its row of words. */
export interface SolveKernel {
  number(levels: number, count: number, map: number): void;
  weigh(levels: number, count: number): void;
  cycle(level: number, left: number): void;
}

/** Values a cell holds: one for each of four right-hand sides. */
export const LANES = 4;

/** A system and its coarser grids in a kernel's memory, finest first, and the vectors conjugate gradients work with. */
export interface Levels {
  readonly kernel: SolveKernel;
  readonly room: Room;
  /** Addresses of the levels. */
  readonly at: readonly number[];
  /** What the first level says: to be filled in, all of it zeros, before the others are made from it. */
  readonly system: System;
  /** Makes the other levels from where the first one's cells lie. */
  number(): void;
  /** How many rows are done with what comes before a stage of a cycle, level by level. */
  readonly marks: Int32Array;
  /** Right-hand side, then residual; four values a cell. */
  readonly b: Float32Array;
  /** What a cycle answers. */
  readonly z: Float32Array;
  readonly x: Float32Array;
  readonly p: Float32Array;
  readonly q: Float32Array;
  /** One number a right-hand side, to the kernel. */
  readonly shares: Float32Array;
  /** Four numbers a range, from the kernel. */
  readonly sums: Float64Array;
}

/** A system's window, px, and how many cells and runs it has at most. */
export interface Size {
  readonly width: number;
  readonly height: number;
  readonly cells: number;
  readonly runs: number;
}

/** Memory that systems are laid out in, one after the other. */
export interface LevelRoom {
  /** An empty system, no larger than the room was opened for. Good until the next one is laid out. */
  lay(size: Size): Levels;
}

/** Levels of no larger windows are solved by relaxation alone, px with a frame round them. */
const SMALLEST = 64;
const LEVEL_WORDS = 20;
const MOST_LEVELS = 20;
const ARRAYS_PER_LEVEL = 13;
/** Words of a level's marks: lines of caches apart from one another, one a stage. */
const MARK_WORDS = 32 * 6;
/** Doubles that ranges add up in. */
const SUMS = 4 * 16;

/** Opens room for systems of these sizes. @param arena whose memory is to be used @default a new one */
export function openLevels(sizes: readonly Size[], arena?: Arena<unknown>): LevelRoom {
  const most = Math.max(...sizes.map(bytesOf));
  if (arena) {
    const { kernel, room } = arena.join<SolveKernel>(SOLVE_KERNEL);
    const begin = arena.more(most, 1).bytes(most).byteOffset;
    let used = 0;
    const lay = (size: Size): Levels => {
      const bytes = bytesOf(size);
      const { buffer } = room.memory;
      zero(buffer, begin, begin + Math.min(used, bytes));
      used = Math.max(used, bytes);
      return layLevels(size, kernel, room, stretchOf(buffer, begin));
    };
    return { lay };
  }
  const lay = (size: Size): Levels => {
    const own = openArena<SolveKernel>(SOLVE_KERNEL, bytesOf(size), 0, {
      once: true,
      shared: true,
    });
    return layLevels(size, own.kernel, own.room, own);
  };
  return { lay };
}

/** Lays a system out by itself, with all coarser levels. */
export function layOut(system: System): Levels {
  const { width, height, cells, runs } = system;
  const size = { width, height, cells, runs: runs.length / 2 };
  const levels = openLevels([size]).lay(size);
  const { system: first } = levels;
  for (const name of ['runs', 'above', 'under', 'right', 'below', 'own'] as const)
    first[name].set(system[name]);
  levels.number();
  return levels;
}

/** Windows of a system's levels, and how many cells they have at most. */
function sizesOf(first: Size): Size[] {
  const sizes = [first];
  for (let fine = first; (fine.width + 2) * (fine.height + 2) > SMALLEST;) {
    const [wide, high] = [(fine.width + 1) >> 1, (fine.height + 1) >> 1];
    if (wide === fine.width && high === fine.height) break;
    const cells = Math.min(fine.cells, wide * high + 1);
    fine = { width: wide, height: high, cells, runs: cells };
    sizes.push(fine);
  }
  return sizes;
}

/** Neighbours, weights, answer, right-hand side and parents. */
const BYTES_A_CELL = 8 + 20 + 32 + 16;

function bytesOf(size: Size): number {
  const sizes = sizesOf(size);
  let bytes = 4 * (MOST_LEVELS * (LEVEL_WORDS + MARK_WORDS) + LANES) + 8 * SUMS + 4 * mapOf(sizes);
  for (const { cells, runs, height } of sizes)
    bytes += (cells + 1) * BYTES_A_CELL + 12 * (runs + 1) + 4 * (height + 1);
  return bytes + 3 * 16 * (size.cells + 1) + ALIGN * (sizes.length * ARRAYS_PER_LEVEL + 8);
}

/** Pixels of the second level's window. */
function mapOf([, second]: readonly Size[]): number {
  return second ? second.width * second.height : 0;
}

/** Where a level's counts of cells and runs stand. */
const CELLS_WORD = 2;

function layLevels(size: Size, kernel: SolveKernel, room: Room, stretch: Stretch): Levels {
  const sizes = sizesOf(size);
  const table = stretch.words(MOST_LEVELS * LEVEL_WORDS);
  const marks = stretch.words(MOST_LEVELS * MARK_WORDS);
  const vectors = sizes.map((level, k) => {
    const laid = layLevel(stretch, level);
    const addresses = Object.values(laid).map((array) => array.byteOffset);
    addresses.push(marks.byteOffset + 4 * k * MARK_WORDS);
    table.set([level.width, level.height, 0, 0, ...addresses], k * LEVEL_WORDS);
    return laid;
  });
  const map = stretch.words(mapOf(sizes)).byteOffset;
  const first = vectors[0]!;
  const { width, height, cells, runs } = size;
  const vector = (): Float32Array => stretch.floats((cells + 1) * LANES);
  const values = (array: Float32Array): Float32Array => array.subarray(0, cells * LANES);
  const of = <A extends Int32Array | Float32Array>(array: A): A => array.subarray(0, cells) as A;
  return {
    kernel,
    room,
    at: sizes.map((_, k) => table.byteOffset + 4 * k * LEVEL_WORDS),
    system: {
      width,
      height,
      cells,
      runs: first.pixels.subarray(0, 2 * runs),
      above: of(first.above),
      under: of(first.under),
      right: of(first.right),
      below: of(first.below),
      own: of(first.own),
    },
    number: () => {
      table.set([cells, runs], CELLS_WORD);
      kernel.number(table.byteOffset, sizes.length, map);
    },
    marks,
    b: values(first.b),
    z: values(first.x),
    x: values(vector()),
    p: values(vector()),
    q: values(vector()),
    shares: stretch.floats(LANES),
    sums: stretch.doubles(SUMS),
  };
}

function layLevel(stretch: Stretch, { cells, runs, height }: Size) {
  // Of its last cell, too, the kernel reads the next one.
  const all = cells + 1;
  return {
    pixels: stretch.words(2 * (runs + 1)),
    starts: stretch.words(runs + 1),
    above: stretch.words(all),
    under: stretch.words(all),
    right: stretch.floats(all),
    below: stretch.floats(all),
    own: stretch.floats(all),
    diagonal: stretch.floats(all),
    inverse: stretch.floats(all),
    x: stretch.floats(all * LANES),
    b: stretch.floats(all * LANES),
    parents: stretch.words(all * 4),
    rows: stretch.words(height + 1),
  };
}
