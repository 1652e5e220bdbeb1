import type { Coverage, Point, Rect } from '@tersum/core';
import { coverageOf, extentOf, grow, intersect, subCoverage } from '@tersum/core';
import type { Repair } from '../schema/repair.js';
import { pieceCoverage, piecePlace } from './piece-place.js';

/** The area a repair may write, clipped to the picture. */
export function siteRect(repair: Repair, frame: Rect): Rect {
  return intersect(siteBox(repair), frame);
}

/** The area a repair may write, not clipped: for a piece, where it is laid down. */
export function siteBox(repair: Repair): Rect {
  return repair.method.kind === 'piece' ? piecePlace(repair).laid : extentOf(repair.site, repair);
}

/** How much of each pixel a repair covers, clipped to the picture. */
export function siteCoverage(repair: Repair, frame: Rect): Coverage {
  return repair.method.kind === 'piece'
    ? pieceCoverage(repair, frame)
    : coverageOf(repair.site, repair, frame);
}

/** The site with its ring: what every method reads besides donors. */
export function ringRect(repair: Repair, frame: Rect): Rect {
  return intersect(grow(siteRect(repair, frame), 1), frame);
}

/** Middle of the site's own box: what donors are placed, turned and mirrored about. */
export function siteMiddle(repair: Pick<Repair, 'site' | 'width' | 'softness' | 'flow'>): Point {
  const box = extentOf(repair.site, repair);
  return [box.x + (box.width - 1) / 2, box.y + (box.height - 1) / 2];
}

/** Coverage of the repair over `window`, which holds its {@link siteRect}. */
export function coverageIn(repair: Repair, frame: Rect, window: Rect): Float32Array {
  return subCoverage(siteCoverage(repair, frame), window);
}
