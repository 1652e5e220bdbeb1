import type { Plane } from '../raster/plane.js';
import { sampleAt } from '../raster/plane.js';
import type { Homography } from '../shape/homography.js';
import { through } from '../shape/homography.js';
import type { Point } from '../shape/site.js';
import type { Features } from './features.js';
import type { Fitted } from './fit.js';
import { leastSquares, offOf } from './fit.js';
import type { Pair } from './match.js';

/** Half the side of the patch that is laid over its like, px. */
const HALF = 7;
const ROUNDS = 12;
const N = (2 * HALF + 1) ** 2;
// Filled anew for every patch.
const patch = new Float32Array(N);
const seen = new Float32Array(N);
const spotX = new Float32Array(N);
const spotY = new Float32Array(N);
const slopeX = new Float32Array(N);
const slopeY = new Float32Array(N);
/** Corners that are laid over the other picture at the most. */
const MOST = 300;
/** Correlation a patch must reach. */
const ALIKE = 0.85;
/** px a patch may be off its place. */
const REACH = 4;

/**
 * Makes a map exact: patches round the corners of one picture, seen through the map, are laid over the other picture to a
 * fraction of a pixel (Lucas, Kanade, IJCAI 1981, with the tone's scale and height taken off), and the map is fitted to
 * where they lie best.
 * @param one, other grey planes the map takes from and to
 */
export function aligned(
  one: Plane,
  other: Plane,
  corners: Features,
  map: Homography,
  rounds = 2,
): Fitted {
  let best: Fitted = { map, agreeing: [] };
  let places = shown(one, other, corners, map);
  for (let k = 0; k < rounds; k++) {
    const pairs: Pair[] = [];
    for (const at of places) {
      const pair = laidOver(one, other, at, best.map);
      if (pair) pairs.push(pair);
    }
    places = pairs.map((p) => p.from);
    if (pairs.length < 12) return best;
    let fitted = leastSquares(pairs, 0.3);
    const spread = pairs.map((p) => offOf(fitted, p)).sort((a, b) => a - b);
    const limit = Math.max(0.3, 3 * spread[spread.length >> 1]!);
    const agreeing = pairs.filter((p) => offOf(fitted, p) < limit);
    if (agreeing.length >= 12) fitted = leastSquares(agreeing, 0.3);
    best = { map: fitted, agreeing };
  }
  return best;
}

/** Corners that the other picture shows too, evenly thinned. */
function shown(one: Plane, other: Plane, corners: Features, map: Homography): Point[] {
  const all: Point[] = [];
  for (let i = 0; i < corners.count; i++) {
    const at: Point = [corners.x[i]!, corners.y[i]!];
    if (within(one, at) && within(other, through(map, at))) all.push(at);
  }
  const step = Math.max(1, all.length / MOST);
  return Array.from(
    { length: Math.floor(all.length / step) },
    (_, k) => all[Math.floor(k * step)]!,
  );
}

/**
 * Where a corner's patch lies in the other picture; null where it has no clear place there. The slopes are those of the
 * other picture at the start, so that they are taken once (Baker, Matthews, "Lucas-Kanade 20 Years On", IJCV 56(3), 2004).
 */
function laidOver(one: Plane, other: Plane, at: Point, map: Homography): Pair | null {
  const start = through(map, at);
  if (!within(one, at) || !within(other, start)) return null;
  // Near a corner a projective map is as good as its slopes there.
  const [ux, uy] = through(map, [at[0] + 1, at[1]]);
  const [vx, vy] = through(map, [at[0], at[1] + 1]);
  const [ax, ay, bx, by] = [ux - start[0], uy - start[1], vx - start[0], vy - start[1]];
  for (let v = -HALF, p = 0; v <= HALF; v++)
    for (let u = -HALF; u <= HALF; u++, p++) {
      patch[p] = sampleAt(one, at[0] + u, at[1] + v);
      spotX[p] = start[0] + ax * u + bx * v;
      spotY[p] = start[1] + ay * u + by * v;
    }
  standardise(patch);
  let [a, b, c] = [0, 0, 0];
  let [dx, dy] = [0, 0];
  for (let round = 0; round < ROUNDS; round++) {
    for (let p = 0; p < N; p++) seen[p] = sampleAt(other, spotX[p]! + dx, spotY[p]! + dy);
    const scale = standardise(seen);
    if (scale < 1) return null;
    if (round === 0) {
      for (let p = 0; p < N; p++) {
        const [x, y] = [spotX[p]!, spotY[p]!];
        const gx = (sampleAt(other, x + 0.5, y) - sampleAt(other, x - 0.5, y)) / scale;
        const gy = (sampleAt(other, x, y + 0.5) - sampleAt(other, x, y - 0.5)) / scale;
        slopeX[p] = gx;
        slopeY[p] = gy;
        a += gx * gx;
        b += gx * gy;
        c += gy * gy;
      }
    }
    let [e, f] = [0, 0];
    for (let p = 0; p < N; p++) {
      const d = patch[p]! - seen[p]!;
      e += slopeX[p]! * d;
      f += slopeY[p]! * d;
    }
    const det = a * c - b * b;
    if (det < 1e-6 * (a + c) * (a + c)) return null;
    const [sx, sy] = [(c * e - b * f) / det, (a * f - b * e) / det];
    dx += sx;
    dy += sy;
    if (Math.abs(dx) > REACH || Math.abs(dy) > REACH) return null;
    if (sx * sx + sy * sy < 1e-5) break;
  }
  let alike = 0;
  for (let p = 0; p < N; p++) alike += patch[p]! * seen[p]!;
  if (alike / N < ALIKE) return null;
  return { from: at, to: [start[0] + dx, start[1] + dy] };
}

/** Mean 0, deviation 1, in place. @returns the deviation there was */
function standardise(values: Float32Array): number {
  let sum = 0;
  for (const v of values) sum += v;
  const mean = sum / values.length;
  let square = 0;
  for (const v of values) square += (v - mean) * (v - mean);
  const deviation = Math.sqrt(square / values.length);
  const by = deviation > 0 ? 1 / deviation : 0;
  for (let p = 0; p < values.length; p++) values[p] = (values[p]! - mean) * by;
  return deviation;
}

function within({ width, height }: Plane, [x, y]: Point): boolean {
  const margin = HALF + REACH + 1;
  return x >= margin && y >= margin && x < width - margin && y < height - margin;
}
