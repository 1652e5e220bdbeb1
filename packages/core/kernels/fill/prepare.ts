// Levels made ready for matching: twin of src/fill/plain/prepare.ts. Whole numbers only.
import { HALF, at32, put32 } from './memory';

const REACH: i32 = 2;
/** Forbidden because it lies beyond the picture. */
const OUTSIDE: i8 = 64;
/** Values run from 0 to here: quarters of an 8-bit code. */
const MOST: i32 = 1020;

/** Fourth value of every known pixel: mean absolute step of luma over known pixels within 2 px, times `weight`. */
export function texture(
  pixels: usize,
  hole: usize,
  luma: usize,
  step: usize,
  columns: usize,
  width: i32,
  height: i32,
  weight: i32,
): void {
  lumas(pixels, luma, width * height);
  for (let y = 0; y < height; y++) stepsOf(hole, luma, step, width, y, y + 1 < height);
  // Column sums over five rows, then five columns at a time.
  const counts = columns + (<usize>width << 2);
  memory.fill(columns, 0, <usize>width << 3);
  for (let y = -REACH; y < height; y++) {
    const enter = y + REACH;
    if (enter < height) addRow(hole, step, columns, counts, width, enter, 1);
    const leave = y - REACH - 1;
    if (leave >= 0) addRow(hole, step, columns, counts, width, leave, -1);
    if (y < 0) continue;
    const row = y * width;
    let x = 0;
    for (; x < min(REACH, width); x++) putMean(pixels, hole, columns, counts, width, row, x, weight);
    if (weight <= MOST_WEIGHT)
      for (; x + 4 + REACH <= width; x += 4)
        putMeans(pixels, hole, columns, counts, row, x, weight);
    for (; x < width; x++) putMean(pixels, hole, columns, counts, width, row, x, weight);
  }
}

/** Sums of steps times this are told exactly by single floats, and so are their quotients. */
const MOST_WEIGHT: i32 = 256;

function lumas(pixels: usize, luma: usize, n: i32): void {
  const weights = i16x8(77, 150, 29, 0, 77, 150, 29, 0);
  for (let p = 0; p < n; p++, pixels += 8, luma += 2) {
    const sums = i32x4.dot_i16x8_s(v128.load64_zero(pixels), weights);
    const y = i32x4.extract_lane(sums, 0) + i32x4.extract_lane(sums, 1);
    store<u16>(luma, <u16>((y + 128) >> 8));
  }
}

/** Sums of the steps from a row's known pixels to those known to the right and below. */
function stepsOf(
  hole: usize,
  luma: usize,
  step: usize,
  width: i32,
  y: i32,
  hasBelow: bool,
): void {
  const row = y * width;
  let x = 0;
  if (hasBelow)
    for (; x + 8 < width; x += 8) {
      const p = <usize>(row + x);
      const at = luma + (p << 1);
      const here = v128.load(at);
      const open = isOpen(hole + p);
      const right = v128.or(open, isOpen(hole + p + 1));
      const below = v128.or(open, isOpen(hole + p + width));
      const across = i16x8.abs(i16x8.sub(v128.load(at, 2), here));
      const down = i16x8.abs(i16x8.sub(v128.load(at + (<usize>width << 1)), here));
      v128.store(
        step + (p << 1),
        i16x8.add(v128.andnot(across, right), v128.andnot(down, below)),
      );
    }
  for (; x < width; x++) {
    const p = row + x;
    let g = 0;
    if (!load<u8>(hole + p)) {
      const at = luma + (<usize>p << 1);
      const here = <i32>load<u16>(at);
      if (x + 1 < width && !load<u8>(hole + p + 1)) g += abs(<i32>load<u16>(at, 2) - here);
      if (hasBelow && !load<u8>(hole + p + width))
        g += abs(<i32>load<u16>(at + (<usize>width << 1)) - here);
    }
    store<u16>(step + (<usize>p << 1), <u16>g);
  }
}

/** All ones where eight bytes are not 0. */
@inline
function isOpen(at: usize): v128 {
  return i16x8.ne(v128.load8x8_u(at), i16x8.splat(0));
}

@inline
function addRow(
  hole: usize,
  step: usize,
  sums: usize,
  counts: usize,
  width: i32,
  y: i32,
  sign: i32,
): void {
  const row = y * width;
  let x = 0;
  for (; x + 4 <= width; x += 4) {
    const p = <usize>(row + x);
    const at = <usize>x << 2;
    const by = i32x4.mul(v128.load16x4_u(step + (p << 1)), i32x4.splat(sign));
    v128.store(sums + at, i32x4.add(v128.load(sums + at), by));
    const open = i32x4.extend_low_i16x8_u(
      i16x8.extend_low_i8x16_u(v128.load32_zero(hole + p)),
    );
    const known = i32x4.mul(i32x4.sub(i32x4.splat(1), open), i32x4.splat(sign));
    v128.store(counts + at, i32x4.add(v128.load(counts + at), known));
  }
  for (; x < width; x++) {
    const p = row + x;
    put32(sums, x, at32(sums, x) + sign * <i32>load<u16>(step + (<usize>p << 1)));
    put32(counts, x, at32(counts, x) + sign * (1 - <i32>load<u8>(hole + p)));
  }
}

function putMean(
  pixels: usize,
  hole: usize,
  sums: usize,
  counts: usize,
  width: i32,
  row: i32,
  x: i32,
  weight: i32,
): void {
  if (load<u8>(hole + row + x)) return;
  let sum = 0;
  let count = 0;
  for (let u = max(0, x - REACH); u <= min(width - 1, x + REACH); u++) {
    sum += at32(sums, u);
    count += at32(counts, u);
  }
  const mean = <u16>min(MOST, (weight * sum) / max(1, count));
  store<u16>(pixels + (<usize>(row + x) << 3), mean, 6);
}

/** The same for four pixels of which none is near the row's ends. */
@inline
function putMeans(
  pixels: usize,
  hole: usize,
  sums: usize,
  counts: usize,
  row: i32,
  x: i32,
  weight: i32,
): void {
  const open = load<u32>(hole + row + x);
  if (open == 0x01010101) return;
  const from = <usize>(x - REACH) << 2;
  let sum = i32x4.splat(0);
  let count = i32x4.splat(0);
  for (let at = from; at <= from + 16; at += 4) {
    sum = i32x4.add(sum, v128.load(sums + at));
    count = i32x4.add(count, v128.load(counts + at));
  }
  const whole = f32x4.convert_i32x4_s(i32x4.mul(sum, i32x4.splat(weight)));
  const parts = f32x4.convert_i32x4_s(i32x4.max_s(count, i32x4.splat(1)));
  const means = i32x4.min_s(
    i32x4.trunc_sat_f32x4_s(f32x4.div(whole, parts)),
    i32x4.splat(MOST),
  );
  const to = pixels + (<usize>(row + x) << 3);
  if (!(open & 0xff)) store<u16>(to, <u16>i32x4.extract_lane(means, 0), 6);
  if (!(open & 0xff00)) store<u16>(to, <u16>i32x4.extract_lane(means, 1), 14);
  if (!(open & 0xff0000)) store<u16>(to, <u16>i32x4.extract_lane(means, 2), 22);
  if (!(open & 0xff000000)) store<u16>(to, <u16>i32x4.extract_lane(means, 3), 30);
}

/** Halves the texture. */
export function soften(pixels: usize, count: i32): void {
  const fourth = i16x8(0, 0, 0, -1, 0, 0, 0, -1);
  let p = 0;
  for (; p + 2 <= count; p += 2) {
    const at = pixels + (<usize>p << 3);
    const v = v128.load(at);
    v128.store(at, v128.bitselect(i16x8.shr_u(v, 1), v, fourth));
  }
  for (; p < count; p++) {
    const at = pixels + (<usize>p << 3);
    store<u16>(at, load<u16>(at, 6) >> 1, 6);
  }
}

/** Means of the known pixels of every 2x2; a pixel with fewer than two known ones is hole. */
export function halve(
  pixels: usize,
  hole: usize,
  banned: usize,
  width: i32,
  smallPixels: usize,
  smallHole: usize,
  smallBanned: usize,
  smallWidth: i32,
  smallHeight: i32,
): void {
  for (let y = 0, q = 0; y < smallHeight; y++) {
    for (let x = 0; x < smallWidth; x++, q++) {
      const p = <usize>(2 * y * width + 2 * x);
      const under = p + width;
      const bans = load<u16>(banned + p) | load<u16>(banned + under);
      store<u8>(smallBanned + q, <u8>(bans | (bans >> 8)));
      const upper = <u32>load<u16>(hole + p);
      const lower = <u32>load<u16>(hole + under);
      const known = 4 - <i32>popcnt<u32>(upper | (lower << 16));
      store<u8>(smallHole + q, known < 2 ? 1 : 0);
      if (known < 2) continue;
      const to = smallPixels + (<usize>q << 3);
      const up = pixels + (p << 3);
      const down = pixels + (under << 3);
      if (known == 4) {
        const both = i16x8.add(v128.load(up), v128.load(down));
        const sum = i16x8.add(both, i8x16.shuffle(both, both, 8, 9, 10, 11, 12, 13, 14, 15, 0, 1, 2, 3, 4, 5, 6, 7));
        v128.store64_lane(to, i16x8.shr_u(i16x8.add(sum, i16x8.splat(2)), 2), 0);
        continue;
      }
      let sum = i16x8.splat(0);
      if (!(upper & 1)) sum = v128.load64_zero(up);
      if (!(upper & 256)) sum = i16x8.add(sum, v128.load64_zero(up + 8));
      if (!(lower & 1)) sum = i16x8.add(sum, v128.load64_zero(down));
      if (!(lower & 256)) sum = i16x8.add(sum, v128.load64_zero(down + 8));
      const half = known >> 1;
      store<u16>(to, <u16>((<i32>i16x8.extract_lane_u(sum, 0) + half) / known));
      store<u16>(to, <u16>((<i32>i16x8.extract_lane_u(sum, 1) + half) / known), 2);
      store<u16>(to, <u16>((<i32>i16x8.extract_lane_u(sum, 2) + half) / known), 4);
      store<u16>(to, <u16>((<i32>i16x8.extract_lane_u(sum, 3) + half) / known), 6);
    }
  }
}

/**
 * Sorts pixels: `source` 1 where a whole patch is known and allowed, `number` and `target` the patches that touch the
 * hole, `holes` the pixels to be filled. `counts` becomes targets, holes, sources.
 * @param columns room for two bytes a column and 64
 */
export function survey(
  hole: usize,
  banned: usize,
  source: usize,
  number: usize,
  target: usize,
  holes: usize,
  columns: usize,
  counts: usize,
  width: i32,
  height: i32,
): void {
  const n = width * height;
  memory.fill(number, 255, <usize>n << 2);
  let h = 0;
  for (let p = 0; p < n; p++) {
    while (p + 8 <= n && !load<u64>(hole + p)) p += 8;
    if (p < n && load<u8>(hole + p)) put32(holes, h++, p);
  }
  const bans = columns + <usize>width + 32;
  let t = 0;
  let s = 0;
  const last = width - HALF;
  for (let y = HALF; y < height - HALF; y++) {
    const row = y * width;
    gatherRows(hole + row, columns, width);
    gatherRows(banned + row, bans, width);
    for (let x = HALF; x < last; x += 16) {
      const open = gatherColumns(columns + x);
      const ban = gatherColumns(bans + x);
      const p = row + x;
      if (x + 16 <= last && !v128.any_true(v128.or(open, ban))) {
        v128.store(source + p, i8x16.splat(1));
        s += 16;
        continue;
      }
      const targets = i8x16.bitmask(
        v128.andnot(
          i8x16.ne(open, i8x16.splat(0)),
          i8x16.ne(v128.and(ban, i8x16.splat(OUTSIDE)), i8x16.splat(0)),
        ),
      );
      const sources = i8x16.bitmask(i8x16.eq(v128.or(open, ban), i8x16.splat(0)));
      for (let k = 0; k < min(16, last - x); k++)
        if ((targets >> k) & 1) {
          put32(number, p + k, t);
          put32(target, t++, p + k);
        } else if ((sources >> k) & 1) {
          store<u8>(source + p + k, 1);
          s++;
        }
    }
  }
  put32(counts, 0, t);
  put32(counts, 1, h);
  put32(counts, 2, s);
}

/** What a row's columns have in them, a patch high. */
@inline
function gatherRows(row: usize, columns: usize, width: i32): void {
  for (let x = 0; x < width; x += 16) {
    let any = v128.load(row + x);
    for (let y = 1; y <= HALF; y++) {
      const by = <usize>(y * width);
      any = v128.or(any, v128.or(v128.load(row + x - by), v128.load(row + x + by)));
    }
    v128.store(columns + x, any);
  }
}

/** What sixteen patches have in them. */
@inline
function gatherColumns(at: usize): v128 {
  let any = v128.load(at);
  for (let x: usize = 1; x <= <usize>HALF; x++)
    any = v128.or(any, v128.or(v128.load(at - x), v128.load(at + x)));
  return any;
}

const FAR: i32 = 60_000;

/** Chamfer distance into the hole in thirds of a pixel (Borgefors 1986, weights 3 and 4); the border counts as inside. */
export function depths(hole: usize, depth: usize, width: i32, height: i32): void {
  const n = width * height;
  memory.fill(depth, 0, <usize>n << 1);
  for (let p = 0; p < n; p++) {
    while (p + 8 <= n && !load<u64>(hole + p)) p += 8;
    if (p >= n || !load<u8>(hole + p)) continue;
    const x = p % width;
    let d = FAR;
    if (x > 0) d = min(d, deep(depth, p - 1) + 3);
    if (p >= width) {
      d = min(d, deep(depth, p - width) + 3);
      if (x > 0) d = min(d, deep(depth, p - width - 1) + 4);
      if (x + 1 < width) d = min(d, deep(depth, p - width + 1) + 4);
    }
    store<u16>(depth + (<usize>p << 1), <u16>d);
  }
  for (let p = n - 1; p >= 0; p--) {
    while (p >= 8 && !load<u64>(hole + p - 7)) p -= 8;
    if (!load<u8>(hole + p)) continue;
    const x = p % width;
    let d = deep(depth, p);
    if (x + 1 < width) d = min(d, deep(depth, p + 1) + 3);
    if (p + width < n) {
      d = min(d, deep(depth, p + width) + 3);
      if (x + 1 < width) d = min(d, deep(depth, p + width + 1) + 4);
      if (x > 0) d = min(d, deep(depth, p + width - 1) + 4);
    }
    store<u16>(depth + (<usize>p << 1), <u16>d);
  }
}

@inline
function deep(depth: usize, p: i32): i32 {
  return <i32>load<u16>(depth + (<usize>p << 1));
}

/** Trust in every target: `table` says it for each depth, in thirds of a pixel, up to `last`. */
export function trusts(
  depth: usize,
  target: usize,
  trust: usize,
  table: usize,
  last: i32,
  count: i32,
): void {
  for (let i = 0; i < count; i++) {
    const d = min(last, deep(depth, at32(target, i)));
    store<f32>(trust + (<usize>i << 2), load<f32>(table + (<usize>d << 2)));
  }
}
