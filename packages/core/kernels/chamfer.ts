// Chamfer distances in masks, in thirds of a pixel (Borgefors 1986, weights 3 and 4), eight pixels at a time. Whole numbers only.

/** What has no outside is as deep as this. */
export const FAR: i32 = 60_000;
const STRAIGHT: i32 = 3;
const ASLANT: i32 = 4;

@inline
function at(depth: usize, p: i32): i32 {
  return <i32>load<u16>(depth + (<usize>p << 1));
}

@inline
function more(v: v128, by: i32): v128 {
  return i16x8.add_sat_u(v, i16x8.splat(<i16>by));
}

/**
 * Distance into a mask, two bytes a pixel; 0 outside, the border counts as inside.
 * @param mask a byte a pixel, 0 = outside @param depth room for it @returns the greatest that has an end
 */
export function chamfer(mask: usize, depth: usize, width: i32, height: i32): i32 {
  memory.fill(depth, 0, <usize>(width * height) << 1);
  for (let y = 0; y < height; y++) goRight(mask, depth, width, y);
  let most = 0;
  for (let y = height - 1; y >= 0; y--) most = max(most, goLeft(mask, depth, width, height, y));
  return most;
}

/** A row from those above and to the left. */
function goRight(mask: usize, depth: usize, width: i32, y: i32): void {
  const first = y * width;
  let before = FAR;
  let x = 0;
  while (x < width) {
    const p = first + x;
    // The first and the last pixels have no neighbours on one side.
    if (x && x + 8 < width) {
      const inside = load<u64>(mask + p);
      const to = depth + (<usize>p << 1);
      x += 8;
      if (!inside) {
        before = 0;
        continue;
      }
      let v = i16x8.splat(<i16>FAR);
      if (y) v = i16x8.min_u(v, fromRow(depth, p - width));
      v = v128.and(v, i16x8.ne(i16x8.extend_low_i8x16_u(i64x2.splat(inside)), i16x8.splat(0)));
      const far = i16x8.splat(<i16>FAR);
      v = i16x8.min_u(v, more(shiftUp1(v, far), STRAIGHT));
      v = i16x8.min_u(v, more(shiftUp2(v, far), 2 * STRAIGHT));
      v = i16x8.min_u(v, more(shiftUp4(v, far), 4 * STRAIGHT));
      v = i16x8.min_u(v, i16x8.add_sat_u(i16x8.splat(<i16>before), i16x8(3, 6, 9, 12, 15, 18, 21, 24)));
      v128.store(to, v);
      before = <i32>i16x8.extract_lane_u(v, 7);
      continue;
    }
    x++;
    if (!load<u8>(mask + p)) {
      before = 0;
      continue;
    }
    let d = min(FAR, before + STRAIGHT);
    if (y) d = min(d, fromPixels(depth, p - width, x > 1, x < width));
    store<u16>(depth + (<usize>p << 1), <u16>d);
    before = d;
  }
}

/** The same row from those below and to the right. @returns the greatest that has an end */
function goLeft(mask: usize, depth: usize, width: i32, height: i32, y: i32): i32 {
  const first = y * width;
  const isLast = y + 1 == height;
  const far = i16x8.splat(<i16>FAR);
  let before = FAR;
  let most = 0;
  let greatest = i16x8.splat(0);
  let x = width;
  while (x > 0) {
    // The eight before x.
    if (x < width && x > 8) {
      x -= 8;
      const p = first + x;
      const inside = load<u64>(mask + p);
      const to = depth + (<usize>p << 1);
      if (!inside) {
        before = 0;
        continue;
      }
      let v = v128.load(to);
      if (!isLast) v = i16x8.min_u(v, fromRow(depth, p + width));
      v = v128.and(v, i16x8.ne(i16x8.extend_low_i8x16_u(i64x2.splat(inside)), i16x8.splat(0)));
      v = i16x8.min_u(v, more(shiftDown1(v, far), STRAIGHT));
      v = i16x8.min_u(v, more(shiftDown2(v, far), 2 * STRAIGHT));
      v = i16x8.min_u(v, more(shiftDown4(v, far), 4 * STRAIGHT));
      v = i16x8.min_u(v, i16x8.add_sat_u(i16x8.splat(<i16>before), i16x8(24, 21, 18, 15, 12, 9, 6, 3)));
      v128.store(to, v);
      before = <i32>i16x8.extract_lane_u(v, 0);
      greatest = i16x8.max_u(greatest, v128.and(v, i16x8.lt_u(v, far)));
      continue;
    }
    x--;
    const p = first + x;
    if (!load<u8>(mask + p)) {
      before = 0;
      continue;
    }
    let d = min(at(depth, p), before + STRAIGHT);
    if (!isLast) d = min(d, fromPixels(depth, p + width, x > 0, x + 1 < width));
    store<u16>(depth + (<usize>p << 1), <u16>d);
    before = d;
    if (d < FAR) most = max(most, d);
  }
  greatest = i16x8.max_u(greatest, shiftDown4(greatest, i16x8.splat(0)));
  greatest = i16x8.max_u(greatest, shiftDown2(greatest, i16x8.splat(0)));
  greatest = i16x8.max_u(greatest, shiftDown1(greatest, i16x8.splat(0)));
  return max(most, <i32>i16x8.extract_lane_u(greatest, 0));
}

/** What three pixels of the next row make of each of eight. */
@inline
function fromRow(depth: usize, q: i32): v128 {
  const row = depth + (<usize>q << 1);
  const aslant = more(i16x8.min_u(v128.load(row - 2), v128.load(row + 2)), ASLANT);
  return i16x8.min_u(more(v128.load(row), STRAIGHT), aslant);
}

function fromPixels(depth: usize, q: i32, isLeft: bool, isRight: bool): i32 {
  let d = at(depth, q) + STRAIGHT;
  if (isLeft) d = min(d, at(depth, q - 1) + ASLANT);
  if (isRight) d = min(d, at(depth, q + 1) + ASLANT);
  return d;
}

@inline
function shiftUp1(v: v128, far: v128): v128 {
  return v128.shuffle<u16>(far, v, 0, 8, 9, 10, 11, 12, 13, 14);
}

@inline
function shiftUp2(v: v128, far: v128): v128 {
  return v128.shuffle<u16>(far, v, 0, 1, 8, 9, 10, 11, 12, 13);
}

@inline
function shiftUp4(v: v128, far: v128): v128 {
  return v128.shuffle<u16>(far, v, 0, 1, 2, 3, 8, 9, 10, 11);
}

@inline
function shiftDown1(v: v128, far: v128): v128 {
  return v128.shuffle<u16>(v, far, 1, 2, 3, 4, 5, 6, 7, 8);
}

@inline
function shiftDown2(v: v128, far: v128): v128 {
  return v128.shuffle<u16>(v, far, 2, 3, 4, 5, 6, 7, 8, 9);
}

@inline
function shiftDown4(v: v128, far: v128): v128 {
  return v128.shuffle<u16>(v, far, 4, 5, 6, 7, 8, 9, 10, 11);
}
