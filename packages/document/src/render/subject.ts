import type { Point, Raster } from '@tersum/core';
import { frameOf, partsOf, subjectAs, traceOutline } from '@tersum/core';
import type { Patch } from './patch.js';
import { compose } from './patch.js';

/** Parts of the subject smaller than this share of the picture are left out. */
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
  const subject = subjectAs(picture, marked);
  if (!subject) return [];
  return partsOf(subject, picture.width)
    .filter((part) => part.length >= LEAST * subject.length)
    .map((part) => traceOutline(subject, picture.width, part[0]!).map(([x, y]) => [x, y]));
}
