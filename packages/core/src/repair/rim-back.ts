import type { Raster } from '../raster/raster.js';

/** How much a rim has to show of what was mended to stay mended, share of full scale. */
const SHOWS = 0.035;

/**
 * Gives the rim of mended things back where it shows nothing of them: a mend reaches a little beyond what was found, so
 * that no soft edge is left, but what lies there sound stays as it was.
 * @param original 8 or 16 bits
 * @param mended the same picture, mended
 * @param rim a value a pixel: 1 round what was brighter than its ground, -1 round what was darker, 0 elsewhere
 */
export function rimBack(original: Raster, mended: Raster, rim: Int8Array): Raster {
  const { channels } = original;
  const data = mended.data.slice();
  const least = SHOWS * channels * (data instanceof Uint16Array ? 65535 : 255);
  for (let p = 0; p < rim.length; p++) {
    if (!rim[p]) continue;
    const at = p * channels;
    let off = 0;
    for (let c = 0; c < channels; c++) off += original.data[at + c]! - data[at + c]!;
    if (rim[p]! * off < least) data.set(original.data.subarray(at, at + channels), at);
  }
  return { ...mended, data };
}
