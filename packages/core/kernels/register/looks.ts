// What corners look like, and which look alike.
import { float, floats, putFloat, putFloats } from './memory';

const CELLS: i32 = 4;
const WAYS: i32 = 8;
/** px a cell takes, and all of them. */
const CELL: i32 = 4;
const SIDE: i32 = CELLS * CELL;
/** Values of a look. */
const SIZE: i32 = CELLS * CELLS * WAYS;
/** Values of a look at a glance, and the look-alikes kept. */
const GLANCE: i32 = 32;
const CANDIDATES: i32 = 8;

/** Floats a part needs for itself: samples a px apart round a corner. */
const SEEN: i32 = SIDE + 2;

/** Direction of a slope in eighths of a turn, 0..8, to 0.01 (odd polynomial of third order on an octant). */
@inline
function wayOf(gx: f32, gy: f32): f32 {
  const ax = abs<f32>(gx);
  const ay = abs<f32>(gy);
  const t = min<f32>(ax, ay) / max<f32>(ax, ay);
  // Arc tangent in eighths of a turn.
  const eighth = t * (<f32>1.2383 - <f32>0.2383 * t * t);
  let way: f32 = ay > ax ? 2 - eighth : eighth;
  if (gx < 0) way = 4 - way;
  return gy < 0 ? 8 - way : way;
}

/**
 * Histograms of slope directions in 4 x 4 cells (after Lowe, IJCV 60(2), 2004), of length 1.
 * @param corners x and y of each, floats
 * @param weights one for each of the 16 x 16 px
 * @param seen room for SEEN x SEEN floats a part
 */
export function describe(
  plane: usize,
  width: i32,
  corners: usize,
  weights: usize,
  seen: usize,
  looks: usize,
  part: i32,
  from: i32,
  to: i32,
): void {
  const own = seen + (<usize>(part * SEEN * SEEN) << 2);
  for (let i = from; i < to; i++) {
    // The first sample lies one before the first px, half a px off the corner.
    const left = float(corners, 2 * i) - <f32>(SIDE / 2 + 0.5);
    const top = float(corners, 2 * i + 1) - <f32>(SIDE / 2 + 0.5);
    sample(plane, width, left, top, own);
    const look = looks + (<usize>(i * SIZE) << 2);
    for (let v = 0; v < SIDE; v++)
      for (let u = 0; u < SIDE; u++) {
        const p = (v + 1) * SEEN + u + 1;
        const gx = float(own, p + 1) - float(own, p - 1);
        const gy = float(own, p + SEEN) - float(own, p - SEEN);
        const size = sqrt<f32>(gx * gx + gy * gy);
        if (size == 0) continue;
        const cx = (<f32>u + <f32>0.5) / <f32>CELL - <f32>0.5;
        const cy = (<f32>v + <f32>0.5) / <f32>CELL - <f32>0.5;
        spread(look, cx, cy, wayOf(gx, gy), size * float(weights, v * SIDE + u));
      }
    normalise(look);
    for (let k = 0; k < SIZE; k++) putFloat(look, k, min<f32>(0.2, float(look, k)));
    normalise(look);
  }
}

function sample(plane: usize, width: i32, left: f32, top: f32, out: usize): void {
  const x0 = <i32>floor<f32>(left);
  const y0 = <i32>floor<f32>(top);
  const f = left - <f32>x0;
  const g = top - <f32>y0;
  for (let v = 0, o = 0; v < SEEN; v++)
    for (let u = 0, p = (y0 + v) * width + x0; u < SEEN; u++, p++, o++) {
      const upper = float(plane, p) + f * (float(plane, p + 1) - float(plane, p));
      const q = p + width;
      const lower = float(plane, q) + f * (float(plane, q + 1) - float(plane, q));
      putFloat(out, o, upper + g * (lower - upper));
    }
}

/** Adds a weight to the cells and directions around a place. */
@inline
function spread(look: usize, cx: f32, cy: f32, way: f32, weight: f32): void {
  const x0 = <i32>floor<f32>(cx);
  const y0 = <i32>floor<f32>(cy);
  const w0 = <i32>way;
  const turn = way - <f32>w0;
  for (let j = 0; j < 2; j++) {
    const y = y0 + j;
    if (y < 0 || y >= CELLS) continue;
    const wy = j ? cy - <f32>y0 : 1 - cy + <f32>y0;
    for (let i = 0; i < 2; i++) {
      const x = x0 + i;
      if (x < 0 || x >= CELLS) continue;
      const share = weight * wy * (i ? cx - <f32>x0 : 1 - cx + <f32>x0);
      const cell = (y * CELLS + x) * WAYS;
      const one = cell + (w0 & 7);
      const next = cell + ((w0 + 1) & 7);
      putFloat(look, one, float(look, one) + share * (1 - turn));
      putFloat(look, next, float(look, next) + share * turn);
    }
  }
}

function normalise(look: usize): void {
  let sum: f32 = 0;
  for (let k = 0; k < SIZE; k++) sum += float(look, k) * float(look, k);
  if (sum == 0) return;
  const by: f32 = <f32>1 / sqrt<f32>(sum);
  for (let k = 0; k < SIZE; k++) putFloat(look, k, float(look, k) * by);
}

/** Looks with four cells made one. */
export function glance(looks: usize, out: usize, _part: i32, from: i32, to: i32): void {
  for (let i = from; i < to; i++)
    for (let cell = 0; cell < CELLS * CELLS; cell++) {
      const block = i * GLANCE + ((cell >> 3) * 2 + ((cell >> 1) & 1)) * WAYS;
      const own = i * SIZE + cell * WAYS;
      putFloats(out, block, f32x4.add(floats(out, block), floats(looks, own)));
      putFloats(out, block + 4, f32x4.add(floats(out, block + 4), floats(looks, own + 4)));
    }
}

/**
 * The nearest at a glance of every feature, nearest first, -1 where there are fewer.
 * @param at CANDIDATES whole numbers a feature @param far as many floats
 */
export function nearest(
  one: usize,
  other: usize,
  count: i32,
  at: usize,
  far: usize,
  _part: i32,
  from: i32,
  to: i32,
): void {
  for (let i = from; i < to; i++) {
    const mine = at + (<usize>(i * CANDIDATES) << 2);
    const away = far + (<usize>(i * CANDIDATES) << 2);
    for (let k = 0; k < CANDIDATES; k++) {
      store<i32>(mine + (<usize>k << 2), -1);
      putFloat(away, k, f32.MAX_VALUE);
    }
    let limit = f32.MAX_VALUE;
    for (let j = 0; j < count; j++) {
      let sum = f32x4.splat(0);
      for (let k = 0; k < GLANCE; k += 4) {
        const d = f32x4.sub(floats(one, i * GLANCE + k), floats(other, j * GLANCE + k));
        sum = f32x4.add(sum, f32x4.mul(d, d));
      }
      const distance =
        f32x4.extract_lane(sum, 0) +
        f32x4.extract_lane(sum, 1) +
        (f32x4.extract_lane(sum, 2) + f32x4.extract_lane(sum, 3));
      if (distance >= limit) continue;
      let k = CANDIDATES - 1;
      for (; k > 0 && float(away, k - 1) > distance; k--) {
        putFloat(away, k, float(away, k - 1));
        store<i32>(mine + (<usize>k << 2), load<i32>(mine + (<usize>(k - 1) << 2)));
      }
      putFloat(away, k, distance);
      store<i32>(mine + (<usize>k << 2), j);
      limit = float(away, CANDIDATES - 1);
    }
  }
}
