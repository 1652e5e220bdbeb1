import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { maskBox } from '../shape/mask-box.js';

/** Values a pixel has in {@link Scene.tones}. */
export const VALUES = 5;

/** A window, its site and what is forbidden, prepared once for any number of views. */
export interface Scene {
  readonly window: Raster;
  readonly site: Uint8Array;
  readonly banned: Uint8Array;
  readonly box: Rect;
  /** Five values a pixel: colour 0..255, and the slope of luma across and down. */
  readonly tones: Float32Array;
  /** 1 where a pixel is site or forbidden. */
  readonly blocked: Uint8Array;
  readonly forbidden: { isEmpty(x: number, y: number, w: number, h: number): boolean };
}

/** @returns null when the site is empty */
export function sceneOf(window: Raster, site: Uint8Array, banned: Uint8Array): Scene | null {
  const box = maskBox(site, window.width);
  if (!box) return null;
  const blocked = site.map((v, p) => v | banned[p]!);
  const forbidden = emptiness(window.width, window.height, blocked);
  return { window, site, banned, box, tones: tonesOf(window), blocked, forbidden };
}

/** Answers whether a box holds no marked pixel, by a summed-area table (Crow, SIGGRAPH 1984). */
function emptiness(width: number, height: number, mask: Uint8Array) {
  const stride = width + 1;
  const sums = new Int32Array(stride * (height + 1));
  for (let y = 0, p = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++, p++) {
      row += mask[p]!;
      sums[(y + 1) * stride + x + 1] = sums[y * stride + x + 1]! + row;
    }
  }
  return {
    isEmpty(x: number, y: number, w: number, h: number): boolean {
      const x0 = Math.max(0, x);
      const y0 = Math.max(0, y);
      const x1 = Math.min(width, x + w);
      const y1 = Math.min(height, y + h);
      const at = (i: number, j: number): number => sums[j * stride + i]!;
      return at(x1, y1) - at(x0, y1) - at(x1, y0) + at(x0, y0) === 0;
    },
  };
}

/** Five values a pixel: colour 0..255, and the slope of luma across and down (differences about the pixel). */
function tonesOf({ width, height, channels, data }: Raster): Float32Array {
  const scale = 255 / whiteOf(data);
  const [green, blue] = colourChannels(channels) < 3 ? [0, 0] : [1, 2];
  const n = width * height;
  const tones = new Float32Array(VALUES * n);
  const luma = new Float32Array(n);
  for (let p = 0, i = 0, q = 0; p < n; p++, i += channels, q += VALUES) {
    const r = Math.fround(data[i]! * scale);
    const g = Math.fround(data[i + green]! * scale);
    const b = Math.fround(data[i + blue]! * scale);
    tones[q] = r;
    tones[q + 1] = g;
    tones[q + 2] = b;
    luma[p] = 0.299 * r + 0.587 * g + 0.114 * b;
  }
  for (let y = 0; y < height; y++)
    for (let x = 1, p = y * width + 1; x < width - 1; x++, p++)
      tones[VALUES * p + 3] = (luma[p + 1]! - luma[p - 1]!) / 2;
  for (let p = width; p + width < n; p++)
    tones[VALUES * p + 4] = (luma[p + width]! - luma[p - width]!) / 2;
  return tones;
}
