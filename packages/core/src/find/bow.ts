import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import { pointOnBow } from '../shape/path.js';
import type { Point } from '../shape/site.js';

/** A thin line found between two points. */
export interface BowFit {
  /** Sagitta, px; positive to the right when walking from the first point to the second. */
  readonly sagitta: number;
  /** Width of the line, px, between the places where half of its contrast is left. */
  readonly width: number;
  /** Contrast of the line against both sides, share of full scale 0..1. */
  readonly contrast: number;
}

/** Options of {@link fitBow}. */
export interface BowOptions {
  /** Greatest sagitta tried, as a share of the distance between the points. @default 0.12 */
  mostBow?: number;
  /** Least contrast that counts as a line. @default 0.03 */
  leastContrast?: number;
}

/**
 * Finds how far a thin line (wire, hair, scratch) between two clicks bows off the straight way: the parabola
 * along which the picture differs most steadily from both of its sides. Returns null when nothing along any
 * of them looks like a line.
 */
export function fitBow(
  picture: Raster,
  from: Point,
  to: Point,
  options: BowOptions = {},
): BowFit | null {
  const dx = to[0] - from[0];
  const dy = to[1] - from[1];
  const length = Math.sqrt(dx * dx + dy * dy);
  if (length < 8) return null;
  const most = Math.max(3, (options.mostBow ?? 0.12) * length);
  const grey = greySampler(picture);
  const samples = Math.min(400, Math.max(24, Math.round(length / 3)));
  const side = 6;
  const score = (sagitta: number): number => lineContrast(grey, from, to, sagitta, samples, side);

  let best = 0;
  let highest = -1;
  for (let s = -most; s <= most; s += 0.5) {
    const value = score(s);
    if (value > highest) {
      highest = value;
      best = s;
    }
  }
  if (highest < (options.leastContrast ?? 0.03)) return null;
  for (const step of [0.25, 0.125])
    for (const s of [best - step, best + step]) {
      const value = score(s);
      if (value > highest) {
        highest = value;
        best = s;
      }
    }
  const width = widthAcross(grey, from, to, best, samples);
  return { sagitta: best, width, contrast: highest };
}

/**
 * Mean over the run of how much the middle stands out from both sides in one direction (dark or bright),
 * robust against crossings: each place counts at most a fixed amount.
 */
function lineContrast(
  grey: (x: number, y: number) => number,
  from: Point,
  to: Point,
  sagitta: number,
  samples: number,
  side: number,
): number {
  let dark = 0;
  let bright = 0;
  for (let i = 1; i < samples; i++) {
    const [x, y] = pointOnBow(from, to, sagitta, i / samples);
    const [nx, ny] = normalAt(from, to, sagitta, i / samples);
    const middle = grey(x, y);
    const left = grey(x - side * nx, y - side * ny);
    const right = grey(x + side * nx, y + side * ny);
    dark += Math.min(0.2, Math.max(0, Math.min(left, right) - middle));
    bright += Math.min(0.2, Math.max(0, middle - Math.max(left, right)));
  }
  return Math.max(dark, bright) / (samples - 1);
}

/** Full width at half contrast of the mean profile across the line. */
function widthAcross(
  grey: (x: number, y: number) => number,
  from: Point,
  to: Point,
  sagitta: number,
  samples: number,
): number {
  const reach = 24;
  const steps = 4 * reach + 1;
  const profile = new Float64Array(steps);
  for (let i = 1; i < samples; i++) {
    const [x, y] = pointOnBow(from, to, sagitta, i / samples);
    const [nx, ny] = normalAt(from, to, sagitta, i / samples);
    for (let k = 0; k < steps; k++) {
      const off = k / 2 - reach;
      profile[k]! += grey(x + off * nx, y + off * ny) / (samples - 1);
    }
  }
  const middle = 2 * reach;
  const far = median([...profile.subarray(0, reach), ...profile.subarray(steps - reach)]);
  const half = Math.abs(profile[middle]! - far) / 2;
  let left = middle;
  let right = middle;
  while (left > 0 && Math.abs(profile[left]! - far) > half) left--;
  while (right < steps - 1 && Math.abs(profile[right]! - far) > half) right++;
  return Math.max(1, (right - left) / 2);
}

function normalAt(from: Point, to: Point, sagitta: number, t: number): Point {
  const a = pointOnBow(from, to, sagitta, t - 0.01);
  const b = pointOnBow(from, to, sagitta, t + 0.01);
  const dx = b[0] - a[0];
  const dy = b[1] - a[1];
  const length = Math.sqrt(dx * dx + dy * dy) || 1;
  return [-dy / length, dx / length];
}

/** Bilinear samples of luma 0..1, the border repeated outward. */
function greySampler({ width, height, channels, data }: Raster): (x: number, y: number) => number {
  const colours = colourChannels(channels);
  const white = whiteOf(data);
  const at = (x: number, y: number): number => {
    const i = (y * width + x) * channels;
    if (colours === 1) return data[i]! / white;
    return (0.299 * data[i]! + 0.587 * data[i + 1]! + 0.114 * data[i + 2]!) / white;
  };
  return (x, y) => {
    const cx = Math.min(width - 1.001, Math.max(0, x));
    const cy = Math.min(height - 1.001, Math.max(0, y));
    const ix = Math.max(0, Math.floor(cx));
    const iy = Math.max(0, Math.floor(cy));
    const fx = cx - ix;
    const fy = cy - iy;
    const jx = Math.min(width - 1, ix + 1);
    const jy = Math.min(height - 1, iy + 1);
    return (
      (at(ix, iy) * (1 - fx) + at(jx, iy) * fx) * (1 - fy) +
      (at(ix, jy) * (1 - fx) + at(jx, jy) * fx) * fy
    );
  };
}

function median(values: number[]): number {
  const sorted = values.sort((a, b) => a - b);
  return sorted[sorted.length >> 1]!;
}
