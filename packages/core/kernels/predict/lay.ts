// What a tile's cells are to the prediction: which are known all round, which are foretold, and by which filter.

import { addUp, offset } from './memory';

/** The mean over three lanes, and 1 where a cell and all its neighbours are known, a float a cell. */
export function greyAndSound(
  values: usize,
  unknown: usize,
  width: i32,
  height: i32,
  stride: i32,
  reach: i32,
  offsets: usize,
  count: i32,
  cells: i32,
  grey: usize,
  sound: usize,
): void {
  const three = i32x4(-1, -1, -1, 0);
  for (let y = 0; y < height; y++)
    for (let i = y * stride; i < y * stride + width; i++) {
      const sum = addUp(v128.and(v128.load(values + (<usize>i << 4)), three));
      store<f32>(grey + (<usize>i << 2), sum * (<f32>1 / 3));
    }
  for (let y = reach; y < height; y++)
    for (let i = y * stride + reach; i < y * stride + width - reach; i++)
      store<f32>(sound + (<usize>i << 2), 1);
  for (let i = 0; i < cells; i++) {
    if (!load<u8>(unknown + i)) continue;
    store<f32>(sound + (<usize>i << 2), 0);
    // Those past the end are none.
    for (let k = 0; k < count; k++) {
      const j = i - <i32>offset(offsets, k);
      if (j < cells) store<f32>(sound + (<usize>j << 2), 0);
    }
  }
}

/**
 * Cells that are foretold from an unknown one or are one, cut where filters change: their first cell, the one after the
 * last, and the address of their taps. Blocks of `side` cells that have any become wanted.
 * @param touched room for a byte a cell, zeros @returns how many stretches they are
 */
export function stretches(
  unknown: usize,
  touched: usize,
  width: i32,
  height: i32,
  stride: i32,
  reach: i32,
  side: i32,
  offsets: usize,
  count: i32,
  cells: i32,
  taps: usize,
  wanted: usize,
  out: usize,
): i32 {
  for (let i = 0; i < cells; i++) {
    if (!load<u8>(unknown + i)) continue;
    store<u8>(touched + i, 1);
    for (let k = 0; k < count; k++) {
      const j = i - <i32>offset(offsets, k);
      if (j < cells) store<u8>(touched + j, 1);
    }
  }
  const across = stride / side;
  let number = 0;
  for (let y = reach; y < height; y++) {
    const last = width - reach;
    for (let x = reach; x < last; ) {
      if (!load<u8>(touched + y * stride + x)) {
        x++;
        continue;
      }
      const block = (y / side) * across + x / side;
      const end = min(last, (x / side + 1) * side);
      store<u32>(out, y * stride + x);
      while (x < end && load<u8>(touched + y * stride + x)) x++;
      store<u32>(out, y * stride + x, 4);
      store<u32>(out, <u32>(taps + (<usize>(block * count) << 2)), 8);
      store<u8>(wanted + block, 1);
      out += 12;
      number++;
    }
  }
  return number;
}

/** Runs of unknown cells, two words each: the first and the one after the last. @returns how many */
export function runs(unknown: usize, stride: i32, cells: i32, out: usize): i32 {
  let number = 0;
  for (let i = 0; i < cells; ) {
    if (!load<u8>(unknown + i)) {
      i++;
      continue;
    }
    const end = (i / stride + 1) * stride;
    store<u32>(out, i);
    while (i < end && load<u8>(unknown + i)) i++;
    store<u32>(out, i, 4);
    out += 8;
    number++;
  }
  return number;
}
