import type { Raster } from '../raster/raster.js';

/** How much a step at the ring counts beside one within the site. */
export const RIM = 8;

/**
 * What a site pixel's right-hand side asks for: the ring's values where it meets the ring, and towards each neighbour
 * the step its source shows; where the neighbour comes from elsewhere, the mean of both sources' steps.
 * @param site for every pixel the pixel it is copied from, -1 outside the site @param p a site pixel
 * @param steps becomes the sum of what is asked for, a value a channel
 * @returns how many of the neighbours are the ring's
 */
export function wantedSteps(
  { width, height, channels, data }: Raster,
  site: Int32Array,
  p: number,
  steps: Float64Array,
): number {
  const n = width * height;
  const s = site[p]!;
  const x = p % width;
  const sx = s % width;
  steps.fill(0);
  let rim = 0;
  for (let side = 0; side < 4; side++) {
    const across = side === 0 ? 1 : side === 1 ? -1 : 0;
    const by = side === 2 ? width : side === 3 ? -width : across;
    const q = p + by;
    if (x + across < 0 || x + across >= width || q < 0 || q >= n) continue;
    let mine = s + by;
    if (sx + across < 0 || sx + across >= width || mine < 0 || mine >= n || site[mine]! >= 0)
      mine = -1;
    const t = site[q]!;
    if (t < 0) {
      const r = q * channels;
      // The donor's own step or that from the copied tone to the ring, whichever is smaller.
      let [own, raw] = [0, 0];
      if (mine >= 0)
        for (let c = 0; c < steps.length; c++) {
          own += Math.abs(data[s * channels + c]! - data[mine * channels + c]!);
          raw += Math.abs(data[s * channels + c]! - data[r + c]!);
        }
      const from = (own <= raw ? mine : q) * channels;
      rim++;
      for (let c = 0; c < steps.length; c++) {
        const step = mine >= 0 ? data[s * channels + c]! - data[from + c]! : 0;
        steps[c]! += RIM * (data[r + c]! + step);
      }
      continue;
    }
    const there = mine < 0 ? t : mine;
    if (t === s + by) {
      for (let c = 0; c < steps.length; c++)
        steps[c]! += data[s * channels + c]! - data[there * channels + c]!;
      continue;
    }
    let theirs = t - by;
    const tx = (t % width) - across;
    if (tx < 0 || tx >= width || theirs < 0 || theirs >= n || site[theirs]! >= 0) theirs = s;
    for (let c = 0; c < steps.length; c++)
      steps[c]! +=
        (data[s * channels + c]! -
          data[there * channels + c]! +
          data[theirs * channels + c]! -
          data[t * channels + c]!) /
        2;
  }
  return rim;
}
