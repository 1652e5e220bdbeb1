import { BEFORE, REACH } from './half-plane.js';
import type { Tile } from './tile.js';
import { BLOCK } from './tile.js';

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
  const { kernel, grey, sound, across, down, wanted, offsets, told, tellers } = tile;
  const { matrix, work, taps, unknown } = tile;
  kernel.greyAndSound(
    tile.values.byteOffset,
    unknown.byteOffset,
    tile.width,
    tile.height,
    tile.stride,
    REACH,
    offsets.byteOffset,
    offsets.length,
    unknown.length,
    grey.byteOffset,
    sound.byteOffset,
  );
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
