/** Entries of a lookup table less one: every 16-bit code has its own. */
const LAST = 65535;

/** A function on 0..1 as a table, so that every pixel costs the same whatever the function. */
export type Lookup = Float32Array;

/** Up to here every entry is computed; beyond, where what people do to tones is smooth, every STEP-th one. */
const DENSE = 4096;
const STEP = 15;

export function lookupOf(f: (v: number) => number): Lookup {
  const table = new Float32Array(LAST + 1);
  for (let k = 0; k < DENSE; k++) table[k] = f(k / LAST);
  let here = f(DENSE / LAST);
  for (let k = DENSE; k < LAST; k += STEP) {
    const end = Math.min(LAST, k + STEP);
    const next = f(end / LAST);
    const slope = (next - here) / (end - k);
    for (let j = k; j < end; j++) table[j] = here + slope * (j - k);
    here = next;
  }
  table[LAST] = here;
  return table;
}

/**
 * Passes interleaved samples through a table a channel, in place; between entries it is interpolated.
 * @param channels of the samples; so many tables count
 */
export function passThrough(data: Float32Array, tables: readonly Lookup[], channels: number): void {
  // One table for all of them is one way through the samples.
  if (tables.slice(0, channels).every((t) => t === tables[0]))
    return passOne(data, tables[0]!, 0, 1);
  for (let c = 0; c < channels; c++) passOne(data, tables[c]!, c, channels);
}

function passOne(data: Float32Array, table: Lookup, start: number, step: number): void {
  for (let i = start; i < data.length; i += step) {
    const t = data[i]! * LAST;
    if (t <= 0) data[i] = table[0]!;
    else if (t >= LAST) data[i] = table[LAST]!;
    else {
      const k = t | 0;
      data[i] = table[k]! + (table[k + 1]! - table[k]!) * (t - k);
    }
  }
}
