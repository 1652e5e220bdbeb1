import { nodesAlong, SQUARE } from '../predict/tile.js';
import type { Rect } from '../raster/rect.js';
import type { LaidCopies } from './laid-copies.js';

/**
 * How little what lies beyond a site's rim is like what lies beside its copies' sources, place by place: the mean squared
 * difference of the steps there, beside the mean of their squares. 0 where the copied goes on exactly as the picture does,
 * about 1 where they have nothing to do with one another. Whatever the tones, since only steps are compared.
 * @returns the misfit of every {@link SQUARE square} of the piece and those round it, row by row, each told by itself and
 * its neighbours; 1 where no rim is near
 */
export function misfitIn({ kernel, at, ...copies }: LaidCopies, piece: Rect): Float32Array {
  const wide = nodesAlong(piece.width);
  const high = nodesAlong(piece.height);
  const [unlike, steps] = [copies.unlike, copies.steps].map((sums) =>
    sums.subarray(0, wide * high).fill(0),
  ) as [Float64Array, Float64Array];
  const { x, y, width, height } = piece;
  kernel.misfit(at, x, y, width, height, SQUARE, wide, unlike.byteOffset, steps.byteOffset);
  const misfit = besides(unlike, wide, high);
  const whole = besides(steps, wide, high);
  for (let node = 0; node < misfit.length; node++)
    misfit[node] = whole[node]! > 0 ? Math.min(1, misfit[node]! / whole[node]!) : 1;
  return misfit;
}

/** Adds to every value those of the eight round it; most are 0. */
function besides(values: Float64Array, wide: number, high: number): Float32Array {
  const sums = new Float32Array(values.length);
  for (let y = 1; y < high - 1; y++)
    for (let at = y * wide + 1; at < (y + 1) * wide - 1; at++) {
      const value = values[at]!;
      if (value === 0) continue;
      for (let v = at - wide - 1; v <= at + wide - 1; v += wide) {
        sums[v]! += value;
        sums[v + 1]! += value;
        sums[v + 2]! += value;
      }
    }
  return sums;
}
