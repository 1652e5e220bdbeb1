import type { Plane } from '../raster/plane.js';
import { blurred, boxMean } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { channelOf, lumaOf } from './channels.js';
import type { ToneActOf, TonePlace } from './step.js';

/**
 * Noise taken out where a picture is smooth, in place: a guided filter of each channel on itself (He, Sun, Tang, "Guided
 * Image Filtering", IEEE TPAMI 35(6), 2013), whose epsilon is the square of the noise.
 */
export function denoise(
  region: Raster,
  { radius, noise }: ToneActOf<'denoise'>,
  scale: number,
): void {
  const r = Math.round(radius / scale);
  if (r < 1 || noise <= 0) return;
  for (let c = 0; c < region.channels; c++) {
    const plane = channelOf(region, c);
    write(region, c, guided(plane, r, noise * noise));
  }
}

function guided(plane: Plane, r: number, epsilon: number): Float32Array {
  const { width, height, values } = plane;
  const of = (v: Float32Array): Float32Array => boxMean({ width, height, values: v }, r).values;
  const mean = of(values);
  const square = of(values.map((v) => v * v));
  const a = square.map((s, p) => {
    const spread = Math.max(0, s - mean[p]! * mean[p]!);
    return spread / (spread + epsilon);
  });
  const meanA = of(a);
  const meanB = of(mean.map((m, p) => m * (1 - a[p]!)));
  return values.map((v, p) => meanA[p]! * v + meanB[p]!);
}

/** Pixels that deviate from the middle of their surroundings by more than a threshold are replaced by it, in place. */
export function despeckle(
  region: Raster,
  { radius, threshold }: ToneActOf<'despeckle'>,
  scale: number,
): void {
  const r = Math.min(4, Math.round(radius / scale));
  if (r < 1) return;
  const around = new Float32Array((2 * r + 1) ** 2);
  const { width, height } = region;
  for (let c = 0; c < region.channels; c++) {
    const { values } = channelOf(region, c);
    const out = values.slice();
    for (let y = 0, p = 0; y < height; y++)
      for (let x = 0; x < width; x++, p++) {
        let n = 0;
        for (let b = Math.max(0, y - r); b <= Math.min(height - 1, y + r); b++)
          for (let a = Math.max(0, x - r); a <= Math.min(width - 1, x + r); a++)
            around[n++] = values[b * width + a]!;
        const middle = around.subarray(0, n).sort()[n >> 1]!;
        if (Math.abs(values[p]! - middle) > threshold) out[p] = middle;
      }
    write(region, c, out);
  }
}

/** Even grain, in place: strongest in the middle tones, the same wherever the picture is cut and however it is reduced. */
export function grain(
  region: Raster,
  { deviation, size, seed }: ToneActOf<'grain'>,
  place: TonePlace,
): void {
  if (deviation <= 0) return;
  const { width, height, channels, data } = region;
  const noise = new Float32Array(width * height);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++)
      noise[p] = chance(
        Math.floor(place.x / place.scale) + x,
        Math.floor(place.y / place.scale) + y,
        seed,
      );
  const sigma = size / 2 / place.scale;
  const soft = sigma > 0.3 ? blurred({ width, height, values: noise }, sigma).values : noise;
  // A Gaussian blur of white noise leaves 1 / (2 sigma sqrt(pi)) of its deviation.
  const gain = sigma > 0.3 ? Math.max(1, 2 * sigma * Math.sqrt(Math.PI)) : 1;
  const luma = lumaOf(region).values;
  for (let p = 0, i = 0; p < soft.length; p++) {
    const v = luma[p]!;
    const d = soft[p]! * gain * deviation * (0.4 + 2.4 * v * (1 - v));
    for (let c = 0; c < channels; c++, i++) data[i] = Math.min(1, Math.max(0, data[i]! + d));
  }
}

/** A chance value of deviation 1 for a place: the sum of four even ones. */
function chance(x: number, y: number, seed: number): number {
  let s = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b) ^ Math.imul(seed + 1, 0xc2b2ae35);
  let sum = 0;
  for (let k = 0; k < 4; k++) {
    s = Math.imul(s ^ (s >>> 15), 0x2c1b3c6d);
    s = Math.imul(s ^ (s >>> 12), 0x297a2d39);
    s ^= s >>> 15;
    sum += (s >>> 0) / 4294967296 - 0.5;
  }
  return sum * Math.sqrt(3);
}

function write({ channels, data }: Raster, c: number, values: Float32Array): void {
  for (let p = 0, i = c; p < values.length; p++, i += channels)
    data[i] = Math.min(1, Math.max(0, values[p]!));
}
