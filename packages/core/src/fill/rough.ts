import type { Rect } from '../raster/rect.js';
import { intersect } from '../raster/rect.js';
import type { Level } from './level.js';

/** What a fill comes to so far, at a reduced size. */
export interface RoughFill {
  /** What it lies over, in the original's coordinates. */
  readonly rect: Rect;
  /** How many px of the original a pixel stands for, each way. */
  readonly factor: number;
  /** Red, green, blue and cover, 0..255 each, row by row. */
  readonly samples: Uint8Array<ArrayBuffer>;
}

/**
 * Takes a coarse level's filling out as a picture.
 * @param k the level: each of its pixels stands for 2^k by 2^k
 * @param box the site in the window @param origin where the window lies in the original
 */
export function roughOf(level: Level, k: number, box: Rect, origin: Rect): RoughFill {
  const factor = 1 << k;
  const x = box.x >> k;
  const y = box.y >> k;
  const part = intersect(
    {
      x,
      y,
      width: Math.ceil((box.x + box.width) / factor) - x,
      height: Math.ceil((box.y + box.height) / factor) - y,
    },
    { x: 0, y: 0, width: level.width, height: level.height },
  );
  const samples = new Uint8Array(4 * part.width * part.height);
  for (let v = 0, to = 0; v < part.height; v++)
    for (let u = 0; u < part.width; u++, to += 4) {
      const p = (part.y + v) * level.width + part.x + u;
      if (!coversAny(level, part.x + u, part.y + v)) continue;
      for (let c = 0; c < 3; c++) samples[to + c] = level.pixels[4 * p + c]! >> 2;
      samples[to + 3] = 255;
    }
  return {
    rect: {
      x: origin.x + (part.x << k),
      y: origin.y + (part.y << k),
      width: part.width << k,
      height: part.height << k,
    },
    factor,
    samples,
  };
}

/** Whether a pixel is filled or may stand for px that are: what is known of those is known of the others alone. */
function coversAny({ hole, width, height }: Level, x: number, y: number): boolean {
  for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
    for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++)
      if (hole[v * width + u]) return true;
  return false;
}
