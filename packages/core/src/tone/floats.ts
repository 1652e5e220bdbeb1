import type { Raster } from '../raster/raster.js';
import { colourChannels, createRaster, depthOf, whiteOf } from '../raster/raster.js';
import type { Lookup } from './lookup.js';

/** Samples as floats 0..1 without alpha, 1 or 3 channels. @param into samples to be used again, see {@link roomFor} */
export function floats(region: Raster, into?: Float32Array<ArrayBuffer>): Raster {
  const { width, height, channels, data } = region;
  const colours = colourChannels(channels);
  const out = roomFor(region, into);
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
export function tabulated(
  region: Raster,
  tables: readonly Lookup[],
  into?: Float32Array<ArrayBuffer>,
): Raster {
  const { channels, data } = region;
  const result = roomFor(region, into);
  const out = result.data;
  const step = depthOf(data) === 'u8' ? 257 : 1;
  const [red, green, blue] = tables as [Lookup, Lookup, Lookup];
  // Once over the pixels for all channels: the way through the memory is what takes the time.
  if (result.channels === 1)
    for (let i = 0, o = 0; o < out.length; i += channels, o++) out[o] = red[step * data[i]!]!;
  else
    for (let i = 0, o = 0; o < out.length; i += channels, o += 3) {
      out[o] = red[step * data[i]!]!;
      out[o + 1] = green[step * data[i + 1]!]!;
      out[o + 2] = blue[step * data[i + 2]!]!;
    }
  return result;
}

/** A raster of floats for a region's colours, in samples that are used again where they are as many. */
function roomFor({ width, height, channels }: Raster, into?: Float32Array<ArrayBuffer>): Raster {
  const colours = colourChannels(channels);
  return into?.length === width * height * colours
    ? { width, height, channels: colours, data: into }
    : createRaster(width, height, colours, 'f32');
}
