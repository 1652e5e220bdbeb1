// The values of least prediction error.

import { addDoubles } from '../lanes';
import { offset, word } from './memory';

const STRETCH: usize = 12;

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
