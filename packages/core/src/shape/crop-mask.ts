import type { Rect } from '../raster/rect.js';

/** The part of a mask that lies in a rectangle within it. @param width of the mask, px */
export function cropMask(mask: Uint8Array, width: number, rect: Rect): Uint8Array {
  const out = new Uint8Array(rect.width * rect.height);
  for (let y = 0; y < rect.height; y++) {
    const from = (rect.y + y) * width + rect.x;
    out.set(mask.subarray(from, from + rect.width), y * rect.width);
  }
  return out;
}
