import type { Point, Raster } from '@tersum/core';
import { beyondBackdrop, frameOf, partsOf, subjectAs, traceOutline } from '@tersum/core';
import type { Patch } from './patch.js';
import { compose } from './patch.js';

/** Parts smaller than this share of the picture are left out. */
const LEAST = 0.0002;

/**
 * Outlines of what a mended picture is of, px of the original; none where nothing stands out.
 * @param marked the outline that a person drew; null where it is to be found
 */
export function subjectOutlines(
  original: Raster,
  patches: readonly Patch[],
  marked: readonly Point[] | null,
): [number, number][][] {
  const picture = compose(original, patches, frameOf(original));
  return outlinesOf(subjectAs(picture, marked), picture.width);
}

/** Outlines of what lies beyond a backdrop that ends inside the frame, px of the original; none where it reaches the edges. */
export function backdropOutlines(
  original: Raster,
  patches: readonly Patch[],
  marked: readonly Point[] | null,
): [number, number][][] {
  const picture = compose(original, patches, frameOf(original));
  return outlinesOf(beyondBackdrop(picture, subjectAs(picture, marked)), picture.width);
}

function outlinesOf(mask: Uint8Array | null, width: number): [number, number][][] {
  if (!mask) return [];
  return partsOf(mask, width)
    .filter((part) => part.length >= LEAST * mask.length)
    .map((part) => traceOutline(mask, width, part[0]!).map(([x, y]) => [x, y]));
}
