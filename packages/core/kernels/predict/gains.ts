// How much detail is strengthened by, block by block, and how far cells go over to what was foretold.

import { between, word } from './memory';

/** Marks blocks with unknown cells, and those up to two beside them. */
export function markNear(
  runs: usize,
  number: i32,
  stride: i32,
  side: i32,
  high: i32,
  near: usize,
): void {
  const wide = stride / side;
  for (let s = 0; s < number; s++, runs += 8) {
    const from = <i32>word(runs);
    const to = <i32>word(runs + 4) - 1;
    const y = from / stride / side;
    const left = max(0, (from % stride) / side - 2);
    const right = min(wide - 1, (to % stride) / side + 2);
    for (let v = max(0, y - 2); v <= min(high - 1, y + 2); v++)
      memory.fill(near + v * wide + left, 1, right + 1 - left);
  }
}

/** Gains of the near blocks, from what each and those round it are to show and do show. @param faint least a block shows */
export function tellGains(
  near: usize,
  wide: i32,
  high: i32,
  wanted: usize,
  shown: usize,
  strength: f64,
  faint: f64,
  most: f64,
  gains: usize,
): void {
  for (let y = 0, b = 0; y < high; y++)
    for (let x = 0; x < wide; x++, b++) {
      if (!load<u8>(near + b)) continue;
      let want: f64 = 0;
      let show: f64 = 0;
      let blocks = 0;
      for (let v = max(0, y - 1); v <= min(high - 1, y + 1); v++)
        for (let u = max(0, x - 1); u <= min(wide - 1, x + 1); u++) {
          const at = <usize>(v * wide + u) << 2;
          want += <f64>load<f32>(wanted + at);
          show += <f64>load<f32>(shown + at);
          blocks++;
        }
      const gain = (strength * want) / max<f64>(show, faint * <f64>blocks);
      store<f32>(gains + (<usize>b << 2), <f32>min<f64>(most, max<f64>(1, gain)));
    }
}

/**
 * Has runs of cells go over from what they were to what was foretold, each by its weight's share. Weights stand at the
 * middles of squares of `side` cells, the first square's half a side before the first cell, and are read between them bilinearly.
 * @param weights become what each cell's weight is
 */
export function goOver(
  values: usize,
  before: usize,
  runs: usize,
  number: i32,
  stride: i32,
  grid: usize,
  side: i32,
  wide: i32,
  share: f32,
  weights: usize,
): void {
  for (let s = 0; s < number; s++, runs += 8) {
    const end = <i32>word(runs + 4);
    for (let i = <i32>word(runs); i < end; i++) {
      const y = i / stride;
      const u = (<f32>(i - y * stride) + 0.5) / <f32>side + 0.5;
      const v = (<f32>y + 0.5) / <f32>side + 0.5;
      const left = <i32>u;
      const top = <i32>v;
      const across = u - <f32>left;
      const upper = between(grid, top * wide + left, top * wide + left + 1, across);
      const lower = between(grid, (top + 1) * wide + left, (top + 1) * wide + left + 1, across);
      const weight = upper + (v - <f32>top) * (lower - upper);
      store<f32>(weights + (<usize>i << 2), weight);
      const at = <usize>i << 4;
      const now = v128.load(values + at);
      const kept = f32x4.splat(1 - share * weight);
      v128.store(
        values + at,
        f32x4.add(now, f32x4.mul(kept, f32x4.sub(v128.load(before + at), now))),
      );
    }
  }
}
