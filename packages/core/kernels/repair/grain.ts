// How fine a picture's finest detail is, and grain added to it: twin of src/repair/plain/grain.ts.

import { putValue, sample } from './memory';

/** What the B3 spline's five taps reach to either side. */
const HALF: i32 = 2;
/** Coverage from which on a pixel is the site's. */
const WHOLLY: f32 = <f32>0.99;

@inline
function cover(coverage: usize, p: i32): f32 {
  return load<f32>(coverage + (<usize>p << 2));
}

@inline
function isThere(coverage: usize, p: i32, within: bool): bool {
  return within ? cover(coverage, p) >= WHOLLY : cover(coverage, p) <= 0;
}

/** The box of what is covered at all: left, top, right and bottom, one past the last; nothing is told where nothing is. */
export function box(coverage: usize, width: i32, height: i32, out: usize): void {
  let left = width;
  let right = 0;
  let top = height;
  let bottom = 0;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let x = 0;
    while (x < width && cover(coverage, row + x) <= 0) x++;
    if (x == width) continue;
    top = min(top, y);
    bottom = y + 1;
    left = min(left, x);
    let last = width;
    while (last > right && cover(coverage, row + last - 1) <= 0) last--;
    right = max(right, last);
  }
  if (!bottom) return;
  store<i32>(out, left);
  store<i32>(out, top, 4);
  store<i32>(out, right, 8);
  store<i32>(out, bottom, 12);
}

/**
 * Pixels of a rectangle all of whose surroundings lie within the site, or outside.
 * @param step of each row's pixels one in so many is asked, other ones from row to row
 * @param counts becomes how many there are, and how many lie there themselves
 */
export function places(
  coverage: usize,
  width: i32,
  left: i32,
  top: i32,
  right: i32,
  bottom: i32,
  step: i32,
  within: bool,
  out: usize,
  counts: usize,
): void {
  let count = 0;
  let all = 0;
  for (let y = top; y < bottom; y++)
    for (let x = left + (y % step); x < right; x += step) {
      const p = y * width + x;
      if (!isThere(coverage, p, within)) continue;
      all++;
      if (!isWhole(coverage, p, width, within)) continue;
      store<i32>(out + (<usize>count << 2), p);
      count++;
    }
  store<i32>(counts, count);
  store<i32>(counts, all, 4);
}

/** Whether all that the spline reads lies on one side. */
@inline
function isWhole(coverage: usize, p: i32, width: i32, within: bool): bool {
  for (let v = -HALF; v <= HALF; v += HALF)
    for (let u = -HALF; u <= HALF; u += HALF)
      if (!isThere(coverage, p + v * width + u, within)) return false;
  return true;
}

/** Sizes of what the spline takes off every `each`-th of some pixels, doubles. */
@inline
export function finenessOf<T>(
  samples: usize,
  width: i32,
  channels: i32,
  colours: i32,
  places: usize,
  count: i32,
  each: i32,
  out: usize,
): void {
  for (let k = 0; k < count; k += each, out += 8) {
    const p = load<i32>(places + (<usize>k << 2));
    let soft: f64 = 0;
    for (let v = -HALF; v <= HALF; v++)
      for (let u = -HALF; u <= HALF; u++)
        soft += tap(v) * tap(u) * grey<T>(samples, p + v * width + u, channels, colours);
    store<f64>(out, abs(grey<T>(samples, p, channels, colours) - soft));
  }
}

/** Of the B3 spline. */
@inline
function tap(k: i32): f64 {
  return k == 0 ? 0.375 : k * k == 1 ? 0.25 : 0.0625;
}

@inline
function grey<T>(samples: usize, p: i32, channels: i32, colours: i32): f64 {
  let sum: f64 = 0;
  for (let c = p * channels; c < p * channels + colours; c++) sum += sample<T>(samples, c);
  return sum / <f64>colours;
}

/** Adds noise of a deviation to the covered pixels of a rectangle, alike in all colours. @param state of the noise's chance */
@inline
export function grainOf<T>(
  samples: usize,
  coverage: usize,
  width: i32,
  channels: i32,
  colours: i32,
  left: i32,
  top: i32,
  right: i32,
  bottom: i32,
  deviation: f64,
  white: f64,
  state: u32,
): void {
  let chance = state;
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++) {
      const p = y * width + x;
      if (cover(coverage, p) <= 0) continue;
      // Four even ones add up to nearly a normal law, of variance a third.
      let four: f64 = 0;
      for (let k = 0; k < 4; k++) {
        chance ^= chance << 13;
        chance ^= chance >> 17;
        chance ^= chance << 5;
        four += <f64>chance / 4294967296;
      }
      const by = <f64>cover(coverage, p) * deviation * Math.sqrt(3) * (four - 2);
      for (let i = p * channels; i < p * channels + colours; i++) {
        const v = sample<T>(samples, i) + by;
        const held = v <= 0 ? 0 : v >= white ? white : white > 1 ? Math.floor(v + 0.5) : v;
        putValue<T>(samples, i, held);
      }
    }
}
