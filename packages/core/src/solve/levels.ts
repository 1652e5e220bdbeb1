import type { Arena } from '../wasm/arena.js';
import { openArena } from '../wasm/arena.js';
import { SOLVE_KERNEL } from './solve-kernel.js';
import type { System } from './system.js';

/** Functions of kernels/solve.ts. Addresses in bytes; a level is named by the address of its row of words. */
export interface SolveKernel {
  prepare(levels: number, count: number): void;
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

/** Levels with no more cells are solved by relaxation alone. */
const SMALLEST = 64;
const LEVEL_WORDS = 16;
const MOST_LEVELS = 20;
const ARRAYS_PER_LEVEL = 10;

/** Lays a system out for the kernel, with all coarser ones. Good until the next one is laid out. */
export function layOut(system: System): Levels {
  const sizes = sizesOf(system);
  let bytes = MOST_LEVELS * LEVEL_WORDS * 4 + 64;
  for (const { cells } of sizes) bytes += cells * (1 + 5 * 4 + 3 * 16 + 4) + 4;
  bytes += sizes[0]!.cells * 3 * 16;
  const arena = openArena<SolveKernel>(SOLVE_KERNEL, bytes, sizes.length * ARRAYS_PER_LEVEL + 8, {
    once: true,
  });
  const table = arena.words(MOST_LEVELS * LEVEL_WORDS);
  const vectors = sizes.map((size, k) => layOutLevel(arena, table, k, size));
  const first = vectors[0]!;
  first.unknown.set(system.unknown);
  first.right.set(system.right);
  first.below.set(system.below);
  first.own.set(system.own);
  const at = table.byteOffset;
  arena.kernel.prepare(at, sizes.length);
  const vector = (): Float32Array => arena.floats(system.cells * LANES);
  return {
    kernel: arena.kernel,
    at,
    count: sizes.length,
    b: first.b,
    z: first.x,
    x: vector(),
    p: vector(),
    q: vector(),
    shares: arena.floats(LANES),
    sums: arena.doubles(LANES),
  };
}

interface Size {
  readonly stride: number;
  readonly rows: number;
  readonly cells: number;
}

function sizesOf(system: System): Size[] {
  const { stride, cells } = system;
  const sizes: Size[] = [{ stride, rows: cells / stride, cells }];
  while (sizes.at(-1)!.cells > SMALLEST) {
    const fine = sizes.at(-1)!;
    const wide = ((fine.stride - 1) >> 1) + 2;
    const rows = ((fine.rows - 1) >> 1) + 2;
    if (wide * rows >= fine.cells) break;
    sizes.push({ stride: wide, rows, cells: wide * rows });
  }
  return sizes;
}

function layOutLevel(
  arena: Arena<SolveKernel>,
  table: Int32Array,
  k: number,
  { stride, rows, cells }: Size,
) {
  const level = {
    unknown: arena.bytes(cells),
    right: arena.floats(cells),
    below: arena.floats(cells),
    own: arena.floats(cells),
    diagonal: arena.floats(cells),
    inverse: arena.floats(cells),
    x: arena.floats(cells * LANES),
    b: arena.floats(cells * LANES),
    r: arena.floats(cells * LANES),
    runs: arena.words(cells + 1),
  };
  const addresses = Object.values(level).map((array) => array.byteOffset);
  table.set([stride, rows, ...addresses], k * LEVEL_WORDS);
  return level;
}
