import type { Raster, Samples } from '../raster/raster.js';
import { colourChannels, createRaster, depthOf, whiteOf } from '../raster/raster.js';

/**
 * Lays `colour` over `below`: below + (colour - below) * coverage * strength, colour channels only.
 * Where coverage is 0 the samples are copied, not computed.
 * @param colour same size and channels as `below`, on the same scale; floats may exceed the range and are clipped
 * @param coverage one value a pixel, 0..1
 * @param strength 0..1
 */
export function layOver(
  below: Raster,
  colour: { readonly data: Samples | Float32Array | Float64Array },
  coverage: Float32Array,
  strength: number,
): Raster {
  const { width, height, channels, data } = below;
  const out = createRaster(width, height, channels, depthOf(data));
  out.data.set(data);
  const colours = colourChannels(channels);
  const white = whiteOf(data);
  for (let p = 0; p < coverage.length; p++) {
    const share = coverage[p]! * strength;
    if (share <= 0) continue;
    for (let i = p * channels, last = i + colours; i < last; i++) {
      const base = data[i]!;
      const value = base + (colour.data[i]! - base) * share;
      const clipped = value < 0 ? 0 : value > white ? white : value;
      out.data[i] = white > 1 ? Math.floor(clipped + 0.5) : clipped;
    }
  }
  return out;
}
