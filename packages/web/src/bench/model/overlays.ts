import type { PictureEvent } from '@tersum/document';
import type { Overlay } from './state.js';

/** A rough filling as a picture. */
export async function overlayOf(rough: Extract<PictureEvent, { type: 'rough' }>): Promise<Overlay> {
  const { repairId, x, y, factor, width, height, samples } = rough;
  return { repair: repairId, x, y, factor, image: await bitmapOf(bytesOf(samples), width, height) };
}

/** Heat of how unsure a fill is: nothing where it is sure, red lead where it is not. */
export async function heatOf(
  repair: string,
  rect: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
  samples: string,
): Promise<Overlay> {
  const sure = bytesOf(samples);
  const shown = new Uint8ClampedArray(4 * sure.length);
  for (let i = 0; i < sure.length; i++) {
    if (sure[i] === 0) continue;
    shown.set([184, 58, 34, Math.round(0.75 * (255 - sure[i]!))], 4 * i);
  }
  const image = await bitmapOf(shown, rect.width, rect.height);
  return { repair, x: rect.x, y: rect.y, factor: 1, image };
}

function bitmapOf(
  samples: Uint8ClampedArray<ArrayBuffer>,
  width: number,
  height: number,
): Promise<ImageBitmap> {
  return createImageBitmap(new ImageData(samples, width, height));
}

function bytesOf(base64: string): Uint8ClampedArray<ArrayBuffer> {
  return Uint8ClampedArray.from(atob(base64), (c) => c.charCodeAt(0));
}
