import { nodesAlong, SQUARE } from '../predict/tile.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';

/**
 * How little what lies beyond a site's rim is like what lies beside its copies' sources, place by place: the mean squared
 * difference of the steps there, beside the mean of their squares. 0 where the copied goes on exactly as the picture does,
 * about 1 where they have nothing to do with one another. Whatever the tones, since only steps are compared.
 * @param from for every pixel of the picture the one it is copied from, -1 outside the site
 * @returns the misfit of every {@link SQUARE square} of the piece and those round it, row by row, each told by itself and
 * its neighbours; 1 where no rim is near
 */
export function misfitIn(picture: Raster, from: Int32Array, piece: Rect): Float32Array {
  const wide = nodesAlong(piece.width);
  const high = nodesAlong(piece.height);
  const unlike = new Float64Array(wide * high);
  const steps = new Float64Array(wide * high);
  addUp(picture, from, piece, (x, y, different, whole) => {
    const at = (Math.floor(y / SQUARE) + 1) * wide + Math.floor(x / SQUARE) + 1;
    unlike[at]! += different;
    steps[at]! += whole;
  });
  const misfit = new Float32Array(wide * high).fill(1);
  for (let y = 1, at = wide; y < high - 1; y++, at += wide)
    for (let x = 1; x < wide - 1; x++) {
      let [different, whole] = [0, 0];
      for (let v = -wide; v <= wide; v += wide)
        for (let u = -1; u <= 1; u++) {
          different += unlike[at + v + x + u]!;
          whole += steps[at + v + x + u]!;
        }
      if (whole > 0) misfit[at + x] = Math.min(1, different / whole);
    }
  return misfit;
}

/** Whether the pixel that lies so far from one is in the picture and outside the site. */
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

/** Tells for every site pixel at the rim how much the steps beyond it, outwards and along, differ, and how much there is of them. */
function addUp(
  picture: Raster,
  from: Int32Array,
  piece: Rect,
  tell: (x: number, y: number, different: number, whole: number) => void,
): void {
  const { width, channels, data } = picture;
  const colours = colourChannels(channels);
  /** Compares the step from a pixel beyond the rim with that beside the source. */
  const compare = (p: number, s: number, out: number, step: number): void => {
    const by = step * channels;
    let [different, whole] = [0, 0];
    for (
      let c = 0, i = (p + out) * channels, j = (s + out) * channels;
      c < colours;
      c++, i++, j++
    ) {
      const here = data[i + by]! - data[i]!;
      const there = data[j + by]! - data[j]!;
      different += (here - there) * (here - there);
      whole += here * here + there * there;
    }
    tell((p % width) - piece.x, Math.floor(p / width) - piece.y, different, whole);
  };
  /** Whether what lies so far from a pixel and from its source is known. */
  const areKnown = (p: number, s: number, right: number, down: number): boolean =>
    isKnown(picture, from, p, right, down) && isKnown(picture, from, s, right, down);
  const compareBeyond = (p: number, s: number, right: number, down: number): void => {
    const out = right + down * width;
    if (from[p + out]! >= 0 || !areKnown(p, s, right, down)) return;
    if (areKnown(p, s, 2 * right, 2 * down)) compare(p, s, out, out);
    if (down === 0 && areKnown(p, s, right, 1)) compare(p, s, out, width);
    if (right === 0 && areKnown(p, s, 1, down)) compare(p, s, out, 1);
  };
  for (let y = piece.y; y < piece.y + piece.height; y++)
    for (let p = y * width + piece.x, end = p + piece.width; p < end; p++) {
      const s = from[p]!;
      if (s < 0) continue;
      compareBeyond(p, s, 1, 0);
      compareBeyond(p, s, -1, 0);
      compareBeyond(p, s, 0, 1);
      compareBeyond(p, s, 0, -1);
    }
}
