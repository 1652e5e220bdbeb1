// A part of the site laid out as the first level of a system: the 5-point Laplacian, see src/solve/system.ts.

import { ABOVE, BELOW, HEIGHT, OWN, PIXELS, RIGHT, UNDER, WIDTH, word } from '../solve/memory';
import { Copies, Part, source } from './memory';

/** Counts the runs and cells in some rows of a window: two words a row. */
export function count(
  copies: Copies,
  left: i32,
  top: i32,
  width: i32,
  counts: usize,
  _range: i32,
  from: i32,
  to: i32,
): void {
  for (let y = from; y < to; y++) {
    const first = (top + y) * copies.width + left;
    let runs = 0;
    let cells = 0;
    let was = false;
    for (let p = first; p < first + width; p++) {
      const is = source(copies.from, p) >= 0;
      if (is) cells++;
      if (is && !was) runs++;
      was = is;
    }
    store<i32>(counts + (<usize>y << 3), runs);
    store<i32>(counts + (<usize>y << 3), cells, 4);
  }
}

@inline
function isOpen(copies: Copies, p: i32, within: bool): bool {
  return within && source(copies.from, p) >= 0;
}

/**
 * Numbers the pixels in some rows of a part, and tells their neighbours and weights.
 * @param firsts the first run and the first cell of every row, a word each
 */
export function lay(
  copies: Copies,
  part: Part,
  firsts: usize,
  _range: i32,
  from: i32,
  to: i32,
): void {
  const level = part.level;
  const wide = <i32>word(level, WIDTH);
  const high = <i32>word(level, HEIGHT);
  const right = word(level, RIGHT);
  const below = word(level, BELOW);
  const own = word(level, OWN);
  const above = word(level, ABOVE);
  const under = word(level, UNDER);
  for (let y = from; y < to; y++) {
    const row = firsts + (<usize>y << 3);
    const first = (part.top + y) * copies.width + part.left;
    let run = word(level, PIXELS) + (word(row, 0) << 3);
    let cell = word(row, 4) << 2;
    let up = y ? load<i32>(row - 4) : 0;
    let down = y + 1 < high ? load<i32>(row + 12) : 0;
    let was = false;
    for (let x = 0; x < wide; x++) {
      const p = first + x;
      const is = source(copies.from, p) >= 0;
      const isAbove = isOpen(copies, p - copies.width, y > 0);
      const isBelow = isOpen(copies, p + copies.width, y + 1 < high);
      if (is != was) {
        store<i32>(run, y * wide + x);
        run += 4;
      }
      if (is) {
        const isRight = isOpen(copies, p + 1, x + 1 < wide);
        const known =
          <i32>(x > 0 && !was) +
          <i32>(x + 1 < wide && !isRight) +
          <i32>(y > 0 && !isAbove) +
          <i32>(y + 1 < high && !isBelow);
        store<f32>(own + cell, <f32>known);
        store<f32>(right + cell, isRight ? 1 : 0);
        store<f32>(below + cell, isBelow ? 1 : 0);
        store<i32>(above + cell, isAbove ? up : 0);
        store<i32>(under + cell, isBelow ? down : 0);
        cell += 4;
      }
      if (isAbove) up++;
      if (isBelow) down++;
      was = is;
    }
    if (was) store<i32>(run, (y + 1) * wide);
  }
}
