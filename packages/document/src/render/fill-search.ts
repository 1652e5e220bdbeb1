import type {
  Crew,
  DonorMap,
  FillFigures,
  Raster,
  Rect,
  RoughFill,
  Sides,
  Task,
} from '@tersum/core';
import {
  crop,
  cutPortions,
  FILL_VARIANTS,
  fillFigures,
  findGrounds,
  findGuides,
  frameOf,
  grow,
  intersect,
  isEmpty,
  NOT_FILLED,
  NothingToCopy,
  searchFill,
  searchWindow,
  searchSides,
  sheetsFor,
  shift,
} from '@tersum/core';
import type { GroundOffer } from '../api/messages.js';
import type { FillWishes, Guide, SourceArea } from '../schema/fill.js';
import type { Method } from '../schema/method.js';
import type { Repair } from '../schema/repair.js';
import type { Patch } from './patch.js';
import { compose, patchesIn } from './patch.js';
import { replay } from './replay.js';
import { siteRect } from './site-area.js';
import { markAreas, siteMask } from './site-mask.js';

/** Where a fill looks: the picture below it, and the repairs it must keep off. */
export interface FillPlace {
  readonly repair: Repair;
  readonly original: Raster;
  readonly below: readonly Patch[];
  /** Other repairs: their sites supply nothing. */
  readonly others: readonly Repair[];
  /** Of these, the ones that come later: what stands in their sites is still damage, and not looked at. */
  readonly later: readonly Repair[];
  /** Damage that no repair mends yet: it supplies nothing, unless a person allows it, or nothing else is left. */
  readonly damage: readonly SourceArea[];
}

/** How a search is run, besides what its record asks for. */
export interface SearchHelp {
  readonly crew?: Crew;
  readonly task?: Task;
  /** Told on the way of what the filling comes to so far. */
  readonly rough?: (filling: RoughFill) => void;
}

/** How near later damage is left out of what patches are compared by, px. */
const CONTEXT = 16;
const GROUND_SIGHT = { least: 160, sizes: 1.5 } as const;
const GUIDE_SIGHT = 60;

/**
 * Runs the search of a fill over the picture as it stands below the repair.
 * @throws NothingToCopy, Cancelled
 */
export function searchDonorMap(place: FillPlace, help: SearchHelp = {}): DonorMap {
  try {
    return mapOf(place, help);
  } catch (error) {
    if (!(error instanceof NothingToCopy) || !place.damage.length) throw error;
    return mapOf({ ...place, damage: [] }, help);
  }
}

function mapOf(place: FillPlace, help: SearchHelp): DonorMap {
  const { repair, original, others } = place;
  const { method } = repair;
  if (method.kind !== 'fill') throw new Error('only fills have donor maps');
  if (method.sides) return searchNewSides(place, method.sides, help);
  const frame = frameOf(original);
  const box = siteRect(repair, frame);
  if (isEmpty(box)) throw new NothingToCopy('The site lies outside the picture.');
  const own = siteMask([repair], box, frame);
  const window = searchWindow(box, frame, (part) => siteMask([repair], part, frame));
  const pixels = compose(original, patchesIn(place.below, window), window);
  const site = siteMask([repair], window, frame);
  const hole = withLaterDamage(place, site, box, window, frame);
  const banned = siteMask(others, window, frame);
  markAreas(banned, window, [...place.damage, ...method.areas], frame);
  const local = ([x, y]: readonly [number, number]) => [x - window.x, y - window.y] as const;
  const map = searchFill(
    pixels,
    window,
    hole,
    banned,
    {
      seed: method.seed,
      texture: textureOf(method),
      sheets: sheetsFor(method),
      guides: method.guides.map(({ points }) => ({ points: points.map(local) })),
      near: !method.areas.length,
      crew: help.crew,
      rough: help.rough,
    },
    help.task,
  );
  return within(map, box, own);
}

/** Runs the search of sides that are filled: from the picture within them alone, and from nothing that is forbidden. */
function searchNewSides(
  { repair, original, below, others, damage }: FillPlace,
  sides: Sides,
  { crew, task }: SearchHelp,
): DonorMap {
  const method = fillOf(repair);
  const canvas = frameOf(original);
  const inner = {
    x: 0,
    y: 0,
    width: canvas.width - sides.left - sides.right,
    height: canvas.height - sides.top - sides.bottom,
  };
  const banned = siteMask(others, inner, canvas);
  markAreas(banned, inner, [...damage, ...method.areas], canvas);
  const picture = compose(original, patchesIn(below, inner), inner);
  const { seed, guides } = method;
  return searchSides(
    picture,
    sides,
    banned,
    { seed, guides, texture: textureOf(method), crew },
    task,
  );
}

function textureOf({ lean }: FillWishes): number {
  return FILL_VARIANTS.find(({ name }) => name === lean)!.texture;
}

/** One of several fillings of the same site. */
export interface FillVariant {
  readonly map: DonorMap;
  readonly figures: FillFigures;
}

/** Runs a fill's search and measures what it comes to. @throws NothingToCopy, Cancelled */
export function searchVariant(place: FillPlace, help: SearchHelp = {}): FillVariant {
  const { repair, original, below } = place;
  const map = searchDonorMap(place, help);
  const frame = frameOf(original);
  const window = intersect(grow(siteRect(repair, frame), 12), frame);
  const patch = replay({ repair, map, original, below, elsewhere: {} }, help.crew);
  const filled = compose(original, [...patchesIn(below, window), patch], window);
  return { map, figures: fillFigures(filled, siteMask([repair], window, frame), map) };
}

/** The grounds around a repair's site, the ones that touch it first. */
export function searchGrounds(place: FillPlace): GroundOffer[] {
  const { window, grounds } = groundsAround(place);
  return [...grounds.grounds]
    .sort((a, b) => b.ring - a.ring || b.area - a.area)
    .map(({ outline, colour, ...rest }) => ({
      ...rest,
      colour: [...colour],
      outline: outline.map(([x, y]) => [x + window.x, y + window.y]),
    }));
}

/** Outlines of the portions that a site is best cut into, in the order in which they are best filled. */
export function searchPortions(place: FillPlace): [number, number][][] {
  const { window, grounds, site } = groundsAround(place);
  return cutPortions(site, grounds.labels, window.width).map((outline) =>
    outline.map(([x, y]) => [x + window.x, y + window.y]),
  );
}

/** Edges that go on across a repair's site. @param sure only those that need nobody to confirm them */
export function searchGuides({ repair, original, below }: FillPlace, sure: boolean): Guide[] {
  const frame = frameOf(original);
  const box = siteRect(repair, frame);
  if (isEmpty(box)) return [];
  const window = intersect(grow(box, GUIDE_SIGHT), frame);
  const pixels = compose(original, patchesIn(below, window), window);
  return findGuides(pixels, siteMask([repair], window, frame), sure).map(({ points }) => ({
    points: points.map(([x, y]) => [x + window.x, y + window.y]),
  }));
}

/** A repair with what one variant is asked for. */
export function variantOf(
  repair: Repair,
  search: string,
  seed: number,
  lean: FillWishes['lean'],
): Repair {
  const method: Method = { ...fillOf(repair), search, seed, lean };
  return { ...repair, method };
}

function fillOf({ method }: Repair): Extract<Method, { kind: 'fill' }> {
  if (method.kind !== 'fill') throw new Error('only fills have variants');
  return method;
}

function groundsAround({ repair, original, below, others }: FillPlace) {
  const frame = frameOf(original);
  const box = siteRect(repair, frame);
  if (isEmpty(box)) throw new NothingToCopy('The site lies outside the picture.');
  const reach = Math.max(GROUND_SIGHT.least, GROUND_SIGHT.sizes * Math.max(box.width, box.height));
  const window = intersect(grow(box, Math.round(reach)), frame);
  const site = siteMask([repair], window, frame);
  const closed = siteMask(others, window, frame);
  for (let p = 0; p < closed.length; p++) if (site[p]) closed[p] = 1;
  const pixels = below.length
    ? compose(original, patchesIn(below, window), window)
    : crop(original, window);
  return { window, site, grounds: findGrounds(pixels, closed) };
}

function withLaterDamage(
  { later }: FillPlace,
  site: Uint8Array,
  box: Rect,
  window: Rect,
  frame: Rect,
): Uint8Array {
  const near = intersect(grow(box, CONTEXT), window);
  const damage = later.filter(
    ({ method }) => method.kind !== 'give back' && method.kind !== 'piece',
  );
  const mask = siteMask(damage, near, frame);
  const hole = site.slice();
  const at = shift(near, -window.x, -window.y);
  for (let y = 0, i = 0; y < near.height; y++)
    for (let x = 0; x < near.width; x++, i++)
      if (mask[i]) hole[(at.y + y) * window.width + at.x + x] = 1;
  return hole;
}

/** The part of a map that lies in the site. */
function within(map: DonorMap, box: Rect, own: Uint8Array): DonorMap {
  const n = box.width * box.height;
  const dx = new Int16Array(n).fill(NOT_FILLED);
  const dy = new Int16Array(n).fill(NOT_FILLED);
  const confidence = new Uint8Array(n);
  for (let y = 0, i = 0; y < box.height; y++)
    for (let x = 0; x < box.width; x++, i++) {
      if (!own[i]) continue;
      const k = (box.y + y - map.rect.y) * map.rect.width + box.x + x - map.rect.x;
      dx[i] = map.dx[k]!;
      dy[i] = map.dy[k]!;
      confidence[i] = map.confidence[k]!;
    }
  return { ...map, rect: box, dx, dy, confidence };
}
