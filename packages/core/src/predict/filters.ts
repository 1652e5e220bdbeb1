import { BEFORE, REACH } from './half-plane.js';
import type { Tile } from './tile.js';
import { BLOCK, LANES } from './tile.js';

/** Cells that tell a filter, at least. */
const LEAST_TOLD = 3 * BEFORE.length;
/** Evenness asked of a filter, as a share of the mean square of a step: near-flat ground tells no filter apart. */
const RIDGE = 0.01;

/**
 * Filters that foretell a cell from its {@link BEFORE neighbours}, for the blocks that are wanted: those of least
 * squared error over the known cells in and round a block, their taps adding up to 1, so that even ground stays as it
 * is. The tile's `taps` become them. (Least-squares linear prediction; Jain, "Fundamentals of Digital Image
 * Processing", 1989, ch. 6.) With steps from the cell itself as what is multiplied, the error is the taps' own mean of
 * steps, so the taps of least a' M a are M's inverse on ones, scaled.
 * @returns whether the tile has enough known cells to tell any
 */
export function findFilters(tile: Tile): boolean {
  greyAndSound(tile);
  const { kernel, grey, sound, across, down, wanted, offsets, told, tellers } = tile;
  const { matrix, work, taps } = tile;
  return (
    kernel.filters(
      grey.byteOffset,
      sound.byteOffset,
      across,
      down,
      BLOCK,
      wanted.byteOffset,
      offsets.byteOffset,
      offsets.length,
      LEAST_TOLD,
      RIDGE,
      told.byteOffset,
      tellers.byteOffset,
      matrix.byteOffset,
      work.byteOffset,
      taps.byteOffset,
    ) === 1
  );
}

/** The mean over three lanes, and where a cell and all its neighbours are known. */
function greyAndSound(tile: Tile): void {
  const { width, height, stride, unknown, sound, offsets } = tile;
  for (let y = 0; y < height; y++) greyRow(tile, y);
  for (let y = REACH; y < height; y++)
    sound.fill(1, y * stride + REACH, y * stride + width - REACH);
  for (let i = unknown.indexOf(1); i >= 0; i = unknown.indexOf(1, i + 1))
    unsound(sound, i, offsets);
}

function greyRow({ width, stride, values, grey }: Tile, y: number): void {
  for (let i = y * stride, j = LANES * i; i < y * stride + width; i++, j += LANES)
    grey[i] = (values[j]! + values[j + 1]! + values[j + 2]!) * (1 / 3);
}

/** Cells that are foretold from an unknown one are not sound, nor is it. Those past the end are none. */
function unsound(sound: Float32Array, cell: number, offsets: Int32Array): void {
  sound[cell] = 0;
  for (let k = 0; k < offsets.length; k++) sound[cell - offsets[k]!] = 0;
}
