import { medianOf } from '../raster/median.js';
import type { Plane } from '../raster/plane.js';
import { boxMean } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { widened } from '../shape/widened.js';
import { reducedMask, smallLab } from './small-lab.js';
import { solveSmall } from '../solve/small.js';

/** Longest side that is looked at, px. */
const LONGEST = 320;
/** px round the subject in which its own colour is mixed with the ground's. */
const MIXED = 2;
/** Share of the width that is kept from the subject where the ground alone is to be seen. */
const AWAY = 0.06;
/** Share of the width that must show the ground alone for a row to say anything. */
const SEEN = 0.12;
/** CIELAB units, and times the ground's own spread, from which on something is cast on it. */
const [LEAST, TIMES] = [3, 4];
/** Rounds of a fit, and the CIELAB units within which all are as near. */
const [ROUNDS, NEAR] = [10, 0.3];
/** px of the reduced picture that what is cast may be away from the subject. */
const BESIDE = 3;
/** Share of the ground up to which something on it can be cast by the subject. */
const MOST = 0.35;

/**
 * Shadows and reflections that a subject casts on its ground. Each row's ground is told from what lies away from the
 * subject, as a tone that changes evenly from left to right (least distances, so that what is off does not count); what is
 * off by far more than the ground's own spread and hangs together with the subject is cast. Grounds of strong texture or
 * with much on them spread so far that nothing is.
 * @param subject 1 = subject, a value a pixel
 * @returns 1 = cast, the subject itself not among it
 */
export function castBy(picture: Raster, subject: Uint8Array): Uint8Array {
  const { level, planes } = smallLab(picture, LONGEST);
  const { width, height } = planes[0]!;
  const shut = widened(reducedMask(subject, picture, level, planes[0]!), width, height, MIXED);
  const off = offOf(
    // Grain says nothing of what is cast.
    planes.map((p) => boxMean(p, 1)),
    shut,
  );
  const cast = widened(hangingOn(off, shut, width, height), width, height, MIXED);
  const out = new Uint8Array(subject.length);
  const open = shut.reduce((n, s) => n + 1 - s, 0);
  if (cast.reduce((n, c) => n + c, 0) > MOST * open) return out;
  for (let y = 0, p = 0; y < picture.height; y++) {
    const row = Math.min(height - 1, y >> level) * width;
    for (let x = 0; x < picture.width; x++, p++)
      out[p] = subject[p] ? 0 : cast[row + Math.min(width - 1, x >> level)]!;
  }
  return out;
}

/** How far every pixel is off its row's ground, as a multiple of what counts; 0 where the row says nothing. */
function offOf(planes: readonly Plane[], shut: Uint8Array): Float32Array {
  const { width, height } = planes[0]!;
  const away = Math.ceil(AWAY * width);
  const open = openOf(shut, width, height, away);
  const off = new Float32Array(shut.length);
  const columns = new Int32Array(width);
  for (let y = 0; y < height; y++) {
    let count = 0;
    for (let x = 0; x < width; x++) if (open[y * width + x]) columns[count++] = x;
    if (count < SEEN * width) continue;
    const seen = columns.subarray(0, count);
    const fits = planes.map(({ values }) =>
      evenTone(values.subarray(y * width, (y + 1) * width), seen),
    );
    const spread = Math.hypot(...fits.map((f) => f.spread));
    const limit = Math.max(LEAST, TIMES * spread);
    for (let x = 0; x < width; x++) {
      const p = y * width + x;
      let sum = 0;
      for (let c = 0; c < 3; c++) sum += (planes[c]!.values[p]! - fits[c]!.at(x)) ** 2;
      off[p] = Math.sqrt(sum) / limit;
    }
  }
  return off;
}

/** What lies away from the subject on its row. */
function openOf(shut: Uint8Array, width: number, height: number, away: number): Uint8Array {
  const open = new Uint8Array(shut.length).fill(1);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (shut[y * width + x])
        open.fill(0, y * width + Math.max(0, x - away), y * width + Math.min(width, x + away + 1));
  return open;
}

/**
 * The straight line through a row's values that the sum of distances from is least (by weighted least squares in rounds),
 * so that what is off does not draw it, and the usual distance.
 * @param columns that are looked at
 */
function evenTone(row: Float32Array, columns: Int32Array) {
  const width = row.length;
  let height = 0;
  let slope = 0;
  for (let round = 0; round < ROUNDS; round++) {
    let n = 0;
    let sx = 0;
    let sxx = 0;
    let sv = 0;
    let sxv = 0;
    for (let k = 0; k < columns.length; k++) {
      const column = columns[k]!;
      const value = row[column]!;
      const x = column / width;
      const far = Math.abs(value - height - (slope * column) / width);
      const w = round ? 1 / Math.max(NEAR, far) : 1;
      n += w;
      sx += w * x;
      sxx += w * x * x;
      sv += w * value;
      sxv += w * x * value;
    }
    // A ground is taken to be level when little of its row is seen.
    const rows = [
      [n, sx],
      [sx, sxx + 0.002 * n],
    ];
    [height, slope] = solveSmall(rows, [sv, sxv]) as [number, number];
  }
  const far = new Float64Array(columns.length);
  columns.forEach((x, k) => {
    far[k] = Math.abs(row[x]! - height - (slope * x) / width);
  });
  const spread = 1.4826 * medianOf(far);
  return { spread, at: (x: number): number => height + (slope * x) / width };
}

/** What is off and hangs together with the subject: begun where it is surely off, gone on with where it is half as much. */
function hangingOn(off: Float32Array, shut: Uint8Array, width: number, height: number): Uint8Array {
  const cast = new Uint8Array(shut.length);
  const waiting: number[] = [];
  const near = widened(shut, width, height, BESIDE);
  for (let p = 0; p < off.length; p++)
    if (!shut[p] && near[p] && off[p]! >= 1) {
      cast[p] = 1;
      waiting.push(p);
    }
  for (let p = waiting.pop(); p !== undefined; p = waiting.pop()) {
    const x = p % width;
    for (const q of [x > 0 ? p - 1 : -1, x < width - 1 ? p + 1 : -1, p - width, p + width])
      if (q >= 0 && q < off.length && !shut[q] && !cast[q] && off[q]! >= 0.5) {
        cast[q] = 1;
        waiting.push(q);
      }
  }
  return cast;
}
