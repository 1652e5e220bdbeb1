import type { StraightLine } from '../find/straight-lines.js';
import { layerAt } from '../raster/layers.js';
import type { Plane } from '../raster/plane.js';
import { boxMean } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { leaningLines } from './lines.js';

/** What splices left of what is protected are chosen by; all of the halved picture. */
export interface Background {
  /** A plane a channel, with what changes slowly taken off; and that. */
  readonly detail: readonly Plane[];
  readonly slow: readonly Plane[];
  /** First protected column of every row. */
  readonly bars: Int32Array;
  /** Mean difference of ordinary neighbours. */
  readonly usual: number;
  /** Straight lines that a splice would break. */
  readonly lines: readonly StraightLine[];
}

/** Half the side of the squares that part what changes slowly from the detail, px of the halved picture. */
const SLOW = 10;

/** Measures a picture for stretching what lies left of what is protected. @param kept 1 = protected */
export function backgroundOf(picture: Raster, kept: Uint8Array): Background {
  const { grey, colours } = layerAt(picture, 1);
  const half = colours.length ? colours : [grey];
  const shut = shutOf(kept, picture.width, grey);
  const slow = slowOf(half, shut);
  const detail = half.map((plane, c) => ({
    ...plane,
    values: plane.values.map((v, p) => v - slow[c]!.values[p]!),
  }));
  return {
    detail,
    slow,
    bars: barsOf(shut, grey.width, grey.height),
    usual: usualStep(detail, shut),
    lines: leaningLines(grey, shut),
  };
}

/** What is protected, on the halved picture. */
function shutOf(kept: Uint8Array, width: number, { width: w, height: h }: Plane): Uint8Array {
  const shut = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const p = 2 * y * width + 2 * x;
      if (kept[p] || kept[p + 1] || kept[p + width] || kept[p + width + 1]) shut[y * w + x] = 1;
    }
  return shut;
}

/** First protected column of every row; the middle of all that is protected where a row has none. */
function barsOf(shut: Uint8Array, width: number, height: number): Int32Array {
  const bars = new Int32Array(height).fill(-1);
  let [low, high] = [width, -1];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (!shut[y * width + x]) continue;
      if (bars[y]! < 0) bars[y] = x;
      if (x < low) low = x;
      if (x > high) high = x;
    }
  const middle = high < 0 ? width >> 1 : (low + high) >> 1;
  return bars.map((b) => (b < 0 ? middle : b));
}

/** Mean difference of ordinary neighbours, as the costs count it. */
function usualStep(detail: readonly Plane[], shut: Uint8Array): number {
  let [sum, n] = [0, 0];
  for (let p = 1; p < shut.length; p++) {
    if (shut[p] || shut[p - 1]) continue;
    for (const { values } of detail) sum += Math.abs(values[p]! - values[p - 1]!);
    n++;
  }
  return sum / Math.max(1, n) || 1;
}

/** What changes slowly, from what is not protected alone: means over squares, twice. */
function slowOf(planes: readonly Plane[], shut: Uint8Array): Plane[] {
  const { width, height } = planes[0]!;
  const twice = (values: Float32Array): Float32Array =>
    boxMean(boxMean({ width, height, values }, SLOW), SLOW).values;
  const open = new Float32Array(shut).map((s) => 1 - s);
  const share = twice(open);
  return planes.map(({ values }) => {
    const known = new Float32Array(values.length);
    for (let p = 0; p < known.length; p++) known[p] = values[p]! * open[p]!;
    const slow = twice(known);
    for (let p = 0; p < slow.length; p++)
      slow[p] = share[p]! > 1e-4 ? slow[p]! / share[p]! : values[p]!;
    return { width, height, values: slow };
  });
}
