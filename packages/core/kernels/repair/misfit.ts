// How little what lies beyond a rim is like what lies beside the sources: see src/repair/misfit.ts.

import { Copies, sample, source } from './memory';

/**
 * Adds up, square by square, how much the steps beyond the rim of a piece's site pixels differ, and how much there is of them.
 * @param sums two doubles a square, and one square more at either side
 */
@inline
export function addMisfit<T>(
  copies: Copies,
  left: i32,
  top: i32,
  across: i32,
  down: i32,
  side: i32,
  wide: i32,
  sums: usize,
): void {
  const from = copies.from;
  const width = copies.width;
  for (let y = 0; y < down; y++) {
    const first = (top + y) * width + left;
    for (let x = 0; x < across; x++) {
      const p = first + x;
      if (source(from, p) < 0) continue;
      const node = sums + (<usize>((y / side + 1) * wide + x / side + 1) << 4);
      for (let way = 0; way < 4; way++) {
        const below = way > 1 ? 2 * way - 5 : 0;
        const right = way > 1 ? 0 : 2 * way - 1;
        if (!areKnown(copies, p, right, below)) continue;
        const out = right + below * width;
        const there = source(from, p) + out;
        if (areKnown(copies, p, 2 * right, 2 * below))
          compare<T>(copies, p + out, there, out, node);
        if (areKnown(copies, p, right ? right : 1, below ? below : 1))
          compare<T>(copies, p + out, there, below ? 1 : width, node);
      }
    }
  }
}

/** Whether what lies so far from a pixel and from its source is in the picture and outside the site. */
function areKnown(copies: Copies, p: i32, right: i32, below: i32): bool {
  return (
    isKnown(copies, p, right, below) && isKnown(copies, source(copies.from, p), right, below)
  );
}

@inline
function isKnown(copies: Copies, p: i32, right: i32, below: i32): bool {
  const width = copies.width;
  const x = (p % width) + right;
  const q = p + right + below * width;
  if (x < 0 || x >= width || q < 0 || q >= width * copies.height) return false;
  return source(copies.from, q) < 0;
}

/** Compares the step from a pixel with that from another. */
@inline
function compare<T>(
  copies: Copies,
  here: i32,
  there: i32,
  step: i32,
  sums: usize,
): void {
  const by = step * copies.channels;
  const i = here * copies.channels;
  const j = there * copies.channels;
  for (let c = 0; c < copies.colours; c++) {
    const a = sample<T>(copies.samples, i + c + by) - sample<T>(copies.samples, i + c);
    const b = sample<T>(copies.samples, j + c + by) - sample<T>(copies.samples, j + c);
    store<f64>(sums, load<f64>(sums) + (a - b) * (a - b));
    store<f64>(sums, load<f64>(sums, 8) + (a * a + b * b), 8);
  }
}

/**
 * Weakens weights of squares by their misfit: that of a square and those round it, 1 where no rim is near.
 * @param unlike misfit that counts for no more than that
 */
export function tellMisfit(sums: usize, wide: i32, high: i32, unlike: f64, weights: usize): void {
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x++, weights += 4) {
      let apart: f64 = 0;
      let whole: f64 = 0;
      // Those at the sides are none of the piece.
      for (let v = max(1, y - 1); v <= min(high - 2, y + 1); v++)
        for (let u = max(1, x - 1); u <= min(wide - 2, x + 1); u++) {
          const at = sums + (<usize>(v * wide + u) << 4);
          apart += load<f64>(at);
          whole += load<f64>(at, 8);
        }
      const misfit = whole > 0 ? min<f64>(1, apart / whole) : 1;
      store<f32>(weights, <f32>(<f64>load<f32>(weights) * min<f64>(1, misfit / unlike)));
    }
}
