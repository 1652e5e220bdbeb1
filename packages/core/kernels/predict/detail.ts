// How strong detail is, and making it stronger.

import { addUp, between, word } from './memory';

/** Lanes of a step, added up. */
@inline
function across(a: usize, b: usize): f32 {
  return addUp(f32x4.sub(v128.load(a), v128.load(b)));
}

/** Sum, over a block's cells, of the gradient of the colours' sum; right and lower neighbours have to be cells too. */
function steepness(values: usize, stride: i32, from: i32, columns: i32, rows: i32): f32 {
  let sum: f32 = 0;
  for (let y = 0; y < rows; y++) {
    let at = values + (<usize>(from + y * stride) << 4);
    for (let x = 0; x < columns; x++, at += 16) {
      const dx = across(at + 16, at);
      const dy = across(at + (<usize>stride << 4), at);
      sum += sqrt<f32>(dx * dx + dy * dy);
    }
  }
  return sum;
}

/** {@link steepness} of the near blocks (a byte each) of a piece, 0 of the others, into a float a block. */
export function steepnesses(
  values: usize,
  stride: i32,
  width: i32,
  height: i32,
  near: usize,
  side: i32,
  high: i32,
  out: usize,
): void {
  const wide = stride / side;
  for (let y = 0, b = 0; y < high; y++)
    for (let x = 0; x < wide; x++, b++) {
      let sum: f32 = 0;
      if (load<u8>(near + b)) {
        const columns = min(side, width - 1 - x * side);
        const rows = min(side, height - 1 - y * side);
        sum = steepness(values, stride, y * side * stride + x * side, columns, rows);
      }
      store<f32>(out + (<usize>b << 2), sum);
    }
}

/**
 * How much steeper known cells are than unknown ones, in the mean, in the near blocks of a piece; steps between the two
 * count for neither, and the fewer unknown cells have others beside them, the less is believed. 1 where there are none.
 */
export function softness(
  values: usize,
  unknown: usize,
  stride: i32,
  width: i32,
  height: i32,
  near: usize,
  side: i32,
  most: f64,
): f64 {
  const wide = stride / side;
  let all = 0;
  let known: f64 = 0;
  let open: f64 = 0;
  let knownCells = 0;
  let openCells = 0;
  for (let y = 0; y < height - 1; y++)
    for (let x = 0; x < width - 1; x++) {
      if (!load<u8>(near + (y / side) * wide + x / side)) {
        x += side - 1 - (x % side);
        continue;
      }
      const i = y * stride + x;
      const kind = load<u8>(unknown + i);
      all += kind;
      if (load<u8>(unknown + i + 1) != kind || load<u8>(unknown + i + stride) != kind) continue;
      const at = values + (<usize>i << 4);
      const dx = across(at + 16, at);
      const dy = across(at + (<usize>stride << 4), at);
      const steep = <f64>sqrt<f32>(dx * dx + dy * dy);
      if (kind) {
        open += steep;
        openCells++;
      } else {
        known += steep;
        knownCells++;
      }
    }
  if (!openCells || !knownCells || open <= 0) return 1;
  const steeper = (known * <f64>openCells) / (open * <f64>knownCells);
  const more = min<f64>(most, max<f64>(1, steeper)) - 1;
  return 1 + (more * <f64>openCells) / <f64>all;
}

/** Means over squares of so many cells' half side, clipped to the piece, at runs of cells. */
export function soften(
  values: usize,
  runs: usize,
  number: i32,
  stride: i32,
  width: i32,
  height: i32,
  half: i32,
  out: usize,
): void {
  for (let s = 0; s < number; s++, runs += 8) {
    const end = <i32>word(runs + 4);
    for (let i = <i32>word(runs); i < end; i++) {
      const y = i / stride;
      const x = i - y * stride;
      const left = max(0, x - half);
      const right = min(width - 1, x + half);
      const bottom = min(height - 1, y + half);
      const top = max(0, y - half);
      let sum = f32x4.splat(0);
      for (let v = top; v <= bottom; v++)
        for (let u = left; u <= right; u++)
          sum = f32x4.add(sum, v128.load(values + (<usize>(v * stride + u) << 4)));
      const share = <f32>1 / <f32>((right - left + 1) * (bottom - top + 1));
      v128.store(out + (<usize>i << 4), f32x4.mul(sum, f32x4.splat(share)));
    }
  }
}

/**
 * Takes what stands out of the soft so many times, at runs of cells: gains stand at the middles of blocks of `side`
 * cells, `wide` blocks a row, and are read between them bilinearly; each cell takes its weight's share of what they are over 1.
 */
export function strengthen(
  values: usize,
  soft: usize,
  runs: usize,
  number: i32,
  stride: i32,
  weights: usize,
  gains: usize,
  side: i32,
  wide: i32,
  high: i32,
): void {
  const half = (<f32>side - 1) / 2;
  for (let s = 0; s < number; s++, runs += 8) {
    const end = <i32>word(runs + 4);
    for (let i = <i32>word(runs); i < end; i++) {
      const y = i / stride;
      const u = (<f32>(i - y * stride) - half) / <f32>side;
      const v = (<f32>y - half) / <f32>side;
      const left = max(0, <i32>floor<f32>(u));
      const top = max(0, <i32>floor<f32>(v));
      const right = min(wide - 1, left + 1);
      const bottom = min(high - 1, top + 1);
      const across = max<f32>(0, u - <f32>left);
      const down = max<f32>(0, v - <f32>top);
      const upper = between(gains, top * wide + left, top * wide + right, across);
      const lower = between(gains, bottom * wide + left, bottom * wide + right, across);
      const more = upper + down * (lower - upper) - 1;
      const gain = f32x4.splat(1 + load<f32>(weights + (<usize>i << 2)) * more);
      const at = <usize>i << 4;
      const low = v128.load(soft + at);
      v128.store(
        values + at,
        f32x4.add(low, f32x4.mul(gain, f32x4.sub(v128.load(values + at), low))),
      );
    }
  }
}
