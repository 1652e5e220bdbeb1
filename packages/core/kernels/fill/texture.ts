// The texture of levels: twin of src/fill/plain/prepare.ts. Whole numbers only.
import { at32, put32 } from './memory';

const REACH: i32 = 2;
/** Values run from 0 to here: quarters of an 8-bit code. */
const MOST: i32 = 1020;

/** Sums of steps of luma to the right and below, of the known pixels of some rows. */
export function steps(
  hole: usize,
  luma: usize,
  step: usize,
  width: i32,
  height: i32,
  _part: i32,
  from: i32,
  to: i32,
): void {
  for (let y = from; y < to; y++) stepsOf(hole, luma, step, width, y, y + 1 < height);
}

/**
 * Fourth value of every known pixel of some rows: mean absolute step of luma over known pixels within 2 px, times `weight`.
 * @param columns room for two words a column and 64 bytes for each range
 */
export function texture(
  pixels: usize,
  hole: usize,
  step: usize,
  columns: usize,
  width: i32,
  height: i32,
  weight: i32,
  part: i32,
  from: i32,
  to: i32,
): void {
  // Column sums over five rows, then five columns at a time.
  const sums = columns + <usize>part * ((<usize>width << 3) + 64);
  const counts = sums + (<usize>width << 2);
  memory.fill(sums, 0, <usize>width << 3);
  for (let y = max(0, from - REACH); y < min(height, from + REACH); y++)
    addRow(hole, step, sums, counts, width, y, 1);
  for (let y = from; y < to; y++) {
    const enter = y + REACH;
    if (enter < height) addRow(hole, step, sums, counts, width, enter, 1);
    const leave = y - REACH - 1;
    if (leave >= 0 && y > from) addRow(hole, step, sums, counts, width, leave, -1);
    const row = y * width;
    let x = 0;
    for (; x < min(REACH, width); x++) putMean(pixels, hole, sums, counts, width, row, x, weight);
    if (weight <= MOST_WEIGHT)
      for (; x + 4 + REACH <= width; x += 4) putMeans(pixels, hole, sums, counts, row, x, weight);
    for (; x < width; x++) putMean(pixels, hole, sums, counts, width, row, x, weight);
  }
}

/** Sums of steps times this are told exactly by single floats, and so are their quotients. */
const MOST_WEIGHT: i32 = 256;

/** Luma of some pixels. */
export function lumas(pixels: usize, luma: usize, _part: i32, from: usize, to: usize): void {
  const weights = i16x8(77, 150, 29, 0, 77, 150, 29, 0);
  for (let p = from; p < to; p++) {
    const sums = i32x4.dot_i16x8_s(v128.load64_zero(pixels + (p << 3)), weights);
    const y = i32x4.extract_lane(sums, 0) + i32x4.extract_lane(sums, 1);
    store<u16>(luma + (p << 1), <u16>((y + 128) >> 8));
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

/** Halves the texture of some pixels. */
export function soften(pixels: usize, _part: i32, from: i32, to: i32): void {
  const fourth = i16x8(0, 0, 0, -1, 0, 0, 0, -1);
  let p = from;
  for (; p + 2 <= to; p += 2) {
    const at = pixels + (<usize>p << 3);
    const v = v128.load(at);
    v128.store(at, v128.bitselect(i16x8.shr_u(v, 1), v, fourth));
  }
  for (; p < to; p++) {
    const at = pixels + (<usize>p << 3);
    store<u16>(at, load<u16>(at, 6) >> 1, 6);
  }
}
