import type { Raster } from '../../raster/raster.js';
import { whiteOf } from '../../raster/raster.js';
import { MOST } from '../level.js';

/** Twin of quarters in kernels/fill/lay.ts: four values a pixel from any raster, 0 in the hole; grey counts as three equal channels. */
export function layQuartersPlainly(window: Raster, hole: Uint8Array, pixels: Int16Array): void {
  const { channels, data } = window;
  const white = whiteOf(data);
  const [g, b] = channels >= 3 ? [1, 2] : [0, 0];
  if (white === 255) {
    for (let p = 0, i = 0, q = 0; p < hole.length; p++, i += channels, q += 4) {
      if (hole[p]) continue;
      pixels[q] = data[i]! << 2;
      pixels[q + 1] = data[i + g]! << 2;
      pixels[q + 2] = data[i + b]! << 2;
    }
    return;
  }
  const scale = MOST / white;
  for (let p = 0, i = 0, q = 0; p < hole.length; p++, i += channels, q += 4) {
    if (hole[p]) continue;
    pixels[q] = data[i]! * scale + 0.5;
    pixels[q + 1] = data[i + g]! * scale + 0.5;
    pixels[q + 2] = data[i + b]! * scale + 0.5;
  }
}
