import type { DonorMap, Rect } from '@tersum/core';
import { coverageOf, extentOf, grow, intersect, shift, sourceRects } from '@tersum/core';
import type { Repair } from '../schema/repair.js';

/** The area a repair may write, clipped to the picture. */
export function siteRect(repair: Repair, frame: Rect): Rect {
  return intersect(extentOf(repair.site, repair), frame);
}

/** The site with its ring: what every method reads besides donors. */
export function ringRect(repair: Repair, frame: Rect): Rect {
  return intersect(grow(siteRect(repair, frame), 1), frame);
}

/** Everything a replay reads: site, ring and donors. */
export function readRects(repair: Repair, map: DonorMap | null, frame: Rect): Rect[] {
  const ring = ringRect(repair, frame);
  const { method } = repair;
  if (method.kind === 'fill')
    return map ? [ring, ...sourceRects(map, frame).map((r) => intersect(r, frame))] : [ring];
  return [
    ring,
    intersect(shift(ring, wholeShift(method.donor.dx), wholeShift(method.donor.dy)), frame),
  ];
}

/** Donor shifts are replayed in whole pixels, so that copies are exact. */
export function wholeShift(value: number): number {
  return Math.round(value);
}

/** Coverage of the repair's site over its {@link ringRect}. */
export function coverageInRing(repair: Repair, frame: Rect): Float32Array {
  const window = ringRect(repair, frame);
  const coverage = coverageOf(repair.site, repair, frame);
  const out = new Float32Array(window.width * window.height);
  const { rect, values } = coverage;
  for (let y = 0; y < rect.height; y++) {
    const row = values.subarray(y * rect.width, (y + 1) * rect.width);
    out.set(row, (rect.y + y - window.y) * window.width + rect.x - window.x);
  }
  return out;
}
