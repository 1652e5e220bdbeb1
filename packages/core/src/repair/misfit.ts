import type { Raster } from '../raster/raster.js';
import { colourChannels } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';

const SIDES = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;
/** Side of the squares that misfit is told in, px; a place is told by its square and those round it. */
const SQUARE = 8;

/**
 * How little what lies beyond a site's rim is like what lies beside its copies' sources, place by place: the mean squared
 * difference of the steps there, beside the mean of their squares. 0 where the copied goes on exactly as the picture does,
 * about 1 where they have nothing to do with one another. Whatever the tones, since only steps are compared.
 * @param from for every pixel of the picture the one it is copied from, -1 outside the site
 * @returns the misfit at a pixel within the piece; 1 where no rim is near
 */
export function misfitIn(
  picture: Raster,
  from: Int32Array,
  piece: Rect,
): (x: number, y: number) => number {
  const wide = Math.ceil(piece.width / SQUARE) + 2;
  const high = Math.ceil(piece.height / SQUARE) + 2;
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
  return (x, y) => {
    const u = (x - piece.x + 0.5) / SQUARE + 0.5;
    const v = (y - piece.y + 0.5) / SQUARE + 0.5;
    const at = Math.floor(v) * wide + Math.floor(u);
    const [across, down] = [u - Math.floor(u), v - Math.floor(v)];
    const upper = misfit[at]! + across * (misfit[at + 1]! - misfit[at]!);
    const lower = misfit[at + wide]! + across * (misfit[at + wide + 1]! - misfit[at + wide]!);
    return upper + down * (lower - upper);
  };
}

/** Tells for every site pixel at the rim how much the steps beyond it, outwards and along, differ, and how much there is of them. */
function addUp(
  { width, height, channels, data }: Raster,
  from: Int32Array,
  piece: Rect,
  tell: (x: number, y: number, different: number, whole: number) => void,
): void {
  const colours = colourChannels(channels);
  /** Whether the pixel that lies so far from one is in the picture and outside the site. */
  const isKnown = (p: number, right: number, down: number): boolean => {
    const x = (p % width) + right;
    const q = p + right + down * width;
    return x >= 0 && x < width && q >= 0 && q < width * height && from[q]! < 0;
  };
  const step = (p: number, by: number, c: number): number =>
    data[(p + by) * channels + c]! - data[p * channels + c]!;
  for (let y = 0; y < piece.height; y++)
    for (let x = 0; x < piece.width; x++) {
      const p = (piece.y + y) * width + piece.x + x;
      const s = from[p]!;
      if (s < 0) continue;
      for (const [right, down] of SIDES) {
        if (!isKnown(p, right, down) || !isKnown(s, right, down)) continue;
        const out = right + down * width;
        for (const [u, v] of [
          [right, down],
          [Math.abs(down), Math.abs(right)],
        ] as const) {
          if (!isKnown(p, right + u, down + v) || !isKnown(s, right + u, down + v)) continue;
          let [different, whole] = [0, 0];
          for (let c = 0; c < colours; c++) {
            const here = step(p + out, u + v * width, c);
            const there = step(s + out, u + v * width, c);
            different += (here - there) * (here - there);
            whole += here * here + there * there;
          }
          tell(x, y, different, whole);
        }
      }
    }
}
