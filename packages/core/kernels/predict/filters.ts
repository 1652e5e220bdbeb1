// Filters that foretell a cell from its neighbours.

import { addUp, offset } from './memory';

/**
 * Adds up, over the sound cells of a block, the products of the steps from a cell to its neighbours: the lower
 * triangle of their matrix, row by row.
 * @param sound 1 where a cell and all its neighbours are known, a float a cell @param columns a multiple of 4
 * @param work room for 4 floats a neighbour and 4 a product @returns how many cells were sound
 */
function gather(
  grey: usize,
  sound: usize,
  stride: i32,
  from: i32,
  columns: i32,
  rows: i32,
  offsets: usize,
  count: i32,
  work: usize,
  products: usize,
): f32 {
  const sums = work + (<usize>count << 4);
  const n = (count * (count + 1)) >> 1;
  memory.fill(sums, 0, <usize>n << 4);
  let seen = f32x4.splat(0);
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < columns; x += 4) {
      const cell = <isize>(from + y * stride + x) << 2;
      const counts = v128.load(sound + cell);
      if (!v128.any_true(counts)) continue;
      seen = f32x4.add(seen, counts);
      const here = v128.load(grey + cell);
      for (let k = 0; k < count; k++) {
        const there = v128.load(grey + cell + (offset(offsets, k) << 2));
        v128.store(work + (<usize>k << 4), f32x4.mul(counts, f32x4.sub(there, here)));
      }
      let at = sums;
      for (let i = 0; i < count; i++) {
        const mine = v128.load(work + (<usize>i << 4));
        for (let j = 0; j <= i; j++, at += 16)
          v128.store(
            at,
            f32x4.add(v128.load(at), f32x4.mul(mine, v128.load(work + (<usize>j << 4)))),
          );
      }
    }
  for (let k = 0; k < n; k++)
    store<f32>(products + (<usize>k << 2), addUp(v128.load(sums + (<usize>k << 4))));
  return addUp(seen);
}

/**
 * Taps adding up to 1 of least a' M a: M's inverse on ones, scaled, by Cholesky's factors.
 * @param m the lower triangle of M, row by row, doubles, used up @param least added to the diagonal
 * @param work a double a tap @param taps become floats
 */
function filter(m: usize, count: i32, least: f64, work: usize, taps: usize): void {
  for (let i = 0; i < count; i++) {
    const a = m + (<usize>((i * (i + 1)) >> 1) << 3);
    for (let j = 0; j <= i; j++) {
      const b = m + (<usize>((j * (j + 1)) >> 1) << 3);
      const at = a + (<usize>j << 3);
      let sum = load<f64>(at);
      if (i == j) sum += least;
      for (let k = 0; k < j; k++)
        sum -= load<f64>(a + (<usize>k << 3)) * load<f64>(b + (<usize>k << 3));
      store<f64>(at, i == j ? sqrt<f64>(max<f64>(sum, 1e-12)) : sum / load<f64>(b + (<usize>j << 3)));
    }
  }
  for (let i = 0; i < count; i++) {
    const a = m + (<usize>((i * (i + 1)) >> 1) << 3);
    let v: f64 = 1;
    for (let k = 0; k < i; k++) v -= load<f64>(a + (<usize>k << 3)) * load<f64>(work + (<usize>k << 3));
    store<f64>(work + (<usize>i << 3), v / load<f64>(a + (<usize>i << 3)));
  }
  let all: f64 = 0;
  for (let i = count - 1; i >= 0; i--) {
    let v = load<f64>(work + (<usize>i << 3));
    for (let k = i + 1; k < count; k++)
      v -=
        load<f64>(m + (<usize>(((k * (k + 1)) >> 1) + i) << 3)) * load<f64>(work + (<usize>k << 3));
    v /= load<f64>(m + (<usize>(((i * (i + 1)) >> 1) + i) << 3));
    store<f64>(work + (<usize>i << 3), v);
    all += v;
  }
  for (let i = 0; i < count; i++)
    store<f32>(taps + (<usize>i << 2), <f32>(load<f64>(work + (<usize>i << 3)) / all));
}

/** Weight of the cells of a block beside the one that is told, and of all others where those are too few. */
const BESIDE: f64 = 0.4;
const FAR: f64 = 0.01;

/** Adds what a block's cells say to a matrix, gathering it the first time. @returns how many they are */
function tell(
  grey: usize,
  sound: usize,
  across: i32,
  side: i32,
  block: i32,
  offsets: usize,
  count: i32,
  told: usize,
  cells: usize,
  work: usize,
  m: usize,
  weight: f64,
): f32 {
  const n = (count * (count + 1)) >> 1;
  const products = told + (<usize>(block * n) << 2);
  const seenAt = cells + (<usize>block << 2);
  if (load<f32>(seenAt) < 0) {
    const y = block / across;
    const stride = across * side;
    const from = y * side * stride + (block - y * across) * side;
    const seen = gather(grey, sound, stride, from, side, side, offsets, count, work, products);
    store<f32>(seenAt, seen);
  }
  const seen = load<f32>(seenAt);
  if (seen > 0)
    for (let k = 0; k < n; k++) {
      const at = m + (<usize>k << 3);
      store<f64>(at, load<f64>(at) + weight * <f64>load<f32>(products + (<usize>k << 2)));
    }
  return seen;
}

/**
 * Filters for the blocks that are wanted (a byte a block), each from its own cells and those of the blocks round it.
 * @param told room for the products of every block, floats @param cells a float a block, -1 = not gathered yet
 * @param m room for a matrix of doubles @param work room for {@link gather} and {@link filter}
 * @returns 0 when too few cells are sound to tell any filter from
 */
export function filters(
  grey: usize,
  sound: usize,
  across: i32,
  down: i32,
  side: i32,
  wanted: usize,
  offsets: usize,
  count: i32,
  leastTold: f32,
  ridge: f64,
  told: usize,
  cells: usize,
  m: usize,
  work: usize,
  taps: usize,
): i32 {
  const n = (count * (count + 1)) >> 1;
  for (let b = 0; b < across * down; b++) store<f32>(cells + (<usize>b << 2), -1);
  for (let y = 0, b = 0; y < down; y++)
    for (let x = 0; x < across; x++, b++) {
      if (!load<u8>(wanted + b)) continue;
      memory.fill(m, 0, <usize>n << 3);
      let seen: f32 = 0;
      for (let v = max(0, y - 1); v <= min(down - 1, y + 1); v++)
        for (let u = max(0, x - 1); u <= min(across - 1, x + 1); u++) {
          const apart = abs(u - x) + abs(v - y);
          const weight: f64 = apart == 0 ? 1 : apart == 1 ? BESIDE : BESIDE * BESIDE;
          seen += tell(grey, sound, across, side, v * across + u, offsets, count, told, cells, work, m, weight);
        }
      for (let k = 0; seen < leastTold && k < across * down; k++)
        seen += tell(grey, sound, across, side, k, offsets, count, told, cells, work, m, FAR);
      if (seen < leastTold) return 0;
      let mean: f64 = 0;
      for (let i = 0; i < count; i++) mean += load<f64>(m + (<usize>((i * (i + 3)) >> 1) << 3));
      // Ground without any step: all neighbours say the same.
      const least = (ridge * mean) / <f64>count + 1e-6;
      filter(m, count, least, work, taps + (<usize>(b * count) << 2));
    }
  return 1;
}
