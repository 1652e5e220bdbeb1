import type { Raster, Rect } from '@tersum/core';

/** The smallest rectangle that holds a mask; null when it is empty. */
export function maskBox(mask: Uint8Array, width: number): Rect | null {
  let x0 = Infinity;
  let y0 = Infinity;
  let x1 = -1;
  let y1 = -1;
  for (let p = 0; p < mask.length; p++) {
    if (!mask[p]) continue;
    const x = p % width;
    const y = Math.floor(p / width);
    x0 = Math.min(x0, x);
    x1 = Math.max(x1, x);
    y0 = Math.min(y0, y);
    y1 = Math.max(y1, y);
  }
  return x1 < 0 ? null : { x: x0, y: y0, width: x1 - x0 + 1, height: y1 - y0 + 1 };
}

export function cropMask(mask: Uint8Array, width: number, rect: Rect): Uint8Array {
  const out = new Uint8Array(rect.width * rect.height);
  for (let y = 0; y < rect.height; y++) {
    const from = (rect.y + y) * width + rect.x;
    out.set(mask.subarray(from, from + rect.width), y * rect.width);
  }
  return out;
}

/** A copy of the picture with a part replaced. */
export function pasteInto(picture: Raster, part: Raster, at: Rect): Raster {
  const data = picture.data.slice();
  const run = at.width * picture.channels;
  for (let y = 0; y < at.height; y++)
    data.set(
      part.data.subarray(y * run, (y + 1) * run),
      ((at.y + y) * picture.width + at.x) * picture.channels,
    );
  return { ...picture, data };
}
