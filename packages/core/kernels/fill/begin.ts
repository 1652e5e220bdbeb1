// First contents and first matches of a level: twin of src/fill/plain/begin.ts.
import { between, leave, resume } from './dice';
import { HALF, at32, put32 } from './memory';

/** Marks in `hole` what is filled so far; 1 is what is not. */
const FILLED: u8 = 3;

/** Pixels of sources, in reading order, every `step`-th. */
export function thin(source: usize, count: i32, step: i32, out: usize): void {
  let i = 0;
  let k = 0;
  for (let p = 0; p < count; p++) {
    if (!load<u8>(source + p)) continue;
    if (i++ % step == 0) put32(out, k++, p);
  }
}

/**
 * Fills a hole from the border inwards, each ring from what is known before it.
 * @param waiting room for a word a hole @param nearest room for a word a pixel: then what stands beside is mirrored, else it is 0
 * and each is the mean of its known neighbours
 */
export function inwards(
  pixels: usize,
  hole: usize,
  banned: usize,
  width: i32,
  height: i32,
  holes: usize,
  count: i32,
  waiting: usize,
  nearest: usize,
): void {
  memory.copy(waiting, holes, <usize>count << 2);
  let left = count;
  while (left) {
    // What is taken goes behind what is not: the order within a ring does not matter.
    let rest = 0;
    let end = left;
    while (rest < end) {
      const p = at32(waiting, rest);
      const taken = nearest
        ? mirrors(pixels, hole, banned, width, height, nearest, p)
        : takesMean(pixels, hole, width, height, p);
      if (!taken) {
        rest++;
        continue;
      }
      end--;
      put32(waiting, rest, at32(waiting, end));
      put32(waiting, end, p);
    }
    if (rest == left) break;
    for (let k = rest; k < left; k++) store<u8>(hole + at32(waiting, k), FILLED);
    left = rest;
  }
  for (let k = 0; k < count; k++) store<u8>(hole + at32(holes, k), 1);
}

@inline
function isUnknown(hole: usize, p: i32): bool {
  return load<u8>(hole + p) == 1;
}

/** Gives a pixel the mean of its known neighbours; false, and nothing is given, if it has none. */
function takesMean(pixels: usize, hole: usize, width: i32, height: i32, p: i32): bool {
  const x = p % width;
  const y = p / width;
  let n = 0;
  let sum = i32x4.splat(0);
  for (let v = max(0, y - 1); v <= min(height - 1, y + 1); v++)
    for (let u = max(0, x - 1); u <= min(width - 1, x + 1); u++) {
      const q = v * width + u;
      if (isUnknown(hole, q)) continue;
      n++;
      sum = i32x4.add(sum, v128.load_ext<i16>(pixels + (<usize>q << 3)));
    }
  if (!n) return false;
  const to = pixels + (<usize>p << 3);
  store<i16>(to, <i16>(i32x4.extract_lane(sum, 0) / n));
  store<i16>(to, <i16>(i32x4.extract_lane(sum, 1) / n), 2);
  store<i16>(to, <i16>(i32x4.extract_lane(sum, 2) / n), 4);
  store<i16>(to, <i16>(i32x4.extract_lane(sum, 3) / n), 6);
  return true;
}

/** Gives a pixel what is mirrored at the known one nearest to it; false if it has none. */
function mirrors(
  pixels: usize,
  hole: usize,
  banned: usize,
  width: i32,
  height: i32,
  nearest: usize,
  p: i32,
): bool {
  const px = p % width;
  const py = p / width;
  let q = -1;
  let least = i32.MAX_VALUE;
  for (let v = max(0, py - 1); v <= min(height - 1, py + 1); v++)
    for (let u = max(0, px - 1); u <= min(width - 1, px + 1); u++) {
      const beside = v * width + u;
      if (isUnknown(hole, beside)) continue;
      const known = load<u8>(hole + beside) ? at32(nearest, beside) : beside;
      const right = (known % width) - px;
      const down = known / width - py;
      const distance = right * right + down * down;
      if (distance >= least) continue;
      q = known;
      least = distance;
    }
  if (q < 0) return false;
  put32(nearest, p, q);
  const x = 2 * (q % width) - px;
  const y = 2 * (q / width) - py;
  const mirrored = y * width + x;
  let from = q;
  if (x >= 0 && y >= 0 && x < width && y < height)
    if (!load<u8>(hole + mirrored) && !load<u8>(banned + mirrored)) from = mirrored;
  store<u64>(pixels + (<usize>p << 3), load<u64>(pixels + (<usize>from << 3)));
  return true;
}

/** Matches every target with a source by chance, within reach if one is soon found there. */
export function byChance(
  target: usize,
  match: usize,
  count: i32,
  source: usize,
  sources: usize,
  sourceCount: i32,
  width: i32,
  height: i32,
  reach: i32,
  sheets: i32,
  rows: i32,
  dice: usize,
): void {
  resume(dice);
  for (let i = 0; i < count; i++) {
    const p = at32(target, i);
    const x = p % width;
    const y = p / width;
    let found = -1;
    for (let k = 0; k < 8 && found < 0; k++) {
      const a = x + between(-reach, reach);
      const b = y + between(-reach, reach) + rows * between(0, sheets);
      if (isSource(source, a, b, width, height)) found = b * width + a;
    }
    if (found < 0) found = at32(sources, between(0, sourceCount - 1));
    put32(match, i, found);
  }
  leave(dice);
}

@inline
function isSource(source: usize, x: i32, y: i32, width: i32, height: i32): bool {
  if (x < 0 || y < 0 || x >= width || y >= height) return false;
  return load<u8>(source + y * width + x) != 0;
}

@inline
function within(v: i32, high: i32): i32 {
  return min(max(v, HALF), high - HALF - 1);
}

/** Takes over the matches of the level half the size. */
export function fromCoarse(
  target: usize,
  match: usize,
  count: i32,
  source: usize,
  sources: usize,
  sourceCount: i32,
  width: i32,
  height: i32,
  number: usize,
  coarse: usize,
  coarseWidth: i32,
  coarseHeight: i32,
  dice: usize,
): void {
  resume(dice);
  for (let i = 0; i < count; i++) {
    const p = at32(target, i);
    let x = p % width;
    let y = p / width;
    const cx = within(x >> 1, coarseWidth);
    const cy = within(y >> 1, coarseHeight);
    const j = at32(number, cy * coarseWidth + cx);
    if (j >= 0) {
      const m = at32(coarse, j);
      x += 2 * ((m % coarseWidth) - cx);
      y += 2 * (m / coarseWidth - cy);
    }
    x = within(x, width);
    y = within(y, height);
    let found = load<u8>(source + y * width + x) ? y * width + x : -1;
    for (let k = 0; k < 48 && found < 0; k++) {
      const reach = 1 + k / 3;
      const a = x + between(-reach, reach);
      const b = y + between(-reach, reach);
      if (isSource(source, a, b, width, height)) found = b * width + a;
    }
    if (found < 0) found = at32(sources, between(0, sourceCount - 1));
    put32(match, i, found);
  }
  leave(dice);
}
