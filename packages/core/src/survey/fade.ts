import { greyOf } from '../raster/grey.js';
import type { Raster } from '../raster/raster.js';
import { crop, frameOf, grow, intersect } from '../raster/rect.js';
import { depthsOf } from '../shape/depth.js';
import { boxOf } from './outlines.js';

/** px beyond a finding's pixels up to which its edge may fade, and from and to which the ground is read. */
const MOST_FADE = 3;
const GROUND = [5, 6] as const;
/** Share of its height, and codes, by which a ring beyond its ground still belongs to it. */
const SHARE = 0.04;
const LEAST = 3;
/** Part of a ring that counts: corners fade where sides do not. */
const PART = 0.9;

/**
 * How far the edge of something that stands out goes on fading beyond the pixels next to it, px: none, up to 3.
 * @param pixels down to half its height, reading order
 */
export function fadeOf(picture: Raster, pixels: Int32Array, polarity: 1 | -1): number {
  const box = intersect(grow(boxOf(pixels, picture.width), GROUND[1] + 1), frameOf(picture));
  const { width, height } = box;
  const outside = new Uint8Array(width * height).fill(1);
  for (const p of pixels)
    outside[(Math.floor(p / picture.width) - box.y) * width + (p % picture.width) - box.x] = 0;
  const grey = greyOf(crop(picture, box));
  const rings = Array.from({ length: GROUND[1] + 1 }, (): number[] => []);
  depthsOf(outside, width, height).forEach((d, p) => {
    const ring = Math.round(d);
    if (ring < rings.length) rings[ring]!.push(polarity * grey[p]!);
  });
  const [own, ground] = [rings[0]!, [...rings[GROUND[0]]!, ...rings[GROUND[1]]!]];
  if (!own.length || !ground.length) return 0;
  const base = partOf(ground);
  const clear = Math.max(LEAST, SHARE * (partOf(own) - base));
  let fade = 0;
  while (fade < MOST_FADE) {
    // The first pixel outward is any repair's margin.
    const ring = rings[fade + 2]!;
    if (!ring.length || partOf(ring) - base <= clear) break;
    fade++;
  }
  return fade;
}

function partOf(values: number[]): number {
  values.sort((a, b) => a - b);
  return values[Math.min(values.length - 1, Math.floor(PART * values.length))]!;
}
