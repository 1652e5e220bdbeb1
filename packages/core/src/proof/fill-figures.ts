import type { DonorMap } from '../fill/donor-map.js';
import { NOT_FILLED } from '../fill/donor-map.js';
import type { Raster } from '../raster/raster.js';
import { whiteOf } from '../raster/raster.js';

/** What gives a filling away, in numbers. */
export interface FillFigures {
  /** Mean step across the site's border beside the mean step in its ring; 1 is what untouched pictures show. */
  readonly seam: number;
  /** Mean gradient inside beside the ring's; 1 is alike, less is washed out. */
  readonly texture: number;
  /** Share of the site that copies what another part of it copies too, 0..1. */
  readonly repeats: number;
}

const RING = 8;

/**
 * Measures a filling.
 * @param filled the window with the filling in it
 * @param hole 1 = filled, one value a pixel
 */
export function fillFigures(filled: Raster, hole: Uint8Array, map: DonorMap): FillFigures {
  const { width, height, channels, data } = filled;
  const scale = 255 / whiteOf(data);
  const ring = ringOf(hole, width, height);
  const step = (p: number, q: number): number => {
    let sum = 0;
    for (let c = 0; c < Math.min(3, channels); c++)
      sum += Math.abs(data[p * channels + c]! - data[q * channels + c]!);
    return (sum * scale) / Math.min(3, channels);
  };
  const sums = { inside: 0, ring: 0, border: 0 };
  const counts = { inside: 0, ring: 0, border: 0 };
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      if (!hole[p] && !ring[p]) continue;
      for (const q of [x + 1 < width ? p + 1 : -1, y + 1 < height ? p + width : -1]) {
        if (q < 0 || (!hole[q] && !ring[q])) continue;
        const where = hole[p] !== hole[q] ? 'border' : hole[p] ? 'inside' : 'ring';
        sums[where] += step(p, q);
        counts[where]++;
      }
    }
  const mean = (where: keyof typeof sums): number => sums[where] / Math.max(1, counts[where]);
  const usual = Math.max(0.5, mean('ring'));
  return {
    seam: mean('border') / usual,
    texture: mean('inside') / usual,
    repeats: repeatsOf(map),
  };
}

/** One number to rank fillings of the same site by: the lower, the less gives it away. */
export function tellScore({ seam, texture, repeats }: FillFigures): number {
  return Math.max(0, seam - 1) + Math.abs(1 - texture) + repeats;
}

function ringOf(hole: Uint8Array, width: number, height: number): Uint8Array {
  const ring = new Uint8Array(hole.length);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      if (!hole[p]) continue;
      const inner =
        (x === 0 || hole[p - 1]) &&
        (x + 1 === width || hole[p + 1]) &&
        (y === 0 || hole[p - width]) &&
        (y + 1 === height || hole[p + width]);
      if (inner) continue;
      for (let b = Math.max(0, y - RING); b <= Math.min(height - 1, y + RING); b++)
        for (let a = Math.max(0, x - RING); a <= Math.min(width - 1, x + RING); a++)
          if (!hole[b * width + a]) ring[b * width + a] = 1;
    }
  return ring;
}

function repeatsOf({ rect, dx, dy }: DonorMap): number {
  const used = new Set<number>();
  let filled = 0;
  for (let i = 0; i < dx.length; i++) {
    if (dx[i] === NOT_FILLED) continue;
    filled++;
    const x = (i % rect.width) + dx[i]! + 32768;
    const y = Math.floor(i / rect.width) + dy[i]! + 32768;
    used.add(y * 131072 + x);
  }
  return filled ? 1 - used.size / filled : 0;
}
