// Distances in masks: twin of src/shape/plain/depth.ts; slopes beside them: twin of src/find/plain/tensor.ts.

const FAR: f64 = 1e6;
const DIAGONAL: f64 = 4.0 / 3.0;

@inline
function at(depth: usize, p: i32): f64 {
  return <f64>load<f32>(depth + (<usize>p << 2));
}

/** The first pixel from `p` on that lies in the mask, or `end`. */
@inline
function nextIn(mask: usize, p: i32, end: i32): i32 {
  // What lies outside is most of nearly every mask.
  while (p + 8 <= end && !load<u64>(mask + p)) p += 8;
  while (p < end && !load<u8>(mask + p)) p++;
  return p;
}

/** Chamfer distance into a mask (Borgefors 1986, weights 1 and 4/3). @param depth zeros @returns the greatest that has an end */
export function depths(mask: usize, depth: usize, width: i32, height: i32): f64 {
  const count = width * height;
  const last = count - width;
  for (let p = nextIn(mask, 0, count); p < count; p = nextIn(mask, p + 1, count)) {
    const x = p % width;
    let least = FAR;
    if (x > 0) least = min(least, at(depth, p - 1) + 1);
    if (p >= width) {
      least = min(least, at(depth, p - width) + 1);
      if (x > 0) least = min(least, at(depth, p - width - 1) + DIAGONAL);
      if (x + 1 < width) least = min(least, at(depth, p - width + 1) + DIAGONAL);
    }
    store<f32>(depth + (<usize>p << 2), <f32>least);
  }
  let most: f64 = 0;
  for (let p = count - 1; p >= 0; p--) {
    while (p >= 8 && !load<u64>(mask + p - 7)) p -= 8;
    if (!load<u8>(mask + p)) continue;
    const x = p % width;
    let least = at(depth, p);
    if (x + 1 < width) least = min(least, at(depth, p + 1) + 1);
    if (p < last) {
      least = min(least, at(depth, p + width) + 1);
      if (x + 1 < width) least = min(least, at(depth, p + width + 1) + DIAGONAL);
      if (x > 0) least = min(least, at(depth, p + width - 1) + DIAGONAL);
    }
    store<f32>(depth + (<usize>p << 2), <f32>least);
    if (least < FAR) most = max(most, at(depth, p));
  }
  return most;
}

/** The greatest depth in every square of `side` px, row by row. @param deepest zeros */
export function deepestIn(
  depth: usize,
  width: i32,
  height: i32,
  side: i32,
  deepest: usize,
): void {
  const wide = (width + side - 1) / side;
  for (let y = 0; y < height; y++) {
    let to = deepest + (<usize>((y / side) * wide) << 2);
    let from = depth + (<usize>(y * width) << 2);
    for (let x = 0; x < width; x += side, to += 4) {
      let most = load<f32>(to);
      for (let end = min(width, x + side), u = x; u < end; u++, from += 4)
        most = max(most, load<f32>(from));
      store<f32>(to, most);
    }
  }
}

@inline
function isIn(mask: usize, p: i32): u8 {
  return load<u8>(mask + p);
}

/**
 * Sums of the products of slopes in the squares round some pixels, of `half` - 1 px to either side: across, down, and of the
 * two; what reads the mask does not count. @param sums three doubles a pixel
 */
export function tensors(
  grey: usize,
  mask: usize,
  width: i32,
  pixels: usize,
  count: i32,
  half: i32,
  sums: usize,
): void {
  for (let k = 0; k < count; k++, sums += 24) {
    let xx: f64 = 0;
    let yy: f64 = 0;
    let xy: f64 = 0;
    const middle = load<i32>(pixels + (<usize>k << 2));
    for (let v = 1 - half; v < half; v++) {
      const row = middle + v * width;
      for (let p = row - half + 1; p < row + half; p++) {
        if (
          isIn(mask, p) | isIn(mask, p + 1) | isIn(mask, p - 1) | isIn(mask, p + width) | isIn(mask, p - width)
        )
          continue;
        const gx = (at(grey, p + 1) - at(grey, p - 1)) / 2;
        const gy = (at(grey, p + width) - at(grey, p - width)) / 2;
        xx += gx * gx;
        yy += gy * gy;
        xy += gx * gy;
      }
    }
    store<f64>(sums, xx);
    store<f64>(sums, yy, 8);
    store<f64>(sums, xy, 16);
  }
}
