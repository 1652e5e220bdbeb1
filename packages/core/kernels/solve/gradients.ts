// Steps of conjugate gradients.

import { addDoubles } from '../lanes';
import {
  ABOVE,
  BELOW,
  CELLS,
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

/** a . c over the first level's unknowns, lane by lane, into four doubles. */
export function dot(level: usize, a: usize, c: usize, out: usize): void {
  memory.fill(out, 0, 32);
  const cells = word(level, CELLS);
  for (let i: usize = 1; i < cells; ) {
    const end = min(cells, i + TOGETHER);
    let sum = f32x4.splat(0);
    for (; i < end; i++) sum = f32x4.add(sum, f32x4.mul(quad(a, i), quad(c, i)));
    addDoubles(out, sum);
  }
}

/** p = z + share * p, then q = A p. p . q goes into four doubles. `shares` are four floats. */
export function advance(level: usize, z: usize, p: usize, q: usize, shares: usize, out: usize): void {
  memory.fill(out, 0, 32);
  const above = word(level, ABOVE);
  const under = word(level, UNDER);
  const right = word(level, RIGHT);
  const below = word(level, BELOW);
  const diagonal = word(level, DIAGONAL);
  const cells = word(level, CELLS);
  const share = v128.load(shares);
  for (let i: usize = 1; i < cells; i++)
    v128.store(p + (i << 4), f32x4.add(quad(z, i), f32x4.mul(share, quad(p, i))));
  for (let i: usize = 1; i < cells; ) {
    const end = min(cells, i + TOGETHER);
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

/** x += share * p, b -= share * q; b . b goes into four doubles. */
export function step(
  level: usize,
  x: usize,
  p: usize,
  b: usize,
  q: usize,
  shares: usize,
  out: usize,
): void {
  memory.fill(out, 0, 32);
  const cells = word(level, CELLS);
  const share = v128.load(shares);
  for (let i: usize = 1; i < cells; ) {
    const end = min(cells, i + TOGETHER);
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
