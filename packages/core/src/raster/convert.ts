import type { Channels, Depth, Raster } from './raster.js';
import { colourChannels, createRaster, depthOf, whiteOf } from './raster.js';

const DEPTH_WHITE: Record<Depth, number> = { u8: 255, u16: 65535, f32: 1 };

/**
 * The same picture with other channels and depth, so that pixels of one can stand in another. Colour becomes grey
 * by the luma weights of ITU-R BT.601; grey fills all colours; alpha that is new is opaque.
 */
export function convertRaster(raster: Raster, channels: Channels, depth: Depth): Raster {
  const { width, height, data } = raster;
  if (raster.channels === channels && depthOf(data) === depth) return raster;
  const out = createRaster(width, height, channels, depth);
  const white = DEPTH_WHITE[depth];
  const scale = white / whiteOf(data);
  const half = depth === 'f32' ? 0 : 0.5;
  const from = colourChannels(raster.channels);
  const to = colourChannels(channels);
  for (let p = 0; p < width * height; p++) {
    const i = p * raster.channels;
    const o = p * channels;
    for (let c = 0; c < to; c++) {
      const value =
        from === 3 && to === 1
          ? 0.299 * data[i]! + 0.587 * data[i + 1]! + 0.114 * data[i + 2]!
          : data[i + (from === 3 ? c : 0)]!;
      out.data[o + c] = value * scale + half;
    }
    if (channels > to) out.data[o + to] = white;
  }
  return out;
}
