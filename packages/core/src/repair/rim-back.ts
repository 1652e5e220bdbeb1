import type { Raster } from '../raster/raster.js';

/**
 * How much a rim has to show of what was mended to stay mended, share of full scale: on plain ground, how much more for
 * every step from pixel to pixel that the ground has itself, and at most.
 */
const SHOWS = { least: 0.03, rough: 1.5, most: 0.1 } as const;

/**
 * What lies just within the border of something that was found, much of which may not have been part of it; and round what is
 * told by its colour.
 */
export const EDGE = 2;

/**
 * Gives the rim of mended things back where it shows nothing of them: a mend reaches a little beyond what was found, so
 * that no soft edge is left, but what lies there sound stays as it was; and so does what is hardly changed at the edge.
 * @param original 8 or 16 bits
 * @param mended the same picture, mended
 * @param rim a value a pixel: 1 round what was brighter than its ground, -1 round what was darker, {@link EDGE} within it,
 * 0 where all stays mended
 */
export function rimBack(original: Raster, mended: Raster, rim: Int8Array): Raster {
  const { channels } = original;
  const data = mended.data.slice();
  const full = channels * (data instanceof Uint16Array ? 65535 : 255);
  for (let p = 0; p < rim.length; p++) {
    if (!rim[p]) continue;
    const at = p * channels;
    let [sum, most] = [0, 0];
    for (let c = 0; c < channels; c++) {
      const off = original.data[at + c]! - data[at + c]!;
      sum += off;
      most = Math.max(most, Math.abs(off));
    }
    const shown = rim[p] === EDGE ? most * channels : rim[p]! * sum;
    const least = Math.min(SHOWS.most, SHOWS.least + (SHOWS.rough * stepsAt(mended, p)) / full);
    if (shown < least * full) data.set(original.data.subarray(at, at + channels), at);
  }
  return { ...mended, data };
}

/** Mean step from a pixel to those beside, above and below it, summed over the channels. */
function stepsAt({ width, height, channels, data }: Raster, p: number): number {
  const x = p % width;
  const y = (p - x) / width;
  const beside = [
    x > 0 ? p - 1 : p,
    x < width - 1 ? p + 1 : p,
    y > 0 ? p - width : p,
    y < height - 1 ? p + width : p,
  ];
  let sum = 0;
  for (const q of beside)
    for (let c = 0; c < channels; c++)
      sum += Math.abs(data[p * channels + c]! - data[q * channels + c]!);
  return sum / 4;
}
