import type { Rect } from '../raster/rect.js';

/** The smallest rectangle that holds a mask; null when it is empty. */
export function maskBox(mask: Uint8Array, width: number): Rect | null {
  let x0 = width;
  let y0 = -1;
  let x1 = -1;
  let y1 = -1;
  for (let row = 0, y = 0; row < mask.length; row += width, y++) {
    let x = 0;
    while (x < width && !mask[row + x]) x++;
    if (x === width) continue;
    let last = width - 1;
    while (!mask[row + last]) last--;
    if (y0 < 0) y0 = y;
    y1 = y;
    if (x < x0) x0 = x;
    if (last > x1) x1 = last;
  }
  return x1 < 0 ? null : { x: x0, y: y0, width: x1 - x0 + 1, height: y1 - y0 + 1 };
}
