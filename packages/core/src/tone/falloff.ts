import type { Plane } from '../raster/plane.js';

/** Share of light lost in the corners that is tried, and the step between. */
const MOST = 0.64;
const STEP = 0.02;
const BINS = 180;
/** Pictures are darker in their corners of themselves: what is measured is a little too much. */
const OWN = 0.02;

/**
 * How much darker the corners are than the middle, as the share s in 1 - s r^2 (r is 1 in the corners): light that
 * falls off spreads every tone over many, so the right s is the one at which the tones' logarithms lie most closely
 * together, by their entropy (after Lopez-Fuentes, Oliver, Massanet, "Revisiting image vignetting correction by
 * constrained minimization of log-intensity entropy", IWANN 2015).
 * @param planes channels of the picture, any size that shows its tones, 0..255
 * @returns 0 where nothing falls off
 */
export function falloffOf(planes: readonly Plane[]): number {
  const { width, height } = planes[0]!;
  const logs = planes.map(({ values }) => values.map((v) => Math.log(Math.max(1, v) / 255)));
  const radius = new Float32Array(width * height);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) radius[p] = squaredRadius(x, y, width, height);
  let best = 0;
  let least = Infinity;
  for (let s = 0; s <= MOST; s += STEP) {
    const light = radius.map((r) => Math.log(1 - s * r));
    const e = logs.reduce((sum, values) => sum + entropyOf(values, light), 0);
    if (e < least) [least, best] = [e, s];
  }
  return Math.max(0, best - OWN);
}

/** Squared distance from the middle, 1 in the corners. */
export function squaredRadius(x: number, y: number, width: number, height: number): number {
  const dx = x - width / 2;
  const dy = y - height / 2;
  return (dx * dx + dy * dy) / ((width * width + height * height) / 4);
}

function entropyOf(values: Float32Array, light: Float32Array): number {
  const counts = new Float64Array(BINS);
  for (let p = 0; p < values.length; p++) {
    const bin = Math.floor(((values[p]! - light[p]! + 3.5) / 4.5) * BINS);
    if (bin >= 0 && bin < BINS) counts[bin]!++;
  }
  let total = 0;
  const soft = counts.map((n, k) => {
    const v = n / 2 + ((counts[k - 1] ?? 0) + (counts[k + 1] ?? 0)) / 4;
    total += v;
    return v;
  });
  return soft.reduce((sum, n) => (n > 0 ? sum - (n / total) * Math.log(n / total) : sum), 0);
}
