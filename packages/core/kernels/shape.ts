// Distances in masks: twin of src/shape/plain/depth.ts.

import { chamfer, FAR } from './chamfer';

/** Depth of what has no outside, px. */
const ENDLESS: f32 = 1e6;

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
