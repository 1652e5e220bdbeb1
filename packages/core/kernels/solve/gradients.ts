// Steps of conjugate gradients, over ranges of the first level's cells. Sums go into four doubles a range.

import { addDoubles } from '../lanes';
import {
  ABOVE,
  BELOW,
  DIAGONAL,
  RIGHT,
  UNDER,
  around,
  quad,
  splat,
  word,
} from './memory';

/** So many cells are added up in single precision. */
const TOGETHER: usize = 64;

@inline
function sumsOf(sums: usize, part: i32): usize {
  const out = sums + (<usize>part << 5);
  memory.fill(out, 0, 32);
  return out;
}

/** a . c, lane by lane. */
export function dot(a: usize, c: usize, sums: usize, part: i32, from: usize, to: usize): void {
  const out = sumsOf(sums, part);
  for (let i = from; i < to; ) {
    const end = min(to, i + TOGETHER);
    let sum = f32x4.splat(0);
    for (; i < end; i++) sum = f32x4.add(sum, f32x4.mul(quad(a, i), quad(c, i)));
    addDoubles(out, sum);
  }
}

/** p = z + share * p. `shares` are four floats. */
export function advance(
  z: usize,
  p: usize,
  shares: usize,
  _part: i32,
  from: usize,
  to: usize,
): void {
  const share = v128.load(shares);
  for (let i = from; i < to; i++)
    v128.store(p + (i << 4), f32x4.add(quad(z, i), f32x4.mul(share, quad(p, i))));
}

/** q = A p, and p . q. */
export function multiply(
  level: usize,
  p: usize,
  q: usize,
  sums: usize,
  part: i32,
  from: usize,
  to: usize,
): void {
  const out = sumsOf(sums, part);
  const above = word(level, ABOVE);
  const under = word(level, UNDER);
  const right = word(level, RIGHT);
  const below = word(level, BELOW);
  const diagonal = word(level, DIAGONAL);
  for (let i = from; i < to; ) {
    const end = min(to, i + TOGETHER);
    let sum = f32x4.splat(0);
    for (; i < end; i++) {
      const mine = quad(p, i);
      const v = f32x4.sub(
        f32x4.mul(splat(diagonal, i), mine),
        around(i, above, under, right, below, p),
      );
      v128.store(q + (i << 4), v);
      sum = f32x4.add(sum, f32x4.mul(v, mine));
    }
    addDoubles(out, sum);
  }
}

/** x += share * p, b -= share * q, and b . b. */
export function step(
  x: usize,
  p: usize,
  b: usize,
  q: usize,
  shares: usize,
  sums: usize,
  part: i32,
  from: usize,
  to: usize,
): void {
  const out = sumsOf(sums, part);
  const share = v128.load(shares);
  for (let i = from; i < to; ) {
    const end = min(to, i + TOGETHER);
    let sum = f32x4.splat(0);
    for (; i < end; i++) {
      v128.store(x + (i << 4), f32x4.add(quad(x, i), f32x4.mul(share, quad(p, i))));
      const left = f32x4.sub(quad(b, i), f32x4.mul(share, quad(q, i)));
      v128.store(b + (i << 4), left);
      sum = f32x4.add(sum, f32x4.mul(left, left));
    }
    addDoubles(out, sum);
  }
}
