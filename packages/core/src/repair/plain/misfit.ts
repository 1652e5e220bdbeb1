import { nodesAlong, SQUARE } from '../../predict/tile.js';
import type { Raster } from '../../raster/raster.js';
import { colourChannels } from '../../raster/raster.js';
import type { Rect } from '../../raster/rect.js';

/** Sums of the squared differences of steps, and of their squares, a value a square. */
export interface Sums {
  readonly unlike: Float64Array;
  readonly steps: Float64Array;
}

/** Twin of addMisfit in kernels/repair: adds up for every site pixel at the rim how much the steps beyond it, outwards and along, differ, and how much there is of them. */
export function addMisfitPlainly(picture: Raster, from: Int32Array, piece: Rect, sums: Sums): void {
  const wide = nodesAlong(piece.width);
  for (let y = 0; y < piece.height; y++)
    for (let x = 0; x < piece.width; x++) {
      const p = (piece.y + y) * picture.width + piece.x + x;
      if (from[p]! < 0) continue;
      const node = (Math.floor(y / SQUARE) + 1) * wide + Math.floor(x / SQUARE) + 1;
      for (let side = 0; side < 4; side++) {
        const down = side > 1 ? 2 * side - 5 : 0;
        const right = side > 1 ? 0 : 2 * side - 1;
        if (from[p + right + down * picture.width]! < 0)
          compareBeyond(picture, from, p, right, down, sums, node);
      }
    }
}

/** Compares the steps beyond one side of a site pixel with those beside its source, where they are known. */
function compareBeyond(
  picture: Raster,
  from: Int32Array,
  p: number,
  right: number,
  down: number,
  sums: Sums,
  node: number,
): void {
  const { width } = picture;
  const out = right + down * width;
  const along = down === 0 ? width : 1;
  if (!areKnown(picture, from, p, right, down)) return;
  if (areKnown(picture, from, p, 2 * right, 2 * down))
    compare(picture, p + out, from[p]! + out, out, sums, node);
  if (areKnown(picture, from, p, right || 1, down || 1))
    compare(picture, p + out, from[p]! + out, along, sums, node);
}

/** Whether what lies so far from a pixel and from its source is in the picture and outside the site. */
function areKnown(
  picture: Raster,
  from: Int32Array,
  p: number,
  right: number,
  down: number,
): boolean {
  return isKnown(picture, from, p, right, down) && isKnown(picture, from, from[p]!, right, down);
}

function isKnown(
  { width, height }: Raster,
  from: Int32Array,
  p: number,
  right: number,
  down: number,
): boolean {
  const x = (p % width) + right;
  const q = p + right + down * width;
  return x >= 0 && x < width && q >= 0 && q < width * height && from[q]! < 0;
}

/** Compares the step from a pixel with that from another. */
function compare(
  { channels, data }: Raster,
  here: number,
  there: number,
  step: number,
  { unlike, steps }: Sums,
  node: number,
): void {
  const by = step * channels;
  const end = here * channels + colourChannels(channels);
  for (let i = here * channels, j = there * channels; i < end; i++, j++) {
    const [a, b] = [data[i + by]! - data[i]!, data[j + by]! - data[j]!];
    unlike[node]! += (a - b) * (a - b);
    steps[node]! += a * a + b * b;
  }
}
