import type { Raster } from './raster.js';
import { colourChannels, whiteOf } from './raster.js';

/** Bilinear samples of luma, 0..1 (ITU-R BT.601 weights), the border repeated outward. */
export function greySampler({
  width,
  height,
  channels,
  data,
}: Raster): (x: number, y: number) => number {
  const colours = colourChannels(channels);
  const white = whiteOf(data);
  const at = (x: number, y: number): number => {
    const i = (y * width + x) * channels;
    if (colours === 1) return data[i]! / white;
    return (0.299 * data[i]! + 0.587 * data[i + 1]! + 0.114 * data[i + 2]!) / white;
  };
  return (x, y) => {
    const cx = Math.min(width - 1, Math.max(0, x));
    const cy = Math.min(height - 1, Math.max(0, y));
    const ix = Math.floor(cx);
    const iy = Math.floor(cy);
    const fx = cx - ix;
    const fy = cy - iy;
    const jx = Math.min(width - 1, ix + 1);
    const jy = Math.min(height - 1, iy + 1);
    return (
      (at(ix, iy) * (1 - fx) + at(jx, iy) * fx) * (1 - fy) +
      (at(ix, jy) * (1 - fx) + at(jx, jy) * fx) * fy
    );
  };
}

/** Luma of every pixel, 0..255 (ITU-R BT.601 weights). */
export function greyOf({ width, height, channels, data }: Raster): Float32Array {
  const grey = new Float32Array(width * height);
  const scale = 255 / whiteOf(data);
  const colours = colourChannels(channels);
  if (colours === 1)
    for (let p = 0, i = 0; p < grey.length; p++, i += channels) grey[p] = scale * data[i]!;
  else
    for (let p = 0, i = 0; p < grey.length; p++, i += channels)
      grey[p] = scale * (0.299 * data[i]! + 0.587 * data[i + 1]! + 0.114 * data[i + 2]!);
  return grey;
}
