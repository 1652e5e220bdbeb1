import type { Cells } from '../cells.js';
import type { Raster } from '../raster.js';
import { colourChannels } from '../raster.js';

/** Twin of cells in kernels/raster. */
export function cellsPlainly(
  { width, height, channels, data }: Raster,
  closed: Uint8Array,
  cell: number,
): Cells {
  const [green, blue] = colourChannels(channels) === 3 ? [1, 2] : [0, 0];
  const [columns, rows] = [Math.ceil(width / cell), Math.ceil(height / cell)];
  const sums = new Float64Array(5 * columns * rows);
  for (let p = 0; p < width * height; p++) {
    if (closed[p]) continue;
    const [x, y] = [p % width, Math.floor(p / width)];
    const out = 5 * (Math.floor(y / cell) * columns + Math.floor(x / cell));
    const i = p * channels;
    sums[out]! += 1;
    sums[out + 1]! += data[i]!;
    sums[out + 2]! += data[i + green]!;
    sums[out + 3]! += data[i + blue]!;
    if (x < width - 1) sums[out + 4]! += Math.abs(data[i]! - data[i + channels]!);
  }
  return { cell, columns, rows, sums };
}
