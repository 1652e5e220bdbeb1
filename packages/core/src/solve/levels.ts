import type { Arena } from '../wasm/arena.js';
import { openArena } from '../wasm/arena.js';
import { SOLVE_KERNEL } from './solve-kernel.js';
import type { System } from './system.js';

/** Functions of kernels/solve.ts. Addresses in bytes; a level is named by the address of its row of words. */
export interface SolveKernel {
  prepare(levels: number, count: number, map: number): void;
  cycle(level: number, left: number): void;
  dot(level: number, a: number, c: number, out: number): void;
  advance(level: number, z: number, p: number, q: number, shares: number, out: number): void;
  step(
    level: number,
    x: number,
    p: number,
    b: number,
    q: number,
    shares: number,
    out: number,
  ): void;
}

/** Values a cell holds: one for each of four right-hand sides. */
export const LANES = 4;

/** The grids of a system in a kernel's memory, finest first, and the vectors conjugate gradients work with. */
export interface Levels {
  readonly kernel: SolveKernel;
  /** Address of the first level. */
  readonly at: number;
  readonly count: number;
  /** Right-hand side, then residual; four values a cell. */
  readonly b: Float32Array;
  /** What a cycle answers. */
  readonly z: Float32Array;
  readonly x: Float32Array;
  readonly p: Float32Array;
  readonly q: Float32Array;
  /** One number a right-hand side, to and from the kernel. */
  readonly shares: Float32Array;
  readonly sums: Float64Array;
}

/** Levels of no larger windows are solved by relaxation alone, px with a frame round them. */
const SMALLEST = 64;
const LEVEL_WORDS = 20;
const MOST_LEVELS = 20;
const ARRAYS_PER_LEVEL = 13;

/** Lays a system out for the kernel, with all coarser ones. Good until the next one is laid out. */
export function layOut(system: System): Levels {
  const sizes = sizesOf(system);
  const map = sizes[1] ? sizes[1].width * sizes[1].height : 0;
  let bytes = MOST_LEVELS * LEVEL_WORDS * 4 + 64 + 4 * map;
  for (const { cells, height } of sizes) bytes += (cells + 1) * BYTES_A_CELL + 4 * (height + 1);
  bytes += 3 * 16 * (system.cells + 1);
  const arena = openArena<SolveKernel>(SOLVE_KERNEL, bytes, sizes.length * ARRAYS_PER_LEVEL + 8, {
    once: true,
  });
  const table = arena.words(MOST_LEVELS * LEVEL_WORDS);
  const vectors = sizes.map((size, k) => layOutLevel(arena, table, k, size));
  const first = vectors[0]!;
  first.pixels.set(system.runs);
  table.set([system.cells, system.runs.length / 2], CELLS_WORD);
  first.above.set(system.above);
  first.under.set(system.under);
  first.right.set(system.right);
  first.below.set(system.below);
  first.own.set(system.own);
  const at = table.byteOffset;
  arena.kernel.prepare(at, sizes.length, arena.words(map).byteOffset);
  const vector = (): Float32Array => arena.floats((system.cells + 1) * LANES);
  const values = (array: Float32Array): Float32Array => array.subarray(0, system.cells * LANES);
  return {
    kernel: arena.kernel,
    at,
    count: sizes.length,
    b: values(first.b),
    z: values(first.x),
    x: values(vector()),
    p: values(vector()),
    q: values(vector()),
    shares: arena.floats(LANES),
    sums: arena.doubles(LANES),
  };
}

/** A level's window, and how many cells it has at most. */
interface Size {
  readonly width: number;
  readonly height: number;
  readonly cells: number;
}

function sizesOf({ width, height, cells }: System): Size[] {
  const sizes: Size[] = [{ width, height, cells }];
  for (let fine = sizes[0]!; (fine.width + 2) * (fine.height + 2) > SMALLEST;) {
    const [wide, high] = [(fine.width + 1) >> 1, (fine.height + 1) >> 1];
    if (wide === fine.width && high === fine.height) break;
    fine = { width: wide, height: high, cells: Math.min(fine.cells, wide * high + 1) };
    sizes.push(fine);
  }
  return sizes;
}

/** Where a level's count of cells stands. */
const CELLS_WORD = 2;
/** Runs, neighbours, weights, answer, right-hand side and parents. */
const BYTES_A_CELL = 12 + 8 + 20 + 32 + 16;

function layOutLevel(
  arena: Arena<SolveKernel>,
  table: Int32Array,
  k: number,
  { width, height, cells }: Size,
) {
  // Of its last cell, too, the kernel reads the next one.
  const all = cells + 1;
  const level = {
    pixels: arena.words(2 * all),
    starts: arena.words(all),
    above: arena.words(all),
    under: arena.words(all),
    right: arena.floats(all),
    below: arena.floats(all),
    own: arena.floats(all),
    diagonal: arena.floats(all),
    inverse: arena.floats(all),
    x: arena.floats(all * LANES),
    b: arena.floats(all * LANES),
    parents: arena.words(all * 4),
    rows: arena.words(height + 1),
  };
  const addresses = Object.values(level).map((array) => array.byteOffset);
  table.set([width, height, 0, 0, ...addresses], k * LEVEL_WORDS);
  return level;
}
