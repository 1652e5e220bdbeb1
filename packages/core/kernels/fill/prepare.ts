// Levels made ready for matching: twin of src/fill/plain/prepare.ts. Whole numbers only.
import { HALF, at32, put32 } from './memory';

const REACH: i32 = 2;
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
  const n = width * height;
  for (let p = 0; p < n; p++) {
    const at = pixels + (<usize>p << 3);
    const y = 77 * <i32>load<u16>(at) + 150 * <i32>load<u16>(at, 2) + 29 * <i32>load<u16>(at, 4);
    store<u16>(luma + (<usize>p << 1), <u16>((y + 128) >> 8));
  }
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p++) {
      let g = 0;
      if (!load<u8>(hole + p)) {
        const at = luma + (<usize>p << 1);
        const here = <i32>load<u16>(at);
        if (x + 1 < width && !load<u8>(hole + p + 1)) g += abs(<i32>load<u16>(at, 2) - here);
        if (y + 1 < height && !load<u8>(hole + p + width))
          g += abs(<i32>load<u16>(at + (<usize>width << 1)) - here);
      }
      store<u16>(step + (<usize>p << 1), <u16>g);
    }
  }
  // Column sums over five rows, then five columns at a time.
  const counts = columns + (<usize>width << 2);
  memory.fill(columns, 0, <usize>width << 3);
  for (let y = -REACH; y < height; y++) {
    const enter = y + REACH;
    if (enter < height) addRow(hole, step, columns, counts, width, enter, 1);
    const leave = y - REACH - 1;
    if (leave >= 0) addRow(hole, step, columns, counts, width, leave, -1);
    if (y < 0) continue;
    let sum = 0;
    let count = 0;
    for (let x = 0; x < min(REACH, width); x++) {
      sum += at32(columns, x);
      count += at32(counts, x);
    }
    for (let x = 0, p = y * width; x < width; x++, p++) {
      if (x + REACH < width) {
        sum += at32(columns, x + REACH);
        count += at32(counts, x + REACH);
      }
      if (x - REACH - 1 >= 0) {
        sum -= at32(columns, x - REACH - 1);
        count -= at32(counts, x - REACH - 1);
      }
      if (!load<u8>(hole + p))
        store<u16>(pixels + (<usize>p << 3), <u16>min(MOST, (weight * sum) / max(1, count)), 6);
    }
  }
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
  for (let x = 0, p = y * width; x < width; x++, p++) {
    put32(sums, x, at32(sums, x) + sign * <i32>load<u16>(step + (<usize>p << 1)));
    put32(counts, x, at32(counts, x) + sign * (1 - <i32>load<u8>(hole + p)));
  }
}

/** Halves the texture. */
export function soften(pixels: usize, count: i32): void {
  for (let p = 0; p < count; p++) {
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
      const p = 2 * y * width + 2 * x;
      let known = 0;
      let r = 0;
      let g = 0;
      let b = 0;
      let t = 0;
      let ban: u8 = 0;
      for (let k = 0; k < 4; k++) {
        const i = p + (k & 1) + (k >> 1) * width;
        ban |= load<u8>(banned + i);
        if (load<u8>(hole + i)) continue;
        const at = pixels + (<usize>i << 3);
        known++;
        r += <i32>load<u16>(at);
        g += <i32>load<u16>(at, 2);
        b += <i32>load<u16>(at, 4);
        t += <i32>load<u16>(at, 6);
      }
      store<u8>(smallBanned + q, ban);
      store<u8>(smallHole + q, known < 2 ? 1 : 0);
      if (known < 2) continue;
      const half = known >> 1;
      const to = smallPixels + (<usize>q << 3);
      store<u16>(to, <u16>((r + half) / known));
      store<u16>(to, <u16>((g + half) / known), 2);
      store<u16>(to, <u16>((b + half) / known), 4);
      store<u16>(to, <u16>((t + half) / known), 6);
    }
  }
}

/**
 * Sorts pixels: `source` 1 where a whole patch is known and allowed, `number` and `target` the patches that touch the
 * hole, `holes` the pixels to be filled. `counts` becomes targets, holes, sources.
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
  for (let p = 0; p < n; p++) if (load<u8>(hole + p)) put32(holes, h++, p);
  const bans = columns + (<usize>width << 2);
  memory.fill(columns, 0, <usize>width << 3);
  let t = 0;
  let s = 0;
  for (let enter = 0; enter < height; enter++) {
    addMask(hole, columns, width, enter, 1);
    addMask(banned, bans, width, enter, 1);
    const leave = enter - 2 * HALF - 1;
    if (leave >= 0) {
      addMask(hole, columns, width, leave, -1);
      addMask(banned, bans, width, leave, -1);
    }
    const y = enter - HALF;
    if (y < HALF) continue;
    let open = 0;
    let forbidden = 0;
    for (let right = 0; right < width; right++) {
      open += at32(columns, right);
      forbidden += at32(bans, right);
      const left = right - 2 * HALF - 1;
      if (left >= 0) {
        open -= at32(columns, left);
        forbidden -= at32(bans, left);
      }
      const x = right - HALF;
      if (x < HALF) continue;
      const p = y * width + x;
      if (open && forbidden < OUTSIDE) {
        put32(number, p, t);
        put32(target, t++, p);
      } else if (!open && !forbidden) {
        store<u8>(source + p, 1);
        s++;
      }
    }
  }
  put32(counts, 0, t);
  put32(counts, 1, h);
  put32(counts, 2, s);
}

@inline
function addMask(mask: usize, sums: usize, width: i32, y: i32, sign: i32): void {
  for (let x = 0, p = y * width; x < width; x++, p++)
    put32(sums, x, at32(sums, x) + sign * <i32>load<u8>(mask + p));
}

/** A patch whose forbidden pixels add up to this reaches beyond the picture. */
const OUTSIDE: i32 = 64;
const FAR: i32 = 60_000;

/** Chamfer distance into the hole in thirds of a pixel (Borgefors 1986, weights 3 and 4); the border counts as inside. */
export function depths(hole: usize, depth: usize, width: i32, height: i32): void {
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      let d = 0;
      if (load<u8>(hole + p)) {
        d = FAR;
        if (x > 0) d = min(d, deep(depth, p - 1) + 3);
        if (y > 0) {
          d = min(d, deep(depth, p - width) + 3);
          if (x > 0) d = min(d, deep(depth, p - width - 1) + 4);
          if (x + 1 < width) d = min(d, deep(depth, p - width + 1) + 4);
        }
      }
      store<u16>(depth + (<usize>p << 1), <u16>d);
    }
  for (let y = height - 1, p = width * height - 1; y >= 0; y--)
    for (let x = width - 1; x >= 0; x--, p--) {
      let d = deep(depth, p);
      if (!d) continue;
      if (x + 1 < width) d = min(d, deep(depth, p + 1) + 3);
      if (y + 1 < height) {
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
