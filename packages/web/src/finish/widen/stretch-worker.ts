import type { Point, Raster, Sides } from '@tersum/core';
import { convertRaster, coverageOf, frameOf, NO_SIDES, stretchPreview } from '@tersum/core';
import { expose, transfer } from 'comlink';

/** A stretched copy as it is drawn. */
export interface Stretching {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
  /** Whether there was background enough for what was asked. */
  readonly whole: boolean;
}

let size = { width: 0, height: 0 };
let preview: ((sides: Sides) => Raster) | null = null;

const worker = {
  /** Takes a small copy in hand. @param kept outlines of what is protected, px of the copy @param scale full px a pixel stands for */
  load(picture: Raster, kept: readonly (readonly Point[])[], scale: number): void {
    const copy = convertRaster(picture, 3, 'u8');
    const mask = new Uint8Array(copy.width * copy.height);
    for (const points of kept) {
      const brush = { width: 1, softness: 0, flow: 1 };
      const { rect, values } = coverageOf({ kind: 'outline', points }, brush, frameOf(copy));
      values.forEach((covered, i) => {
        const p = (rect.y + Math.floor(i / rect.width)) * copy.width + rect.x + (i % rect.width);
        if (covered > 0) mask[p] = 1;
      });
    }
    size = { width: copy.width, height: copy.height };
    preview = stretchPreview(copy, mask, scale);
    // Splices are chosen now, so that the first drag does not wait for them.
    for (const side of ['left', 'right', 'top', 'bottom'] as const)
      preview({ ...NO_SIDES, [side]: 1 });
  },

  /** The copy with other sides, px of the copy; as near to them as there is background. */
  stretch(sides: Sides): Stretching | null {
    if (!preview) return null;
    const { width, height, data } = preview(sides);
    const rgba = new Uint8ClampedArray(4 * width * height);
    for (let i = 0, o = 0; i < data.length; i += 3, o += 4) {
      rgba[o] = data[i]!;
      rgba[o + 1] = data[i + 1]!;
      rgba[o + 2] = data[i + 2]!;
      rgba[o + 3] = 255;
    }
    const whole =
      width === size.width + sides.left + sides.right &&
      height === size.height + sides.top + sides.bottom;
    return transfer({ width, height, rgba, whole }, [rgba.buffer]);
  },
};

export type StretchWorker = typeof worker;
expose(worker);
