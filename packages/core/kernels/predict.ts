// Linear prediction on one tile: see src/predict for what it does and why.
// A tile's cells hold four floats (three colours and nothing) or one (their mean); `offsets` are cells from a cell to
// each of its `count` neighbours. A stretch is three words: its first cell, the one after its last, the address of its taps.

import { addDoubles } from './lanes';

const STRETCH: usize = 12;

@inline
function word(at: usize): usize {
  return <usize>load<u32>(at);
}

/** Signed: neighbours lie before. */
@inline
function offset(offsets: usize, k: i32): isize {
  return <isize>load<i32>(offsets + (<usize>k << 2));
}

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

@inline
function addUp(v: v128): f32 {
  return (
    f32x4.extract_lane(v, 0) +
    f32x4.extract_lane(v, 1) +
    f32x4.extract_lane(v, 2) +
    f32x4.extract_lane(v, 3)
  );
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

/** What the neighbours fail to foretell: out = x - sum of taps * neighbours, in every cell of the stretches. */
function miss(
  x: usize,
  stretches: usize,
  number: i32,
  offsets: usize,
  count: i32,
  out: usize,
): void {
  for (let s = 0; s < number; s++, stretches += STRETCH) {
    const end = word(stretches + 4);
    const taps = word(stretches + 8);
    let i = word(stretches);
    // Two cells at once: they share taps and offsets.
    for (; i + 1 < end; i += 2) {
      const at = x + (i << 4);
      let first = v128.load(at);
      let second = v128.load(at, 16);
      for (let k = 0; k < count; k++) {
        const tap = v128.load32_splat(taps + (<usize>k << 2));
        const from = at + (offset(offsets, k) << 4);
        first = f32x4.sub(first, f32x4.mul(tap, v128.load(from)));
        second = f32x4.sub(second, f32x4.mul(tap, v128.load(from, 16)));
      }
      v128.store(out + (i << 4), first);
      v128.store(out + (i << 4), second, 16);
    }
    if (i == end) continue;
    const at = x + (i << 4);
    let rest = v128.load(at);
    for (let k = 0; k < count; k++)
      rest = f32x4.sub(
        rest,
        f32x4.mul(
          v128.load32_splat(taps + (<usize>k << 2)),
          v128.load(at + (offset(offsets, k) << 4)),
        ),
      );
    v128.store(out + (i << 4), rest);
  }
}

/** The transpose of {@link miss}: hands what was missed back to the cells it was foretold from, added up. */
function handBack(
  missed: usize,
  stretches: usize,
  number: i32,
  offsets: usize,
  count: i32,
  out: usize,
): void {
  for (let s = 0; s < number; s++, stretches += STRETCH) {
    const end = word(stretches + 4);
    const taps = word(stretches + 8);
    let i = word(stretches);
    for (; i + 1 < end; i += 2) {
      const first = v128.load(missed + (i << 4));
      const second = v128.load(missed + (i << 4), 16);
      const at = out + (i << 4);
      v128.store(at, f32x4.add(v128.load(at), first));
      v128.store(at, f32x4.add(v128.load(at, 16), second), 16);
      for (let k = 0; k < count; k++) {
        const tap = v128.load32_splat(taps + (<usize>k << 2));
        const to = at + (offset(offsets, k) << 4);
        v128.store(to, f32x4.sub(v128.load(to), f32x4.mul(tap, first)));
        v128.store(to, f32x4.sub(v128.load(to, 16), f32x4.mul(tap, second)), 16);
      }
    }
    if (i == end) continue;
    const v = v128.load(missed + (i << 4));
    const at = out + (i << 4);
    v128.store(at, f32x4.add(v128.load(at), v));
    for (let k = 0; k < count; k++) {
      const to = at + (offset(offsets, k) << 4);
      v128.store(
        to,
        f32x4.sub(v128.load(to), f32x4.mul(v128.load32_splat(taps + (<usize>k << 2)), v)),
      );
    }
  }
}

/** a . c over runs of cells (pairs of words), lane by lane, into four doubles. */
function dot(runs: usize, number: i32, a: usize, c: usize, out: usize): void {
  memory.fill(out, 0, 32);
  for (let s = 0; s < number; s++, runs += 8) {
    const end = word(runs + 4);
    let sum = f32x4.splat(0);
    for (let i = word(runs) << 4; i < end << 4; i += 16)
      sum = f32x4.add(sum, f32x4.mul(v128.load(a + i), v128.load(c + i)));
    addDoubles(out, sum);
  }
}

/** to = plus + shares * to over runs of cells; `shares` are four floats. */
function blend(runs: usize, number: i32, plus: usize, shares: usize, to: usize): void {
  const share = v128.load(shares);
  for (let s = 0; s < number; s++, runs += 8) {
    const end = word(runs + 4) << 4;
    for (let i = word(runs) << 4; i < end; i += 16)
      v128.store(
        to + i,
        f32x4.add(v128.load(plus + i), f32x4.mul(share, v128.load(to + i))),
      );
  }
}

/** to += shares * by over runs of cells. */
function advance(runs: usize, number: i32, by: usize, shares: usize, to: usize): void {
  const share = v128.load(shares);
  for (let s = 0; s < number; s++, runs += 8) {
    const end = word(runs + 4) << 4;
    for (let i = word(runs) << 4; i < end; i += 16)
      v128.store(to + i, f32x4.add(v128.load(to + i), f32x4.mul(share, v128.load(by + i))));
  }
}

/** Zeroes runs of cells. */
function clear(runs: usize, number: i32, at: usize): void {
  for (let s = 0; s < number; s++, runs += 8) {
    const begin = word(runs);
    memory.fill(at + (begin << 4), 0, (word(runs + 4) - begin) << 4);
  }
}

/** out = the gradient of half the squared error at x, in the unknown cells. */
@inline
function gradient(
  x: usize,
  missed: usize,
  stretches: usize,
  number: i32,
  offsets: usize,
  count: i32,
  runs: usize,
  runCount: i32,
  out: usize,
): void {
  miss(x, stretches, number, offsets, count, missed);
  clear(runs, runCount, out);
  handBack(missed, stretches, number, offsets, count, out);
}

/** shares = sign * a / b, lane by lane, doubles to floats; 0 where b is. */
@inline
function divide(a: usize, b: usize, sign: f64, shares: usize): void {
  for (let c: usize = 0; c < 4; c++) {
    const under = load<f64>(b + (c << 3));
    store<f32>(shares + (c << 2), under > 0 ? <f32>((sign * load<f64>(a + (c << 3))) / under) : 0);
  }
}

/**
 * Conjugate gradients on the squared error, from what stands in the unknown cells.
 * @param work room for 12 doubles and 4 floats
 */
export function settle(
  values: usize,
  rest: usize,
  way: usize,
  answer: usize,
  missed: usize,
  stretches: usize,
  number: i32,
  offsets: usize,
  count: i32,
  runs: usize,
  runCount: i32,
  rounds: i32,
  tolerance: f64,
  work: usize,
): void {
  let left = work;
  let next = work + 32;
  const steep = work + 64;
  const shares = work + 96;
  gradient(values, missed, stretches, number, offsets, count, runs, runCount, answer);
  v128.store(shares, f32x4.splat(-1));
  clear(runs, runCount, rest);
  advance(runs, runCount, answer, shares, rest);
  v128.store(shares, f32x4.splat(0));
  clear(runs, runCount, way);
  blend(runs, runCount, rest, shares, way);
  dot(runs, runCount, rest, rest, left);
  const goal0 = load<f64>(left) * tolerance * tolerance;
  const goal1 = load<f64>(left, 8) * tolerance * tolerance;
  const goal2 = load<f64>(left, 16) * tolerance * tolerance;
  for (let round = 0; round < rounds; round++) {
    if (
      load<f64>(left) <= goal0 &&
      load<f64>(left, 8) <= goal1 &&
      load<f64>(left, 16) <= goal2
    )
      break;
    gradient(way, missed, stretches, number, offsets, count, runs, runCount, answer);
    dot(runs, runCount, way, answer, steep);
    divide(left, steep, 1, shares);
    advance(runs, runCount, way, shares, values);
    divide(left, steep, -1, shares);
    advance(runs, runCount, answer, shares, rest);
    dot(runs, runCount, rest, rest, next);
    divide(next, left, 1, shares);
    blend(runs, runCount, rest, shares, way);
    const last = left;
    left = next;
    next = last;
  }
}

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

@inline
function between(gains: usize, a: i32, b: i32, share: f32): f32 {
  const first = load<f32>(gains + (<usize>a << 2));
  return first + share * (load<f32>(gains + (<usize>b << 2)) - first);
}
