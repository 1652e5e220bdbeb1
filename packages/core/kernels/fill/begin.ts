// First contents and first matches of a level: twin of src/fill/plain/begin.ts.
import { between, leave, resume } from './dice';
import { HALF, at32, put32 } from './memory';

/** Marks in `hole`: what is not filled yet, what of that is waiting for its ring, what is filled. */
const OPEN: u8 = 1;
const WAITING: u8 = 2;
const FILLED: u8 = 3;

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
  // Ring after ring lies in `waiting`: whatever has a known neighbour first.
  let end = 0;
  for (let k = 0; k < count; k++) {
    const p = at32(holes, k);
    if (hasKnown(hole, width, height, p)) put32(waiting, end++, p);
  }
  for (let k = 0; k < end; k++) store<u8>(hole + at32(waiting, k), WAITING);
  for (let ring = 0; ring < end; ) {
    const last = end;
    for (let k = ring; k < last; k++) {
      const p = at32(waiting, k);
      if (nearest) mirror(pixels, hole, banned, width, height, nearest, p);
      else takeMean(pixels, hole, width, height, p);
    }
    for (let k = ring; k < last; k++) store<u8>(hole + at32(waiting, k), FILLED);
    for (let k = ring; k < last; k++) end = addBeside(hole, width, height, at32(waiting, k), waiting, end);
    ring = last;
  }
  for (let k = 0; k < count; k++) store<u8>(hole + at32(holes, k), OPEN);
}

function hasKnown(hole: usize, width: i32, height: i32, p: i32): bool {
  const x = p % width;
  const y = p / width;
  for (let v = max(0, y - 1); v <= min(height - 1, y + 1); v++)
    for (let u = max(0, x - 1); u <= min(width - 1, x + 1); u++)
      if (!isUnknown(hole, v * width + u)) return true;
  return false;
}

/** Has the open ones about a pixel wait. @returns how many there are then */
function addBeside(hole: usize, width: i32, height: i32, p: i32, waiting: usize, end: i32): i32 {
  const x = p % width;
  const y = p / width;
  for (let v = max(0, y - 1); v <= min(height - 1, y + 1); v++)
    for (let u = max(0, x - 1); u <= min(width - 1, x + 1); u++) {
      const q = v * width + u;
      if (load<u8>(hole + q) != OPEN) continue;
      store<u8>(hole + q, WAITING);
      put32(waiting, end++, q);
    }
  return end;
}

@inline
function isUnknown(hole: usize, p: i32): bool {
  const mark = load<u8>(hole + p);
  return mark == OPEN || mark == WAITING;
}

/** Gives a pixel the mean of its known neighbours: it has some. */
function takeMean(pixels: usize, hole: usize, width: i32, height: i32, p: i32): void {
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
  const to = pixels + (<usize>p << 3);
  store<i16>(to, <i16>(i32x4.extract_lane(sum, 0) / n));
  store<i16>(to, <i16>(i32x4.extract_lane(sum, 1) / n), 2);
  store<i16>(to, <i16>(i32x4.extract_lane(sum, 2) / n), 4);
  store<i16>(to, <i16>(i32x4.extract_lane(sum, 3) / n), 6);
}

/** Gives a pixel what is mirrored at the known one nearest to it: one beside it is known. */
function mirror(
  pixels: usize,
  hole: usize,
  banned: usize,
  width: i32,
  height: i32,
  nearest: usize,
  p: i32,
): void {
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
  put32(nearest, p, q);
  const x = 2 * (q % width) - px;
  const y = 2 * (q / width) - py;
  const mirrored = y * width + x;
  let from = q;
  if (x >= 0 && y >= 0 && x < width && y < height)
    if (!load<u8>(hole + mirrored) && !load<u8>(banned + mirrored)) from = mirrored;
  store<u64>(pixels + (<usize>p << 3), load<u64>(pixels + (<usize>from << 3)));
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
