// Corrections to copied tones: see evenTones in src/repair/even-tones.ts for what they are and why.

import { addTo, Copies, firstOf, lastOf, Part, putValue, sample, source, value } from './memory';

const LANES: i32 = 4;

/** Writes the copied tones of a part, corrected. */
@inline
export function correctBy<T, V>(
  copies: Copies,
  part: Part,
  correction: usize,
  colour: usize,
): void {
  const channels = copies.channels;
  let cell = 0;
  for (let k = 0; k < part.count; k++)
    for (let p = firstOf(part.runs, k); p < lastOf(part.runs, k); p++) {
      cell++;
      const s = source(copies.from, p) * channels;
      for (let c = 0; c < copies.colours; c++)
        putValue<V>(
          colour,
          p * channels + c,
          sample<T>(copies.samples, s + c) + value<V>(correction, LANES * cell + c),
        );
    }
}

/** Ties cells whose correction has drifted. @returns how many there are */
@inline
export function holdBack<V>(
  part: Part,
  correction: usize,
  colours: i32,
  drift: f64,
  tint: f64,
  firmly: f64,
): i32 {
  let many = 0;
  for (let cell = 1; cell < part.cells; cell++) {
    const over = driftAt<V>(correction, LANES * cell, colours, drift, tint) - 1;
    if (over <= 0) continue;
    addTo(part.own, cell, firmly * min<f64>(1, over));
    many++;
  }
  return many;
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
