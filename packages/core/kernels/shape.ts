// Distances in masks: twin of src/shape/plain/depth.ts; slopes beside them: twin of src/find/plain/tensor.ts.

import { chamfer, FAR } from './chamfer';

/** Depth of what has no outside, px. */
const ENDLESS: f32 = 1e6;

@inline
function at(values: usize, p: i32): f64 {
  return <f64>load<f32>(values + (<usize>p << 2));
}

@inline
function depthOf(thirds: i32): f32 {
  return thirds == FAR ? ENDLESS : <f32>(<f64>thirds / 3);
}

/** Measures the depth in a mask, in thirds of a pixel. @returns the greatest that has an end, px */
export function measure(mask: usize, thirds: usize, width: i32, height: i32): f64 {
  return <f64>depthOf(chamfer(mask, thirds, width, height));
}

/** Depths in px. */
export function depths(thirds: usize, count: i32, depth: usize): void {
  for (let p = 0; p < count; p++)
    store<f32>(depth + (<usize>p << 2), depthOf(<i32>load<u16>(thirds + (<usize>p << 1))));
}

/** The greatest depth in every square of `side` px, row by row. @param deepest zeros */
export function deepestIn(
  thirds: usize,
  width: i32,
  height: i32,
  side: i32,
  deepest: usize,
): void {
  const wide = (width + side - 1) / side;
  for (let y = 0; y < height; y++) {
    let to = deepest + (<usize>((y / side) * wide) << 2);
    let from = thirds + (<usize>(y * width) << 1);
    for (let x = 0; x < width; x += side, to += 4) {
      let most = 0;
      for (let end = min(width, x + side), u = x; u < end; u++, from += 2)
        most = max(most, <i32>load<u16>(from));
      if (most) store<f32>(to, max(load<f32>(to), depthOf(most)));
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
