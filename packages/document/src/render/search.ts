import type { DonorOffer, Raster, Rect } from '@tersum/core';
import {
  adviseFor,
  coverageOf,
  crop,
  enclose,
  findDonors,
  findTwins,
  fitLineRun,
  frameOf,
  grow,
  growRegion,
  intersect,
  isEmpty,
  placementMap,
  reachFor,
  sightIn,
  shift,
  siteFacts,
} from '@tersum/core';
import type { DonorSearchOptions, LineRun, Point } from '@tersum/core';
import type { AdviceAnswer, Offer, TwinOffer } from '../api/messages.js';
import { isCopy } from '../schema/method.js';
import type { Repair } from '../schema/repair.js';
import type { Patch } from './patch.js';
import { compose, patchesIn } from './patch.js';
import { siteMiddle, siteRect } from './site-area.js';
import { siteMask } from './site-mask.js';

/** How far around a site twins, edges and outlines are looked for, px. */
const TWIN_REACH = 480;
const ADVICE_SIGHT = 40;
const REGION_SIGHT = { least: 80, sizes: 2 };

/** What searches around a repair's site look at. */
interface SiteView {
  readonly pixels: Raster;
  readonly site: Uint8Array;
  /** 1 where nothing may be copied: sites of other repairs. */
  readonly banned: Uint8Array;
  readonly window: Rect;
  /** The site in the window. */
  readonly box: Rect;
}

/** A window around the site as it stands below the repair; null where the site lies outside the picture. */
function siteView(
  repair: Repair,
  original: Raster,
  below: readonly Patch[],
  others: readonly Repair[],
  reach: number,
): SiteView | null {
  const frame = frameOf(original);
  const site = siteRect(repair, frame);
  if (isEmpty(site)) return null;
  const window = intersect(grow(site, reach + 8), frame);
  return {
    pixels: compose(original, patchesIn(below, window), window),
    site: siteMask([repair], window, frame),
    banned: siteMask(others, window, frame),
    window,
    box: shift(site, -window.x, -window.y),
  };
}

/**
 * Ranks donors for a repair, best first; empty when there is none in reach.
 * @param others repairs whose sites must not be copied; what they copied from is taken again only in need
 */
export function searchDonors(
  repair: Repair,
  original: Raster,
  below: readonly Patch[],
  others: readonly Repair[],
  { away, ...wishes }: DonorTries = {},
): Offer[] {
  const size = siteRect(repair, frameOf(original));
  const near = reachFor(Math.max(Math.min(size.width, size.height), repair.width));
  const least = away ? sightIn(original) + BEYOND : 0;
  const reach = Math.max(near, least + (away ? near : 0));
  const view = siteView(repair, original, below, others, reach);
  if (!view) return [];
  const { method } = repair;
  const matched = method.kind === 'patch' ? method.as === 'graft' : method.kind === 'graft';
  const used = usedMask(others, view.window, frameOf(original));
  return findDonors(view.pixels, view.site, view.banned, view.box, {
    reach,
    least,
    matched,
    used,
    ...wishes,
  }).map(offerOf);
}

/** What may be tried besides shifts near by; `away`: only places that are not seen together with the site. */
type DonorTries = Pick<DonorSearchOptions, 'turn' | 'mirror' | 'scale'> & {
  readonly away?: boolean | undefined;
};

/** px beyond what is taken in at one look. */
const BEYOND = 8;

/** Counterparts of a half-lost thing around a repair's site, best first. */
export function searchTwins(
  repair: Repair,
  original: Raster,
  below: readonly Patch[],
  others: readonly Repair[],
): TwinOffer[] {
  const size = siteRect(repair, frameOf(original));
  const reach = Math.min(TWIN_REACH, 4 * Math.max(size.width, size.height, 24));
  const view = siteView(repair, original, below, others, reach);
  if (!view) return [];
  const { x, y } = view.window;
  return findTwins(view.pixels, view.site, view.banned, view.box, reach).map((twin) => ({
    ...offerOf(twin),
    over: twin.over,
    axis: twin.axis && [
      [twin.axis[0][0] + x, twin.axis[0][1] + y],
      [twin.axis[1][0] + x, twin.axis[1][1] + y],
    ],
  }));
}

/** Measures a repair's site and says how it is best mended; nulls where it lies outside the picture. */
export function searchAdvice(
  repair: Repair,
  original: Raster,
  below: readonly Patch[],
): AdviceAnswer {
  const view = siteView(repair, original, below, [], ADVICE_SIGHT);
  if (!view) return { advice: null, facts: null };
  const facts = siteFacts(view.pixels, view.site);
  return { advice: adviseFor(facts), facts };
}

/** The outline of the thing that a scribble lies on; null where the scribble lies outside the picture. */
export function searchRegion(
  original: Raster,
  scribble: readonly Point[],
): [number, number][] | null {
  const xs = scribble.map(([x]) => x);
  const ys = scribble.map(([, y]) => y);
  const box = enclose(Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys));
  const around = Math.max(REGION_SIGHT.least, REGION_SIGHT.sizes * Math.max(box.width, box.height));
  const window = intersect(grow(box, around), frameOf(original));
  if (isEmpty(window)) return null;
  const outline = growRegion(
    crop(original, window),
    scribble.map(([x, y]) => [x - window.x, y - window.y]),
  );
  return outline && outline.map(([x, y]) => [x + window.x, y + window.y]);
}

function offerOf({ misfit, ...placement }: DonorOffer): Offer {
  const { dx, dy, turn, mirrorX, mirrorY, scale } = placement;
  return { donor: { dx, dy, turn, mirrorX, mirrorY, scale, picture: null }, misfit };
}

/** 1 where other repairs have copied from. */
function usedMask(others: readonly Repair[], window: Rect, frame: Rect): Uint8Array {
  const used = new Uint8Array(window.width * window.height);
  for (const { method, ...repair } of others) {
    if (!isCopy(method) || method.donor.picture !== null) continue;
    const { rect, values } = coverageOf(repair.site, repair, frame);
    const map = placementMap(method.donor, siteMiddle(repair));
    for (let y = 0, p = 0; y < rect.height; y++)
      for (let x = 0; x < rect.width; x++, p++) {
        if (!(values[p]! > 0)) continue;
        const px = rect.x + x;
        const py = rect.y + y;
        const sx = Math.round(map.a * px + map.b * py + map.c) - window.x;
        const sy = Math.round(map.d * px + map.e * py + map.f) - window.y;
        if (sx >= 0 && sy >= 0 && sx < window.width && sy < window.height)
          used[sy * window.width + sx] = 1;
      }
  }
  return used;
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
