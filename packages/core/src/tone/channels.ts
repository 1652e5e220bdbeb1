import type { Plane } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';

/** One channel of a region as a plane. */
export function channelOf({ width, height, channels, data }: Raster, c: number): Plane {
  const values = new Float32Array(width * height);
  for (let p = 0, i = c; p < values.length; p++, i += channels) values[p] = data[i]!;
  return { width, height, values };
}

/** Encoded luma (ITU-R BT.709) of a region of 1 or 3 channels. */
export function lumaOf(region: Raster): Plane {
  const { width, height, channels, data } = region;
  if (channels < 3) return channelOf(region, 0);
  const values = new Float32Array(width * height);
  for (let p = 0, i = 0; p < values.length; p++, i += channels)
    values[p] = 0.2126 * data[i]! + 0.7152 * data[i + 1]! + 0.0722 * data[i + 2]!;
  return { width, height, values };
}

/** Adds a plane to every channel, in place, within 0..1. */
export function addToAll({ channels, data }: Raster, values: Float32Array): void {
  for (let p = 0, i = 0; p < values.length; p++)
    for (let c = 0; c < channels; c++, i++) {
      const v = data[i]! + values[p]!;
      data[i] = v < 0 ? 0 : v > 1 ? 1 : v;
    }
}
