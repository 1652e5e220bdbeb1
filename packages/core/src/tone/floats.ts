import type { Raster } from '../raster/raster.js';
import { colourChannels, createRaster, depthOf, whiteOf } from '../raster/raster.js';
import type { Lookup } from './lookup.js';

/** Samples as floats 0..1 without alpha, 1 or 3 channels. */
export function floats(region: Raster): Raster {
  const { width, height, channels, data } = region;
  const colours = colourChannels(channels);
  const out = createRaster(width, height, colours, 'f32');
  const scale = 1 / whiteOf(data);
  if (channels === colours) {
    for (let i = 0; i < out.data.length; i++) out.data[i] = data[i]! * scale;
    return out;
  }
  for (let p = 0, i = 0, o = 0; p < width * height; p++, i += channels)
    for (let c = 0; c < colours; c++, o++) out.data[o] = data[i + c]! * scale;
  return out;
}

/** Whole codes as floats 0..1 that went through a table a channel: every code has an entry of its own. */
export function tabulated(region: Raster, tables: readonly Lookup[]): Raster {
  const { width, height, channels, data } = region;
  const colours = colourChannels(channels);
  const out = createRaster(width, height, colours, 'f32');
  const step = depthOf(data) === 'u8' ? 257 : 1;
  for (let c = 0; c < colours; c++) {
    const table = tables[c]!;
    for (let i = c, o = c; o < out.data.length; i += channels, o += colours)
      out.data[o] = table[step * data[i]!]!;
  }
  return out;
}
