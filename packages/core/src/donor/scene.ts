import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect } from '../raster/rect.js';

/** Values a pixel has in {@link Scene.tones}. */
export const VALUES = 5;

/** Where a site lies in its window. */
export interface SiteAt {
  /** Its pixels, in reading order; at least one. */
  readonly pixels: Int32Array;
  readonly box: Rect;
}

/** A window and what is unknown in it, prepared once for any number of sites and views. */
export interface Scene {
  /** Pixels and marks may be changed in place; {@link Scene.renew} tells the scene. */
  readonly window: Raster;
  /** 1 where a pixel must be neither copied nor compared with: sites, open findings. */
  readonly blocked: Uint8Array;
  /** Five values a pixel: colour 0..255, and the slope of luma across and down (differences about the pixel). */
  readonly tones: Float32Array;
  /** Whether a box is known to hold no blocked pixel. */
  isClear(x: number, y: number, w: number, h: number): boolean;
  /** Takes in changed pixels. Marks may only have gone, not come. */
  renew(rect: Rect): void;
}

export function sceneOf(window: Raster, blocked: Uint8Array): Scene {
  const { width, height } = window;
  const tones = new Float32Array(VALUES * width * height);
  const luma = new Float32Array(width * height);
  const frame = frameOf({ width, height });
  const put = (rect: Rect): void => {
    putColours(tones, luma, window, rect);
    putSlopes(tones, luma, window, rect);
  };
  put(frame);
  return {
    window,
    blocked,
    tones,
    isClear: emptiness(width, height, blocked),
    renew: (rect) => put(intersect(grow(rect, 1), frame)),
  };
}

/** Answers whether a box held no marked pixel, by a summed-area table (Crow, SIGGRAPH 1984). */
function emptiness(width: number, height: number, mask: Uint8Array) {
  const stride = width + 1;
  const sums = summed(width, height, mask);
  const at = (i: number, j: number): number => sums[j * stride + i]!;
  return (x: number, y: number, w: number, h: number): boolean => {
    const x0 = Math.max(0, x);
    const y0 = Math.max(0, y);
    const x1 = Math.min(width, x + w);
    const y1 = Math.min(height, y + h);
    return at(x1, y1) - at(x0, y1) - at(x1, y0) + at(x0, y0) === 0;
  };
}

function summed(width: number, height: number, mask: Uint8Array): Int32Array {
  const stride = width + 1;
  const sums = new Int32Array(stride * (height + 1));
  for (let y = 0, p = 0; y < height; y++)
    for (let row = 0, k = (y + 1) * stride + 1; k < (y + 2) * stride; k++, p++) {
      row += mask[p]!;
      sums[k] = sums[k - stride]! + row;
    }
  return sums;
}

/** Writes the colours of the pixels in a rectangle, and their luma. */
function putColours(
  tones: Float32Array,
  luma: Float32Array,
  { width, channels, data }: Raster,
  rect: Rect,
): void {
  const scale = 255 / whiteOf(data);
  const [green, blue] = colourChannels(channels) < 3 ? [0, 0] : [1, 2];
  for (let y = rect.y; y < rect.y + rect.height; y++) {
    const last = y * width + rect.x + rect.width;
    for (let p = y * width + rect.x, i = p * channels, q = VALUES * p; p < last; p++) {
      const r = data[i]! * scale;
      const g = data[i + green]! * scale;
      const b = data[i + blue]! * scale;
      tones[q] = r;
      tones[q + 1] = g;
      tones[q + 2] = b;
      luma[p] = 0.299 * r + 0.587 * g + 0.114 * b;
      i += channels;
      q += VALUES;
    }
  }
}

/** Writes the slopes of luma in a rectangle; the picture's border has none outwards. */
function putSlopes(
  tones: Float32Array,
  luma: Float32Array,
  { width, height }: Raster,
  rect: Rect,
): void {
  for (let y = rect.y; y < rect.y + rect.height; y++) {
    const within = y > 0 && y < height - 1;
    for (let x = rect.x, p = y * width + x; x < rect.x + rect.width; x++, p++) {
      if (x > 0 && x < width - 1) tones[VALUES * p + 3] = (luma[p + 1]! - luma[p - 1]!) / 2;
      if (within) tones[VALUES * p + 4] = (luma[p + width]! - luma[p - width]!) / 2;
    }
  }
}
