// Twin of src/fill/plain/match.ts: the same matches, several times as fast.
import { begin, between } from './dice';
import { HALF, at32, put32 } from './memory';

const ROWS: i32 = 7;

/** Squares of the differences of eight values, added up in four lanes. */
@inline
function squares(a: usize, b: usize): v128 {
  const d = i16x8.sub(v128.load(a), v128.load(b));
  return i32x4.dot_i16x8_s(d, d);
}

@inline
function total(v: v128): i32 {
  return (
    i32x4.extract_lane(v, 0) +
    i32x4.extract_lane(v, 1) +
    i32x4.extract_lane(v, 2) +
    i32x4.extract_lane(v, 3)
  );
}

/** Squared difference of two patches given their top left values; at least `limit` once that is reached. */
@inline
function difference(a: usize, b: usize, stride: usize, limit: i32): i32 {
  // A row is seven pixels of four values: three pairs, and the last pixel without the next one.
  const first = i64x2(-1, 0);
  let sum = i32x4.splat(0);
  let i = a;
  let j = b;
  for (let y: i32 = 0; y < ROWS; y++) {
    sum = i32x4.add(sum, squares(i, j));
    sum = i32x4.add(sum, squares(i + 16, j + 16));
    sum = i32x4.add(sum, squares(i + 32, j + 32));
    sum = i32x4.add(sum, v128.and(squares(i + 48, j + 48), first));
    if (y == 1 || y == 3) {
      const now = total(sum);
      if (now >= limit) return now;
    }
    i += stride;
    j += stride;
  }
  return total(sum);
}

@inline
function topLeft(pixels: usize, p: i32, width: i32): usize {
  return pixels + (<usize>(p - HALF - HALF * width) << 3);
}

/** What a match adds to its difference for being farther away than is free. */
@inline
function farness(a: i32, b: i32, width: i32, free: i32, rate: i32): i32 {
  const ay = a / width;
  const by = b / width;
  return rate * max(0, abs(a - ay * width - (b - by * width)) + abs(ay - by) - free);
}

/** What it costs that a patch is matched with another one; at least `limit` once that is reached. */
@inline
function costOf(
  pixels: usize,
  a: i32,
  b: i32,
  width: i32,
  free: i32,
  rate: i32,
  limit: i32,
): i32 {
  const far = rate == 0 ? 0 : farness(a, b, width, free, rate);
  if (far >= limit) return far;
  const stride = <usize>width << 3;
  return (
    far + difference(topLeft(pixels, a, width), topLeft(pixels, b, width), stride, limit - far)
  );
}

export function measure(
  pixels: usize,
  target: usize,
  match: usize,
  distance: usize,
  width: i32,
  free: i32,
  rate: i32,
  part: i32,
  from: i32,
  to: i32,
): void {
  for (let i = from; i < to; i++) {
    const p = at32(target, i);
    const q = at32(match, i);
    put32(distance, i, costOf(pixels, p, q, width, free, rate, i32.MAX_VALUE));
  }
}

/**
 * One sweep over the targets from..to.
 * @param fresh 1: the pixels changed since the distances were measured
 * @param sheets how many sheets lie below the window, each `rows` further down
 */
export function improve(
  pixels: usize,
  source: usize,
  number: usize,
  target: usize,
  match: usize,
  distance: usize,
  width: i32,
  height: i32,
  reach: i32,
  pass: i32,
  seed: i32,
  fresh: i32,
  sheets: i32,
  rows: i32,
  free: i32,
  rate: i32,
  part: i32,
  from: i32,
  to: i32,
): void {
  const backwards = (pass & 1) == 1;
  const step = backwards ? 1 : -1;
  let row = -1;
  for (let k = from; k < to; k++) {
    const i = backwards ? from + to - 1 - k : k;
    const p = at32(target, i);
    const y = p / width;
    if (y != row) {
      row = y;
      begin((seed * <i32>0x9e3779b1) ^ (pass * 7919 + y * 104729 + from * 31));
    }
    let best = at32(match, i);
    let least = fresh
      ? costOf(pixels, p, best, width, free, rate, i32.MAX_VALUE)
      : at32(distance, i);
    for (let side = 0; side < 2; side++) {
      const shift = side == 0 ? step : step * width;
      const j = at32(number, p + shift);
      if (j < from || j >= to) continue;
      const candidate = at32(match, j) - shift;
      if (candidate == best || !load<u8>(source + candidate)) continue;
      const d = costOf(pixels, p, candidate, width, free, rate, least);
      if (d < least) {
        least = d;
        best = candidate;
      }
    }
    let by = best / width;
    let bx = best - by * width;
    if (sheets > 0) {
      const cx = p - y * width + between(-reach, reach);
      const cy = y + rows * between(0, sheets) + between(-reach, reach);
      if (cx >= HALF && cy >= HALF && cx < width - HALF && cy < height - HALF) {
        const candidate = cy * width + cx;
        if (candidate != best && load<u8>(source + candidate)) {
          const d = costOf(pixels, p, candidate, width, free, rate, least);
          if (d < least) {
            least = d;
            best = candidate;
            bx = cx;
            by = cy;
          }
        }
      }
    }
    // Every other patch, turn about: what one finds, propagation brings to the others.
    const widest = ((p + y * (width + 1) + pass) & 1) == 0 ? reach : 0;
    for (let radius = widest; radius >= 1; radius >>= 1) {
      const cx = bx + between(-radius, radius);
      const cy = by + between(-radius, radius);
      if (cx < HALF || cy < HALF || cx >= width - HALF || cy >= height - HALF) continue;
      const candidate = cy * width + cx;
      if (candidate == best || !load<u8>(source + candidate)) continue;
      const d = costOf(pixels, p, candidate, width, free, rate, least);
      if (d < least) {
        least = d;
        best = candidate;
        bx = cx;
        by = cy;
      }
    }
    put32(match, i, best);
    put32(distance, i, least);
  }
}
