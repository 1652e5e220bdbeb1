// Levels made ready for matching: twin of src/fill/plain/prepare.ts. Whole numbers only.
import { chamfer } from '../chamfer';
import { HALF, at32, put32 } from './memory';

/** Forbidden because it lies beyond the picture. */
const OUTSIDE: i8 = 64;

/** Means of the known pixels of every 2x2, in some rows of what comes of them; a pixel with fewer than two known ones is hole. */
export function halve(
  pixels: usize,
  hole: usize,
  banned: usize,
  width: i32,
  smallPixels: usize,
  smallHole: usize,
  smallBanned: usize,
  smallWidth: i32,
  _part: i32,
  from: i32,
  to: i32,
): void {
  for (let y = from, q = from * smallWidth; y < to; y++) {
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

/** Marks a target in `number` until it has one. */
const TARGET: i32 = -2;

/**
 * Sorts the pixels of some rows: `source` 1 where a whole patch is known and allowed; of a patch that touches the hole `number` is
 * marked, of others it is -1. `counts` becomes targets, holes and sources, three words a row.
 * @param columns room for two bytes a column and 64 for each range
 */
export function survey(
  hole: usize,
  banned: usize,
  source: usize,
  number: usize,
  columns: usize,
  counts: usize,
  width: i32,
  height: i32,
  part: i32,
  from: i32,
  to: i32,
): void {
  const opens = columns + <usize>part * ((<usize>width << 1) + 64);
  const bans = opens + <usize>width + 32;
  const last = width - HALF;
  memory.fill(number + (<usize>(from * width) << 2), 255, <usize>((to - from) * width) << 2);
  for (let y = from; y < to; y++) {
    const row = y * width;
    put32(counts, 3 * y, 0);
    put32(counts, 3 * y + 1, countIn(hole + row, width));
    put32(counts, 3 * y + 2, 0);
    if (y < HALF || y >= height - HALF) continue;
    gatherRows(hole + row, opens, width);
    gatherRows(banned + row, bans, width);
    let t = 0;
    let s = 0;
    for (let x = HALF; x < last; x += 16) {
      const open = gatherColumns(opens + x);
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
          put32(number, p + k, TARGET);
          t++;
        } else if ((sources >> k) & 1) {
          store<u8>(source + p + k, 1);
          s++;
        }
    }
    put32(counts, 3 * y, t);
    put32(counts, 3 * y + 2, s);
  }
}

function countIn(mask: usize, width: i32): i32 {
  let count = 0;
  let x = 0;
  for (; x + 8 <= width; x += 8) count += <i32>popcnt<u64>(load<u64>(mask + x));
  for (; x < width; x++) count += <i32>load<u8>(mask + x);
  return count;
}

/**
 * Lists the targets, holes and every `step`-th source of some rows, and numbers the targets.
 * @param counts how many of each come before each row
 */
export function list(
  hole: usize,
  source: usize,
  number: usize,
  target: usize,
  holes: usize,
  sources: usize,
  counts: usize,
  width: i32,
  step: i32,
  _part: i32,
  from: i32,
  to: i32,
): void {
  let t = at32(counts, 3 * from);
  let h = at32(counts, 3 * from + 1);
  let s = at32(counts, 3 * from + 2);
  // Of the sources the next one to be taken, and its place in the list.
  let k = (s + step - 1) / step;
  let next = k * step;
  const end = to * width;
  for (let p = from * width; p < end; p++) {
    while (p + 8 <= end && !load<u64>(hole + p)) p += 8;
    if (p < end && load<u8>(hole + p)) put32(holes, h++, p);
  }
  for (let p = from * width; p < end; p++) {
    if (p + 4 <= end) {
      const marks = i32x4.eq(v128.load(number + (<usize>p << 2)), i32x4.splat(TARGET));
      if (!v128.any_true(marks)) {
        p += 3;
        continue;
      }
    }
    if (at32(number, p) != TARGET) continue;
    put32(number, p, t);
    put32(target, t++, p);
  }
  for (let p = from * width; p < end; p++) {
    // Whole stretches between those that are taken.
    if (p + 8 <= end) {
      const many = <i32>popcnt<u64>(load<u64>(source + p));
      if (s + many <= next) {
        s += many;
        p += 7;
        continue;
      }
    }
    if (!load<u8>(source + p)) continue;
    if (s == next) {
      put32(sources, k++, p);
      next += step;
    }
    s++;
  }
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

/** Depths in the hole, in thirds of a pixel. */
export function depths(hole: usize, depth: usize, width: i32, height: i32): void {
  chamfer(hole, depth, width, height);
}

@inline
function deep(depth: usize, p: i32): i32 {
  return <i32>load<u16>(depth + (<usize>p << 1));
}

/** Trust in some targets: `table` says it for each depth, in thirds of a pixel, up to `last`. */
export function trusts(
  depth: usize,
  target: usize,
  trust: usize,
  table: usize,
  last: i32,
  _part: i32,
  from: i32,
  to: i32,
): void {
  for (let i = from; i < to; i++) {
    const d = min(last, deep(depth, at32(target, i)));
    store<f32>(trust + (<usize>i << 2), load<f32>(table + (<usize>d << 2)));
  }
}
