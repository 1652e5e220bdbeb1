import type { Rect } from '../raster/rect.js';
import { grow, intersect } from '../raster/rect.js';
import { deepestOf } from '../shape/depth.js';

/** How far around a hole of this depth (px) sources are looked for. */
function marginFor(depth: number): number {
  return Math.round(Math.min(384, 48 + 6 * depth));
}

/**
 * The part of a picture that a hole is filled from.
 * @param box of the hole
 * @param maskOf the hole in a part of the picture, 1 = missing
 * @param margin px round the box; by the hole's depth when left out
 */
export function searchWindow(
  box: Rect,
  frame: Rect,
  maskOf: (part: Rect) => Uint8Array,
  margin?: number,
): Rect {
  // With a pixel round it: a border counts as inside.
  const round = intersect(grow(box, 1), frame);
  const around = margin ?? marginFor(deepestOf(maskOf(round), round.width, round.height));
  return intersect(grow(box, around), frame);
}
