import type { FreshPart } from '@tersum/document';

/** A tile as it is now, from the tile as it was and the part that changed. */
export function changedTile(before: ImageBitmap, part: FreshPart): ImageBitmap {
  const canvas = new OffscreenCanvas(before.width, before.height);
  const ctx = canvas.getContext('2d', { alpha: false, willReadFrequently: true })!;
  ctx.drawImage(before, 0, 0);
  ctx.putImageData(new ImageData(pixelsOf(part), part.width, part.height), part.x, part.y);
  return canvas.transferToImageBitmap();
}

/** Opaque RGBA of a part's samples. */
export function pixelsOf({ width, height, samples }: FreshPart): Uint8ClampedArray<ArrayBuffer> {
  const bytes = atob(samples);
  const pixels = new Uint8ClampedArray(4 * width * height);
  const channels = bytes.length / (width * height);
  for (let p = 0, to = 0; p < bytes.length; p += channels, to += 4) {
    pixels[to] = bytes.charCodeAt(p);
    pixels[to + 1] = bytes.charCodeAt(channels === 1 ? p : p + 1);
    pixels[to + 2] = bytes.charCodeAt(channels === 1 ? p : p + 2);
    pixels[to + 3] = 255;
  }
  return pixels;
}
