import type { DonorMap, DonorOffer, Raster, Rect, Task } from '@tersum/core';
import {
  coverageOf,
  crop,
  deepest,
  findDonor,
  fitLineRun,
  frameOf,
  grow,
  intersect,
  meets,
  searchFill,
  searchMargin,
  shift,
  supportOf,
} from '@tersum/core';
import type { LineRun, Point } from '@tersum/core';
import type { Repair } from '../schema/repair.js';
import type { Patch } from './patch.js';
import { compose, patchesIn } from './patch.js';
import { siteRect } from './read-region.js';

/** Half the range a donor is looked for in, in site sizes, and its bounds in px. */
const DONOR_REACH = { sizes: 2, least: 48, most: 240 };

/**
 * Runs the search of a fill over the picture as it stands below the repair.
 * @param others repairs whose sites are still open or mended: nothing is copied from them
 * @throws NothingToCopy, Cancelled
 */
export function searchDonorMap(
  repair: Repair,
  original: Raster,
  below: readonly Patch[],
  others: readonly Repair[],
  task?: Task,
): DonorMap {
  if (repair.method.kind !== 'fill') throw new Error('only fills have donor maps');
  const frame = frameOf(original);
  const site = coverageOf(repair.site, repair, frame);
  const depth = deepest(supportOf(site), site.rect.width, site.rect.height);
  const window = intersect(grow(site.rect, searchMargin(depth)), frame);
  const pixels = compose(original, patchesIn(below, window), window);
  const hole = siteMask([repair], window, frame);
  const banned = siteMask(others, window, frame);
  return searchFill(pixels, window, hole, banned, { seed: repair.method.seed }, task);
}

/** Looks for the donor that suits a clone or graft best; null when there is none in reach. */
export function searchDonor(
  repair: Repair,
  original: Raster,
  below: readonly Patch[],
  others: readonly Repair[],
): DonorOffer | null {
  const frame = frameOf(original);
  const site = siteRect(repair, frame);
  const size = Math.max(Math.min(site.width, site.height), repair.width);
  const reach = Math.round(
    Math.min(DONOR_REACH.most, Math.max(DONOR_REACH.least, DONOR_REACH.sizes * size)),
  );
  const window = intersect(grow(site, reach + 8), frame);
  const pixels = compose(original, patchesIn(below, window), window);
  const mask = siteMask([repair], window, frame);
  const banned = siteMask(others, window, frame);
  return findDonor(pixels, mask, banned, shift(site, -window.x, -window.y), reach);
}

/** Measures the thin line between two points of the original; null when there is none. */
export function searchLine(original: Raster, from: Point, to: Point): LineRun | null {
  const frame = frameOf(original);
  const span = Math.max(Math.abs(to[0] - from[0]), Math.abs(to[1] - from[1]));
  const box = {
    x: Math.floor(Math.min(from[0], to[0])),
    y: Math.floor(Math.min(from[1], to[1])),
    width: Math.ceil(Math.abs(to[0] - from[0])) + 1,
    height: Math.ceil(Math.abs(to[1] - from[1])) + 1,
  };
  const window = intersect(grow(box, Math.ceil(span * 0.2) + 32), frame);
  if (window.width === 0) return null;
  const local = ([x, y]: Point): Point => [x - window.x, y - window.y];
  const line = fitLineRun(crop(original, window), local(from), local(to));
  return line && { ...line, points: line.points.map(([x, y]) => [x + window.x, y + window.y]) };
}

/** 1 where any of the repairs' sites covers a pixel of `window`. */
function siteMask(repairs: readonly Repair[], window: Rect, frame: Rect): Uint8Array {
  const mask = new Uint8Array(window.width * window.height);
  for (const repair of repairs) {
    if (!meets(siteRect(repair, frame), window)) continue;
    const { rect, values } = coverageOf(repair.site, repair, frame);
    const common = intersect(rect, window);
    for (let y = common.y; y < common.y + common.height; y++)
      for (let x = common.x; x < common.x + common.width; x++)
        if (values[(y - rect.y) * rect.width + x - rect.x]! > 0)
          mask[(y - window.y) * window.width + x - window.x] = 1;
  }
  return mask;
}
