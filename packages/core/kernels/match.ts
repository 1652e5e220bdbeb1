// AssemblyScript twin of src/fill/match.ts: the same matches, several times as fast. Keep both in step.

const HALF: i32 = 3;
const ROWS: i32 = 7;

/** Squares of the differences of 16 bytes, added up in four lanes. */
@inline
function squares(a: v128, b: v128, mask: v128): v128 {
  const d = v128.and(v128.sub<u8>(v128.max<u8>(a, b), v128.min<u8>(a, b)), mask);
  const low = i16x8.extend_low_i8x16_u(d);
  const high = i16x8.extend_high_i8x16_u(d);
  return i32x4.add(i32x4.dot_i16x8_s(low, low), i32x4.dot_i16x8_s(high, high));
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

/** Squared difference of two patches given their top left bytes; at least `limit` once that is reached. */
@inline
function difference(a: usize, b: usize, stride: usize, limit: i32): i32 {
  const all = i8x16.splat(-1);
  // A row is 28 bytes: 0..15, and 12..27 without the four that were counted already.
  const rest = i32x4(0, -1, -1, -1);
  let sum = i32x4.splat(0);
  let i = a;
  let j = b;
  for (let y: i32 = 0; y < ROWS; y++) {
    sum = i32x4.add(sum, squares(v128.load(i), v128.load(j), all));
    sum = i32x4.add(sum, squares(v128.load(i + 12), v128.load(j + 12), rest));
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
  return pixels + (<usize>(p - HALF - HALF * width) << 2);
}

let state: u32 = 1;

@inline
function begin(seed: i32): void {
  let s: u32 = <u32>((seed ^ 0x6d2b79f5) * <i32>0x85ebca6b) ^ 0x9e3779b9;
  s = (s ^ (s >> 15)) * 0x2c1b3c6d;
  state = s ? s : 0x1234567;
}

/** A whole number low..high. */
@inline
function between(low: i32, high: i32): i32 {
  state ^= state << 13;
  state ^= state >> 17;
  state ^= state << 5;
  return low + <i32>((<u64>state * <u64>(high - low + 1)) >> 32);
}

@inline
function at32(base: usize, i: i32): i32 {
  return load<i32>(base + (<usize>i << 2));
}

export function measure(
  pixels: usize,
  target: usize,
  match: usize,
  distance: usize,
  width: i32,
  count: i32,
): void {
  const stride = <usize>width << 2;
  for (let i = 0; i < count; i++) {
    const d = difference(
      topLeft(pixels, at32(target, i), width),
      topLeft(pixels, at32(match, i), width),
      stride,
      i32.MAX_VALUE,
    );
    store<i32>(distance + (<usize>i << 2), d);
  }
}

export function improve(
  pixels: usize,
  source: usize,
  number: usize,
  target: usize,
  match: usize,
  distance: usize,
  width: i32,
  height: i32,
  count: i32,
  pass: i32,
  seed: i32,
): void {
  const stride = <usize>width << 2;
  const backwards = (pass & 1) == 1;
  const step = backwards ? 1 : -1;
  const reach = max(width, height);
  let row = -1;
  for (let k = 0; k < count; k++) {
    const i = backwards ? count - 1 - k : k;
    const p = at32(target, i);
    const y = p / width;
    if (y != row) {
      row = y;
      begin((seed * <i32>0x9e3779b1) ^ (pass * 7919 + y * 104729));
    }
    const mine = topLeft(pixels, p, width);
    let best = at32(match, i);
    let least = at32(distance, i);
    for (let side = 0; side < 2; side++) {
      const shift = side == 0 ? step : step * width;
      const j = at32(number, p + shift);
      if (j < 0) continue;
      const candidate = at32(match, j) - shift;
      if (candidate == best || !load<u8>(source + candidate)) continue;
      const d = difference(mine, topLeft(pixels, candidate, width), stride, least);
      if (d < least) {
        least = d;
        best = candidate;
      }
    }
    for (let radius = reach; radius >= 1; radius >>= 1) {
      const bx = best % width;
      const by = best / width;
      const cx = bx + between(-radius, radius);
      const cy = by + between(-radius, radius);
      if (cx < HALF || cy < HALF || cx >= width - HALF || cy >= height - HALF) continue;
      const candidate = cy * width + cx;
      if (candidate == best || !load<u8>(source + candidate)) continue;
      const d = difference(mine, topLeft(pixels, candidate, width), stride, least);
      if (d < least) {
        least = d;
        best = candidate;
      }
    }
    store<i32>(match + (<usize>i << 2), best);
    store<i32>(distance + (<usize>i << 2), least);
  }
}

/** Stands in for exp(-t) in exact arithmetic: (1 + t/8 + t^2/128)^-8. */
@inline
function fallOff(t: f64): f64 {
  const base = 1.0 + t / 8.0 + (t * t) / 128.0;
  const two = base * base;
  const four = two * two;
  return 1.0 / (four * four);
}

/** Twin of votePlainly in src/fill/vote.ts. `scratch` has room for 98 words. */
export function vote(
  pixels: usize,
  number: usize,
  match: usize,
  distance: usize,
  trust: usize,
  holes: usize,
  scratch: usize,
  width: i32,
  height: i32,
  count: i32,
  sharpness: f64,
): void {
  for (let k = 0; k < count; k++) {
    const p = at32(holes, k);
    const x = p % width;
    const y = p / width;
    let n = 0;
    let least = i32.MAX_VALUE;
    let mean: f64 = 0;
    for (let dy = -HALF; dy <= HALF; dy++) {
      if (y + dy < HALF || y + dy >= height - HALF) continue;
      for (let dx = -HALF; dx <= HALF; dx++) {
        if (x + dx < HALF || x + dx >= width - HALF) continue;
        const shift = dy * width + dx;
        const i = at32(number, p + shift);
        if (i < 0) continue;
        store<i32>(scratch + (<usize>n << 3), i);
        store<i32>(scratch + (<usize>n << 3) + 4, shift);
        n++;
        const d = at32(distance, i);
        mean += <f64>d;
        if (d < least) least = d;
      }
    }
    if (!n) continue;
    const scale = max((mean / <f64>n) * sharpness, 49.0 * 4.0 * sharpness);
    let weight: f64 = 0;
    let r: f64 = 0;
    let g: f64 = 0;
    let b: f64 = 0;
    let t: f64 = 0;
    for (let m = 0; m < n; m++) {
      const i = at32(scratch, 2 * m);
      const w =
        <f64>load<f32>(trust + (<usize>i << 2)) *
        fallOff(<f64>(at32(distance, i) - least) / scale);
      const from = pixels + (<usize>(at32(match, i) - at32(scratch, 2 * m + 1)) << 2);
      weight += w;
      r += w * <f64>load<u8>(from);
      g += w * <f64>load<u8>(from, 1);
      b += w * <f64>load<u8>(from, 2);
      t += w * <f64>load<u8>(from, 3);
    }
    const to = pixels + (<usize>p << 2);
    store<u8>(to, <u8>(<i32>(r / weight + 0.5)));
    store<u8>(to, <u8>(<i32>(g / weight + 0.5)), 1);
    store<u8>(to, <u8>(<i32>(b / weight + 0.5)), 2);
    store<u8>(to, <u8>(<i32>(t / weight + 0.5)), 3);
  }
}
