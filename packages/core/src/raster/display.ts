import { codeOfLinear, LINEAR_OF_CODE } from '../colour/srgb.js';
import type { Depth, Raster } from './raster.js';
import { createRaster, depthOf } from './raster.js';

/** Rounding to 8 bits; the fraction is cut off when it is stored. */
const TO_8_BITS: Record<Depth, (value: number) => number> = {
  u8: (v) => v,
  u16: (v) => (v * 255 + 32767) / 65535,
  f32: (v) => Math.min(1, Math.max(0, v)) * 255 + 0.5,
};

/** 8-bit RGB (or grey) for the screen: alpha dropped, deeper samples rounded to 8 bits. */
export function toDisplay(raster: Raster): Raster {
  const { width, height, channels, data } = raster;
  const shown = channels >= 3 ? 3 : 1;
  const depth = depthOf(data);
  if (depth === 'u8' && shown === channels) return raster;
  const out = createRaster(width, height, shown);
  const to8 = TO_8_BITS[depth];
  for (let p = 0; p < width * height; p++)
    for (let c = 0; c < shown; c++) out.data[p * shown + c] = to8(data[p * channels + c]!);
  return out;
}

/**
 * Half the size, each pixel the mean of the 2x2 it stands for in linear light (IEC 61966-2-1), so that the
 * far view is as bright as the picture. An odd last row or column stands for itself.
 * @param raster 8-bit, 1 or 3 channels
 */
export function halveForDisplay(raster: Raster): Raster {
  const { width, height, channels, data } = raster;
  const out = createRaster(Math.ceil(width / 2), Math.ceil(height / 2), channels);
  const run = width * channels;
  let to = 0;
  for (let y = 0; y < out.height; y++) {
    const below = 2 * y + 1 < height ? run : 0;
    for (let x = 0; x < out.width; x++) {
      const at = 2 * y * run + 2 * x * channels;
      const right = 2 * x + 1 < width ? channels : 0;
      for (let c = 0; c < channels; c++) {
        const i = at + c;
        out.data[to++] = codeOfLinear(
          (LINEAR_OF_CODE[data[i]!]! +
            LINEAR_OF_CODE[data[i + right]!]! +
            LINEAR_OF_CODE[data[i + below]!]! +
            LINEAR_OF_CODE[data[i + below + right]!]!) /
            4,
        );
      }
    }
  }
  return out;
}
