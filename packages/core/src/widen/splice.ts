import type { Plane } from '../raster/plane.js';

/** What it costs to go back by some pixels after a pixel, so that what lies before it is shown twice; or on, leaving some out. */
export interface SpliceCosts {
  /** Difference of the new neighbours side by side. Infinity where no splice may pass. */
  readonly beside: Float32Array;
  /** Difference of the new neighbours one above the other where the splice moves by a pixel. */
  readonly above: Float32Array;
}

/**
 * The splice of least cost from the top row to the bottom, moving by at most one pixel a row: seam insertion with the
 * energy of the neighbours it makes (Avidan, Shamir, "Seam Carving for Content-Aware Image Resizing", ACM TOG 26(3), 2007;
 * forward energy of Rubinstein, Shamir, Avidan, ACM TOG 27(3), 2008), for steps of more than one pixel.
 * @returns the column in every row and the cost of all; null when no way leads through
 */
export function leastSplice(
  { beside, above }: SpliceCosts,
  width: number,
  height: number,
): { path: Int32Array; cost: number } | null {
  const sums = new Float32Array(beside);
  const from = new Int8Array(beside.length);
  for (let y = 1; y < height; y++) {
    const row = y * width;
    for (let x = 0; x < width; x++) {
      const p = row + x;
      if (beside[p] === Infinity) continue;
      let best = sums[p - width]!;
      let step = 0;
      // From the left: the splice moves right, and this row shows pixel x where the row above went back already.
      if (x > 0) {
        const v = sums[p - width - 1]! + above[p]!;
        if (v < best) [best, step] = [v, -1];
      }
      if (x < width - 1) {
        const v = sums[p - width + 1]! + above[p + 1]!;
        if (v < best) [best, step] = [v, 1];
      }
      sums[p] = beside[p]! + best;
      from[p] = step;
    }
  }
  const last = (height - 1) * width;
  let at = 0;
  for (let x = 1; x < width; x++) if (sums[last + x]! < sums[last + at]!) at = x;
  const cost = sums[last + at]!;
  if (!Number.isFinite(cost)) return null;
  const path = new Int32Array(height);
  for (let y = height - 1; y >= 0; y--) {
    path[y] = at;
    at += from[y * width + at]!;
  }
  return { path, cost };
}

/**
 * Costs of going back by `step` pixels. Where that would lead beyond the picture's left border, the row goes on as its own
 * mirror image. Below 0 the row goes on by so many, as long as that does not reach its bar (seam removal).
 * @param detail a plane a channel, with what changes slowly taken off
 * @param open 1 where a splice may pass after the pixel
 * @param bars every row's first column that must not be shown again
 */
export function spliceCosts(
  detail: readonly Plane[],
  step: number,
  open: Uint8Array,
  bars: Int32Array,
): SpliceCosts {
  const { width, height } = detail[0]!;
  const above = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    const bar = Math.max(1, bars[y]!);
    for (let x = 0; x < bar; x++) {
      if (x - step >= bar) {
        above[row + x] = Infinity;
        continue;
      }
      const back = row + foldedBack(x - step, bar);
      for (const { values } of detail)
        above[row + x]! += Math.abs(values[row + x]! - values[back]!);
    }
  }
  const beside = new Float32Array(width * height).fill(Infinity);
  for (let p = 0; p < beside.length; p++) if (open[p]) beside[p] = (above[p]! + above[p + 1]!) / 2;
  return { beside, above };
}

/** A column left of the border as the mirror image of those before `bar`. */
export function foldedBack(x: number, bar: number): number {
  if (x >= 0) return x;
  const at = (-1 - x) % (2 * bar);
  return at < bar ? at : 2 * bar - 1 - at;
}
