import type { Raster } from '../raster/raster.js';
import { whiteOf } from '../raster/raster.js';

/** Half the side of a patch: 7x7. */
export const HALF = 3;

/**
 * How much texture counts beside colour when patches are compared (the lambda of Newson et al.). Voting smooths, and
 * smooth content finds smooth sources: without weight on texture the filling washes out from level to level.
 */
const TEXTURE_WEIGHT = 4;

/** One step of the search pyramid. Four bytes a pixel: red, green, blue, texture. */
export interface Level {
  readonly width: number;
  readonly height: number;
  readonly pixels: Uint8Array;
  /** 1 = to be filled; such pixels start out as 0 and get their content from voting only. */
  readonly hole: Uint8Array;
  /** 1 = real content that must not be copied. */
  readonly banned: Uint8Array;
}

/**
 * The finest level. The texture channel is the mean absolute gradient of luma over known pixels nearby, the
 * feature of Newson et al., "Video Inpainting of Complex Scenes", SIAM J. Imaging Sci. 7(4), 2014.
 */
export function finestLevel(window: Raster, hole: Uint8Array, banned: Uint8Array): Level {
  const { width, height, channels, data } = window;
  const scale = 255 / whiteOf(data);
  const pixels = new Uint8Array(width * height * 4);
  for (let p = 0; p < hole.length; p++) {
    if (hole[p]) continue;
    for (let c = 0; c < 3; c++)
      pixels[4 * p + c] = data[p * channels + (channels >= 3 ? c : 0)]! * scale + 0.5;
  }
  addTexture(pixels, hole, width, height);
  return { width, height, pixels, hole, banned };
}

/** Averages the known pixels of every 2x2; a pixel with fewer than two known ones is hole. */
export function halve(fine: Level): Level {
  const width = fine.width >> 1;
  const height = fine.height >> 1;
  const pixels = new Uint8Array(width * height * 4);
  const hole = new Uint8Array(width * height);
  const banned = new Uint8Array(width * height);
  for (let y = 0, q = 0; y < height; y++) {
    for (let x = 0; x < width; x++, q++) {
      const p = 2 * y * fine.width + 2 * x;
      let known = 0;
      let r = 0;
      let g = 0;
      let b = 0;
      let t = 0;
      for (let k = 0; k < 4; k++) {
        const i = p + (k & 1) + (k >> 1) * fine.width;
        if (fine.banned[i]) banned[q] = 1;
        if (fine.hole[i]) continue;
        known++;
        r += fine.pixels[4 * i]!;
        g += fine.pixels[4 * i + 1]!;
        b += fine.pixels[4 * i + 2]!;
        t += fine.pixels[4 * i + 3]!;
      }
      hole[q] = known < 2 ? 1 : 0;
      if (known < 2) continue;
      const half = known >> 1;
      pixels[4 * q] = (r + half) / known;
      pixels[4 * q + 1] = (g + half) / known;
      pixels[4 * q + 2] = (b + half) / known;
      pixels[4 * q + 3] = (t + half) / known;
    }
  }
  return { width, height, pixels, hole, banned };
}

/** The finest level as it is matched: texture steps back by half, so that colour settles edges and patterns in phase. */
export function lessTexture(level: Level): Level {
  const pixels = level.pixels.slice();
  for (let i = 3; i < pixels.length; i += 4) pixels[i] = pixels[i]! >> 1;
  return { ...level, pixels };
}

function addTexture(pixels: Uint8Array, hole: Uint8Array, width: number, height: number): void {
  const n = width * height;
  const gradient = new Float32Array(n);
  const luma = (p: number): number =>
    0.299 * pixels[4 * p]! + 0.587 * pixels[4 * p + 1]! + 0.114 * pixels[4 * p + 2]!;
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p++) {
      if (hole[p]) continue;
      const here = luma(p);
      let g = 0;
      if (x + 1 < width && !hole[p + 1]) g += Math.abs(luma(p + 1) - here);
      if (y + 1 < height && !hole[p + width]) g += Math.abs(luma(p + width) - here);
      gradient[p] = g;
    }
  }
  // Box means by running sums: rows, then columns, of gradient and of the count of known pixels.
  const reach = 2;
  const sums = new Float32Array(n);
  const counts = new Float32Array(n);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let s = 0;
      let k = 0;
      for (let i = Math.max(0, x - reach); i <= Math.min(width - 1, x + reach); i++) {
        s += gradient[y * width + i]!;
        k += 1 - hole[y * width + i]!;
      }
      sums[y * width + x] = s;
      counts[y * width + x] = k;
    }
  }
  for (let x = 0; x < width; x++) {
    for (let y = 0; y < height; y++) {
      if (hole[y * width + x]) continue;
      let s = 0;
      let k = 0;
      for (let i = Math.max(0, y - reach); i <= Math.min(height - 1, y + reach); i++) {
        s += sums[i * width + x]!;
        k += counts[i * width + x]!;
      }
      pixels[4 * (y * width + x) + 3] = Math.min(255, (TEXTURE_WEIGHT * s) / Math.max(1, k));
    }
  }
}
