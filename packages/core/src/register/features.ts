import type { Plane } from '../raster/plane.js';
import { blurred, halved, sampleAt } from '../raster/plane.js';
import type { Corner } from './corners.js';
import { cornersOf } from './corners.js';

/** Corners of a picture with what they look like. */
export interface Features {
  /** Position in the picture, px. */
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** SIZE values a feature, of length 1. */
  readonly looks: Float32Array;
  readonly count: number;
}

const CELLS = 4;
const WAYS = 8;
/** Values that describe a feature. */
export const SIZE = CELLS * CELLS * WAYS;
/** px of its level a cell takes. */
const CELL = 4;

/**
 * Corners on two levels, each described by histograms of slope directions in 4 x 4 cells (after Lowe, "Distinctive Image
 * Features from Scale-Invariant Keypoints", IJCV 60(2), 2004, without turning: frames are held nearly upright).
 * @param grey 0..255 @param most corners in all
 */
export function featuresOf(grey: Plane, most = 1000): Features {
  const levels = [grey, halved(grey)];
  const lists = levels.map((level, k) =>
    cornersOf(level, k === 0 ? Math.round(most * 0.7) : Math.round(most * 0.3)),
  );
  const count = lists.reduce((sum, l) => sum + l.length, 0);
  const out = {
    x: new Float32Array(count),
    y: new Float32Array(count),
    looks: new Float32Array(count * SIZE),
    count,
  };
  let i = 0;
  lists.forEach((corners, k) => {
    const soft = blurred(levels[k]!, 1);
    for (const corner of corners) {
      out.x[i] = k === 0 ? corner.x : 2 * corner.x + 0.5;
      out.y[i] = k === 0 ? corner.y : 2 * corner.y + 0.5;
      describe(soft, corner, out.looks.subarray(i * SIZE, (i + 1) * SIZE));
      i++;
    }
  });
  return out;
}

function describe(plane: Plane, { x, y }: Corner, look: Float32Array): void {
  const half = (CELLS * CELL) / 2;
  for (let v = -half; v < half; v++)
    for (let u = -half; u < half; u++) {
      const px = x + u + 0.5;
      const py = y + v + 0.5;
      const gx = sampleAt(plane, px + 1, py) - sampleAt(plane, px - 1, py);
      const gy = sampleAt(plane, px, py + 1) - sampleAt(plane, px, py - 1);
      const size = Math.sqrt(gx * gx + gy * gy);
      if (size === 0) continue;
      const far = (u * u + v * v) / (half * half);
      const weight = size * Math.exp(-far);
      const way = ((Math.atan2(gy, gx) / (2 * Math.PI) + 1) % 1) * WAYS;
      const cx = (u + half + 0.5) / CELL - 0.5;
      const cy = (v + half + 0.5) / CELL - 0.5;
      spreadOver(look, cx, cy, way, weight);
    }
  normalise(look);
  for (let k = 0; k < SIZE; k++) look[k] = Math.min(0.2, look[k]!);
  normalise(look);
}

/** Adds a weight to the cells and directions around a place. */
function spreadOver(look: Float32Array, cx: number, cy: number, way: number, weight: number): void {
  const x0 = Math.floor(cx);
  const y0 = Math.floor(cy);
  const w0 = Math.floor(way);
  for (let j = 0; j < 2; j++) {
    const y = y0 + j;
    if (y < 0 || y >= CELLS) continue;
    const wy = j ? cy - y0 : 1 - cy + y0;
    for (let i = 0; i < 2; i++) {
      const x = x0 + i;
      if (x < 0 || x >= CELLS) continue;
      const wx = i ? cx - x0 : 1 - cx + x0;
      for (let k = 0; k < 2; k++) {
        const ww = k ? way - w0 : 1 - way + w0;
        look[(y * CELLS + x) * WAYS + ((w0 + k) % WAYS)]! += weight * wx * wy * ww;
      }
    }
  }
}

function normalise(look: Float32Array): void {
  let sum = 0;
  for (const v of look) sum += v * v;
  const by = 1 / (Math.sqrt(sum) || 1);
  for (let k = 0; k < look.length; k++) look[k]! *= by;
}
