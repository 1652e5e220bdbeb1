import type { Affine } from './affine.js';
import { isWhole, mapRect, reductionOf } from './affine.js';
import type { Raster } from './raster.js';
import { createRaster, depthOf, whiteOf } from './raster.js';
import type { Rect } from './rect.js';
import { grow, intersect, shift } from './rect.js';

/** Pixels of one place, brought into register with another. */
export interface Fetched {
  readonly raster: Raster;
  /** 1 where the source exists, 0 where it would lie outside the picture. */
  readonly valid: Uint8Array;
}

/** Half the support of the kernel, px at scale 1. */
const REACH = 2;

/** What {@link resample} reads of the source for `target`, clipped to `frame`. */
export function resampleReads(map: Affine, target: Rect, frame: Rect): Rect {
  const reach = isWhole(map) ? 0 : Math.ceil(REACH * Math.max(1, reductionOf(map)));
  return intersect(grow(mapRect(map, target), reach), frame);
}

/**
 * Fetches for every pixel of `target` the content at its image under `map`. Whole maps copy; others interpolate
 * by the cubic kernel of Keys, "Cubic Convolution Interpolation for Digital Image Processing", IEEE ASSP 29(6),
 * 1981 (a = -1/2), widened where the source is reduced. Encoded values are interpolated as they stand: a donor
 * is matched and blended in them. At the picture's border the last pixel stands for what lies beyond.
 * @param source pixels of `at`, which must hold {@link resampleReads}
 * @param frame the whole picture the source is part of
 */
export function resample(
  source: Raster,
  at: Rect,
  map: Affine,
  target: Rect,
  frame: Rect,
): Fetched {
  if (!isWhole(map)) {
    const point: PointMap = (x, y, to) => {
      to[0] = map.a * x + map.b * y + map.c;
      to[1] = map.d * x + map.e * y + map.f;
    };
    return resampleBy(source, at, point, Math.max(1, reductionOf(map)), target, frame);
  }
  const { width, height } = target;
  const raster = createRaster(width, height, source.channels, depthOf(source.data));
  const valid = new Uint8Array(width * height);
  copy(source, at, map, target, raster, valid);
  return { raster, valid };
}

function copy(
  source: Raster,
  at: Rect,
  map: Affine,
  target: Rect,
  out: Raster,
  valid: Uint8Array,
): void {
  if (map.a === 1 && map.e === 1 && map.b === 0 && map.d === 0)
    return copyRows(source, at, map, target, out, valid);
  const { channels, data } = source;
  const { a, b, c: right, d, e, f: down } = map;
  for (let y = 0, p = 0; y < target.height; y++) {
    for (let x = 0; x < target.width; x++, p++) {
      const tx = target.x + x;
      const ty = target.y + y;
      const sx = a * tx + b * ty + right - at.x;
      const sy = d * tx + e * ty + down - at.y;
      if (sx < 0 || sy < 0 || sx >= at.width || sy >= at.height) continue;
      valid[p] = 1;
      const from = (sy * at.width + sx) * channels;
      for (let c = 0; c < channels; c++) out.data[p * channels + c] = data[from + c]!;
    }
  }
}

/** A mere shift: whole rows at a time. */
function copyRows(
  { channels, data }: Raster,
  at: Rect,
  { c: right, f: down }: Affine,
  target: Rect,
  out: Raster,
  valid: Uint8Array,
): void {
  const there = intersect(shift(target, right, down), at);
  for (let y = there.y; y < there.y + there.height; y++) {
    const from = ((y - at.y) * at.width + there.x - at.x) * channels;
    const to = (y - down - target.y) * target.width + there.x - right - target.x;
    out.data.set(data.subarray(from, from + there.width * channels), to * channels);
    valid.fill(1, to, to + there.width);
  }
}

/** A point's image, written into `to`. */
export type PointMap = (x: number, y: number, to: Float64Array) => void;

/**
 * Fetches the content at the image of every pixel under any map, by the same kernel as {@link resample}.
 * @param wide source pixels behind one target pixel, at least 1
 * @param wanted pixels to be fetched, all when left out
 */
export function resampleBy(
  source: Raster,
  at: Rect,
  map: PointMap,
  wide: number,
  target: Rect,
  frame: Rect,
  wanted?: (p: number) => boolean,
): Fetched {
  const { channels, data } = source;
  const raster = createRaster(target.width, target.height, channels, depthOf(data));
  const valid = new Uint8Array(target.width * target.height);
  const white = whiteOf(data);
  const half = white > 1 ? 0.5 : 0;
  const taps = 2 * Math.ceil(REACH * wide);
  const wx = new Float64Array(taps);
  const wy = new Float64Array(taps);
  const columns = new Int32Array(taps);
  const sums = new Float64Array(channels);
  const from = new Float64Array(2);
  for (let y = 0, p = 0; y < target.height; y++) {
    for (let x = 0; x < target.width; x++, p++) {
      if (wanted && !wanted(p)) continue;
      map(target.x + x, target.y + y, from);
      const sx = from[0]!;
      const sy = from[1]!;
      if (!holds(frame, sx, sy)) continue;
      valid[p] = 1;
      const x0 = weigh(sx, wide, taps, wx);
      const y0 = weigh(sy, wide, taps, wy);
      for (let i = 0; i < taps; i++) columns[i] = clampTo(x0 + i - at.x, at.width) * channels;
      sums.fill(0);
      for (let j = 0; j < taps; j++) {
        if (wy[j] === 0) continue;
        const row = clampTo(y0 + j - at.y, at.height) * at.width * channels;
        for (let i = 0; i < taps; i++) {
          const w = wx[i]! * wy[j]!;
          const k = row + columns[i]!;
          for (let c = 0; c < channels; c++) sums[c]! += w * data[k + c]!;
        }
      }
      for (let c = 0; c < channels; c++)
        raster.data[p * channels + c] = Math.min(white, Math.max(0, sums[c]!) + half);
    }
  }
  return { raster, valid };
}

function holds(frame: Rect, x: number, y: number): boolean {
  const left = frame.x - 0.5;
  const top = frame.y - 0.5;
  return x >= left && y >= top && x <= left + frame.width && y <= top + frame.height;
}

/**
 * Weights of the kernel's taps around `s`, adding up to 1.
 * @param wide source pixels behind one target pixel, at least 1
 * @param weights takes the first `taps` of them
 * @returns the first tap's place
 */
export function weigh(s: number, wide: number, taps: number, weights: Float64Array): number {
  const first = Math.ceil(s - taps / 2);
  let sum = 0;
  for (let i = 0; i < taps; i++) sum += weights[i] = keys((first + i - s) / wide);
  for (let i = 0; i < taps; i++) weights[i]! /= sum;
  return first;
}

function keys(t: number): number {
  const d = t < 0 ? -t : t;
  if (d >= 2) return 0;
  return d < 1 ? (1.5 * d - 2.5) * d * d + 1 : ((-0.5 * d + 2.5) * d - 4) * d + 2;
}

function clampTo(v: number, length: number): number {
  return v < 0 ? 0 : v >= length ? length - 1 : v;
}
