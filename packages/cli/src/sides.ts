import type { Raster, Sides, SidesOptions } from '@tersum/core';
import { canvasRect, GRAIN_SHARE, grainBack, sidesFilled } from '@tersum/core';

/** A bigger canvas, its new sides filled and with the grain of the picture. */
export function sidesGrained(
  picture: Raster,
  sides: Sides,
  subject: Uint8Array | null,
  options: SidesOptions,
): Raster {
  const filled = sidesFilled(picture, sides, subject, options);
  const { width, height } = canvasRect(picture, sides);
  const coverage = new Float32Array(width * height).fill(1);
  for (let y = 0; y < picture.height; y++) {
    const from = (y + sides.top) * width + sides.left;
    coverage.fill(0, from, from + picture.width);
  }
  return grainBack(filled, coverage, GRAIN_SHARE, options.seed ?? 1);
}
