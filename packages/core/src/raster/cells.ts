import type { Crew } from '../task/crew.js';
import { alone, rangesOf } from '../task/crew.js';
import { openArena } from '../wasm/arena.js';
import type { Kind } from '../wasm/kind.js';
import { kindOf } from '../wasm/kind.js';
import { RASTER_KERNEL } from './raster-kernel.js';
import type { Raster } from './raster.js';
import { colourChannels, sampleBytes } from './raster.js';

/** Functions of kernels/raster.ts; the address of a record there, and which rows of cells. */
type RasterKernel = Readonly<
  Record<`cells${Kind}`, (record: number, part: number, from: number, to: number) => void>
>;

/** Square cells over a picture, row by row; the first begins in its corner, the last of a row or column may be cut off. */
export interface Cells {
  /** px. */
  readonly cell: number;
  readonly columns: number;
  readonly rows: number;
  /** {@link SUMS} a cell: px that are open, sums of their red, green, blue, and of the steps of red to the next px. */
  readonly sums: Float64Array;
}

export const SUMS = 5;
/** Rows of cells that are looked at in one go. */
const ROWS = 8;
/** Words of the record that the kernel reads. */
const WORDS = 10;

/**
 * Sums over square cells of a picture; the same whatever the number of threads. Grey counts as all three colours.
 * @param closed 1 = not to be looked at, a value a pixel @param cell px
 */
export function cellsOf(
  picture: Raster,
  closed: Uint8Array,
  cell: number,
  crew: Crew = alone,
): Cells {
  const { width, height, channels, data } = picture;
  const [columns, rows] = [Math.ceil(width / cell), Math.ceil(height / cell)];
  const count = SUMS * columns * rows;
  const bytes = data.byteLength + closed.length + 8 * count + 4 * WORDS;
  const arena = openArena<RasterKernel>(RASTER_KERNEL, bytes, 4, { shared: true });
  const [samples, shut] = [arena.bytes(data.byteLength), arena.bytes(closed.length)];
  const [sums, record] = [arena.doubles(count), arena.words(WORDS)];
  samples.set(sampleBytes(data));
  shut.set(closed);
  const [green, blue] = colourChannels(channels) === 3 ? [1, 2] : [0, 0];
  const where = [samples.byteOffset, shut.byteOffset];
  record.set([...where, width, height, channels, green, blue, cell, columns, sums.byteOffset]);
  const name = `cells${kindOf(data.BYTES_PER_ELEMENT)}`;
  crew.run(arena.room, name, [record.byteOffset], rangesOf(rows, ROWS));
  return { cell, columns, rows, sums: sums.slice() };
}
