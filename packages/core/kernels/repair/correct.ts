// Corrections to copied tones: see evenTones in src/repair/even-tones.ts for what they are and why.

import { OWN, ROWS, STARTS, word } from '../solve/memory';
import { addTo, Copies, firstPixel, Part, putValue, sample, source, value } from './memory';

const LANES: i32 = 4;

/** Writes the copied tones in some rows of a part, corrected. */
@inline
export function correctBy<T, V>(
  copies: Copies,
  part: Part,
  correction: usize,
  colour: usize,
  from: usize,
  to: usize,
): void {
  const channels = copies.channels;
  const starts = word(part.level, STARTS);
  const rows = word(part.level, ROWS);
  for (let y = from; y < to; y++)
    for (let k = word(rows, y << 2); k < word(rows, (y + 1) << 2); k++) {
      let cell = <i32>(word(starts, k << 2) >> 1);
      const end = <i32>(word(starts, (k + 1) << 2) >> 1);
      let p = firstPixel(copies, part, y, k);
      for (; cell < end; cell++, p++) {
        const s = source(copies.from, p) * channels;
        for (let c = 0; c < copies.colours; c++)
          putValue<V>(
            colour,
            p * channels + c,
            sample<T>(copies.samples, s + c) + value<V>(correction, LANES * cell + c),
          );
      }
    }
}

/** Ties those of some cells whose correction has drifted. @param many becomes how many there are, a word a range */
@inline
export function holdBack<V>(
  part: Part,
  correction: usize,
  colours: i32,
  drift: f64,
  tint: f64,
  firmly: f64,
  many: usize,
  range: i32,
  from: i32,
  to: i32,
): void {
  const own = word(part.level, OWN);
  let count = 0;
  for (let cell = from; cell < to; cell++) {
    const over = driftAt<V>(correction, LANES * cell, colours, drift, tint) - 1;
    if (over <= 0) continue;
    addTo(own, cell, firmly * min<f64>(1, over));
    count++;
  }
  store<i32>(many + (<usize>range << 2), count);
}

/** Of a correction, beside what is allowed. */
@inline
function driftAt<V>(correction: usize, first: i32, colours: i32, drift: f64, tint: f64): f64 {
  let most: f64 = 0;
  let sum: f64 = 0;
  let off: f64 = 0;
  for (let c = first; c < first + colours; c++) {
    most = max(most, abs(value<V>(correction, c)));
    sum += value<V>(correction, c);
  }
  for (let c = first; c < first + colours; c++)
    off = max(off, abs(value<V>(correction, c) - sum / <f64>colours));
  return max(most / drift, off / tint);
}
