import type { Raster } from '../raster/raster.js';
import { createRaster, depthOf } from '../raster/raster.js';
import type { Sides } from './canvas.js';

/** A picture with the side that is to be changed at its left. Each turn undoes itself. */
export interface View {
  readonly picture: Raster;
  /** 1 = protected */
  readonly kept: Uint8Array;
}

/** How every side comes to lie at the left. */
export const TURNS: readonly (readonly [keyof Sides, readonly ((v: View) => View)[]])[] = [
  ['left', []],
  ['right', [mirrored]],
  ['top', [transposed]],
  ['bottom', [transposed, mirrored]],
];

function mirrored(view: View): View {
  const { width } = view.picture;
  return moved(view, width, view.picture.height, (x, y) => y * width + width - 1 - x);
}

function transposed(view: View): View {
  const { width, height } = view.picture;
  return moved(view, height, width, (x, y) => x * width + y);
}

function moved(
  { picture, kept }: View,
  width: number,
  height: number,
  from: (x: number, y: number) => number,
): View {
  const { channels, data } = picture;
  const out = createRaster(width, height, channels, depthOf(data));
  const mask = new Uint8Array(width * height);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const q = from(x, y);
      mask[p] = kept[q]!;
      for (let c = 0; c < channels; c++) out.data[p * channels + c] = data[q * channels + c]!;
    }
  return { picture: out, kept: mask };
}
