// Distances in masks, twin of src/shape/plain/depth.ts, and their parts.

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

/** A stretch of set pixels in a row; of a part's first one it becomes the part's box. */
@unmanaged
class Run {
  left: i32;
  /** One past the last. */
  right: i32;
  top: i32;
  bottom: i32;
  /** A run of the same part, no later than this one; the first one names itself. */
  part: i32;
}
const RUN: usize = 20;

@inline
function runAt(runs: usize, k: i32): Run {
  return changetype<Run>(runs + <usize>k * RUN);
}

function firstOf(runs: usize, k: i32): i32 {
  let first = k;
  while (runAt(runs, first).part != first) first = runAt(runs, first).part;
  runAt(runs, k).part = first;
  return first;
}

/**
 * Finds the stretches of a mask, row by row, and the parts they belong to, corners joining: the first one of each becomes its
 * box. @returns how many there are
 */
export function parts(mask: usize, width: i32, height: i32, runs: usize): i32 {
  let above = 0;
  let begin = 0;
  let count = 0;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    const end = row + width;
    for (let p = nextIn(mask, row, end); p < end; p = nextIn(mask, p, end)) {
      const run = runAt(runs, count);
      run.left = p - row;
      while (p < end && load<u8>(mask + p)) p++;
      run.right = p - row;
      run.top = y;
      run.bottom = y;
      run.part = count;
      // Those of the row above that end before it touch nothing that comes.
      while (above < begin && runAt(runs, above).right < run.left) above++;
      for (let j = above; j < begin && runAt(runs, j).left <= run.right; j++) {
        const one = firstOf(runs, j);
        const other = firstOf(runs, count);
        runAt(runs, max(one, other)).part = min(one, other);
      }
      count++;
    }
    above = begin;
    begin = count;
  }
  for (let k = 0; k < count; k++) {
    const run = runAt(runs, k);
    const first = runAt(runs, firstOf(runs, k));
    first.left = min(first.left, run.left);
    first.right = max(first.right, run.right);
    first.bottom = run.bottom;
  }
  return count;
}

/** The first pixel from `p` on that lies in the mask, or `end`. */
@inline
function nextIn(mask: usize, p: i32, end: i32): i32 {
  // What lies outside is most of nearly every mask.
  while (p + 8 <= end && !load<u64>(mask + p)) p += 8;
  while (p < end && !load<u8>(mask + p)) p++;
  return p;
}
