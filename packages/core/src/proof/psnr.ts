import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';

/**
 * Peak signal-to-noise ratio in dB over the pixels where `mask` is set (all without a mask):
 * 10 log10(white^2 / mean squared difference). Infinity when nothing differs.
 * @throws RangeError when the rasters differ in shape
 */
export function psnr(one: Raster, two: Raster, mask?: Uint8Array): number {
  if (one.data.length !== two.data.length || one.channels !== two.channels)
    throw new RangeError('only rasters of one shape can be compared');
  const { channels } = one;
  const colours = colourChannels(channels);
  let sum = 0;
  let count = 0;
  for (let p = 0; p < one.data.length / channels; p++) {
    if (mask && !mask[p]) continue;
    for (let c = 0; c < colours; c++) {
      const d = one.data[p * channels + c]! - two.data[p * channels + c]!;
      sum += d * d;
    }
    count += colours;
  }
  const white = whiteOf(one.data);
  return 10 * Math.log10((white * white * count) / sum);
}
