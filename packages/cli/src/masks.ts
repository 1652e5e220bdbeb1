import type { Raster, Rect } from '@tersum/core';

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
