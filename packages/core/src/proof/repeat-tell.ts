import type { Plane } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect, shift } from '../raster/rect.js';
import type { Asked, Grid, Scene } from './looks.js';
import {
  askedOf,
  gridOf,
  halvesOf,
  MARKED,
  REPEAT_STEP,
  sceneOf,
  thinningOf,
  unlike,
} from './looks.js';
import { correlation, deviationAt, HALF, isWithin, SIDE } from './patches.js';
import { boxOf } from './site-window.js';

/** Something that is seen twice within sight. */
export interface Repeat {
  /** Side of a square of as much as is repeated, px. */
  readonly px: number;
  readonly box: Rect;
  readonly twin: Rect;
  /** Whether hardly more than its grain is the same. */
  readonly faint: boolean;
}

const STEP = REPEAT_STEP;
/** Correlation of the same thing seen twice, and of the same grain. */
const SAME = 0.955;
const EXACT = 0.985;
/** By how much a quarter of the pixels may tell less. */
const ROUGHLY = 0.1;
/** Root mean square by which the same grain may be off, codes. */
const GRAIN_OFF = 1;
/** What only its grain gives away counts half: it has to be larger to be told. */
const FAINT = 0.5;
/** Share of marked places from which on a repeat is seen. */
const SHOWN = 0.2;
/** Share of the picture's longer side that is taken in at one look, and at most so many px. */
const SIGHT = 0.3;
const MOST_SIGHT = 360;
/** What is smaller is taken in as a whole, px. */
const LEAST_SIGHT = 240;
/** A look that so many places of the grid within sight share is nobody's. */
const COMMON = 16;
/** Share of the surroundings that may repeat by the same shift before it is the picture's own pattern. */
const PATTERN = 0.25;

/** Bits by which the looks of the same thing seen twice differ at most; grain differs a little. */
const UNLIKE = 5;
/** By which factor their contrasts differ at most: a copy may be graded, hardly more. */
const GRADED = 1.5;

/** How far from a place something may lie that is seen together with it, px. */
export function sightIn({
  width,
  height,
}: {
  readonly width: number;
  readonly height: number;
}): number {
  const share = Math.round(SIGHT * Math.max(width, height));
  return Math.min(MOST_SIGHT, Math.max(LEAST_SIGHT, share));
}

/** Shifts of most votes that are looked into. */
const TRIED = 40;
/** Places beside a site that are asked about each. */
const BESIDE = 240;

/** Two shifts as one number. */
const KEY = 8192;

/** Places of a site by the shift at which they are seen again. */
type Votes = Map<number, number[]>;

/**
 * For every site the largest thing in it that is seen again within sight by one shift, though its surroundings do not
 * repeat so: places with the same order of tones at 32 pairs of pixels (Calonder et al., "BRIEF: Binary Robust Independent
 * Elementary Features", ECCV 2010), compared by correlation, voting for their shift.
 * @param sites pixels of each @param sight px; see {@link sightIn}
 */
export function repeatsIn(
  picture: Raster,
  sites: readonly Int32Array[],
  sight = sightIn(picture),
): (Repeat | null)[] {
  if (!sites.length) return [];
  const scene = sceneOf(picture);
  const grid = gridOf(scene);
  const tables = [new Int32Array(65536), new Int32Array(65536)] as const;
  return sites.map((pixels) => {
    const asked = askedOf(scene, pixels, tables);
    if (asked.places.length < 6) return null;
    return largest(scene, pixels, votesOf(scene, grid, asked, pixels, sight));
  });
}

/** Pixels of a site by the shift at which a place of the grid within sight shows the same. */
function votesOf(
  { grey }: Scene,
  grid: Grid,
  asked: Asked,
  pixels: Int32Array,
  sight: number,
): Votes {
  const { width } = grey;
  const near = intersect(grow(boxOf(pixels, width), sight), frameOf(grey));
  // Pairs that share a half of their looks: the site's pixel and half, and the place.
  const ones: number[] = [];
  const others: number[] = [];
  const counts = new Uint16Array(2 * asked.places.length);
  const meet = (half: 0 | 1, g: number, x: number, y: number): void => {
    const look = grid.looks[g]!;
    const spread = grid.spreads[g]!;
    const next = asked.next[half];
    for (let a = asked.first[half][half ? look >>> 16 : look & 0xffff]!; a >= 0; a = next[a]!) {
      if (counts[2 * a + half]! > COMMON) continue;
      const dx = x - asked.xs[a]!;
      const dy = y - asked.ys[a]!;
      if (dx > sight || dx < -sight || dy > sight || dy < -sight) continue;
      if (dx < SIDE && dx > -SIDE && dy < SIDE && dy > -SIDE) continue;
      counts[2 * a + half]!++;
      if (unlike(asked.looks[a]! ^ look) > UNLIKE) continue;
      const own = asked.spreads[a]!;
      if (own > GRADED * spread || spread > GRADED * own) continue;
      // A pair alike in both halves was met in the first.
      if (half && (asked.looks[a]! & 0xffff) === (look & 0xffff)) continue;
      ones.push(2 * a + half);
      others.push(y * width + x);
    }
  };
  // Most places are known to match none without going far.
  const lower = halvesOf(asked.looks, 0);
  const upper = halvesOf(asked.looks, 16);
  const columns = { from: Math.ceil(near.x / STEP), to: Math.ceil((near.x + near.width) / STEP) };
  for (let v = Math.ceil(near.y / STEP); v * STEP < near.y + near.height; v++)
    for (let u = columns.from, g = v * grid.columns + u; u < columns.to; u++, g++) {
      if (!grid.spreads[g]) continue;
      const look = grid.looks[g]!;
      if (lower[(look >>> 5) & 2047]! & (1 << (look & 31))) meet(0, g, u * STEP, v * STEP);
      if (upper[look >>> 21]! & (1 << ((look >>> 16) & 31))) meet(1, g, u * STEP, v * STEP);
    }
  const votes: Votes = new Map();
  ones.forEach((one, k) => {
    if (counts[one]! > COMMON) return;
    const a = one >> 1;
    const [p, q] = [asked.places[a]!, others[k]!];
    if (!asked.marked[a] && !isWithin(grey, p, q, GRAIN_OFF)) return;
    const least = asked.marked[a] ? SAME : EXACT;
    if (correlation(grey, p, q, 2) < least - ROUGHLY || correlation(grey, p, q) < least) return;
    const key = (Math.floor(q / width) - Math.floor(p / width)) * KEY + (q % width) - (p % width);
    // What is grain alone is told apart by its sign.
    const vote = asked.marked[a] ? p : -p - 1;
    const list = votes.get(key);
    if (list) list.push(vote);
    else votes.set(key, [vote]);
  });
  return votes;
}

function largest({ grey }: Scene, pixels: Int32Array, votes: Votes): Repeat | null {
  const { width } = grey;
  const candidates = [...votes]
    .filter(([, list]) => list.length >= 4)
    .sort((one, other) => other[1].length - one[1].length)
    .slice(0, TRIED);
  if (!candidates.length) return null;
  const around = aroundOf(grey, new Set(pixels), boxOf(pixels, width));
  const found = candidates.find(([key]) => !isPattern(grey, around, key));
  const best = found && { key: found[0], list: found[1] };
  if (!best) return null;
  const places = Int32Array.from(best.list, (v) => (v < 0 ? -v - 1 : v));
  const marked = best.list.filter((v) => v >= 0).length;
  const weight = FAINT + (1 - FAINT) * Math.min(1, (2 * marked) / best.list.length);
  const place = grow(boxOf(places, width), HALF);
  const dy = Math.round(best.key / KEY);
  return {
    px: weight * STEP * Math.sqrt(best.list.length * thinningOf(pixels)),
    box: place,
    twin: shift(place, best.key - dy * KEY, dy),
    faint: marked < SHOWN * best.list.length,
  };
}

/** Places on the grid beside a site at which something is marked. */
function aroundOf(grey: Plane, inside: ReadonlySet<number>, box: Rect): number[] {
  const near = intersect(grow(box, 28), grow(frameOf(grey), -HALF));
  const found: number[] = [];
  for (let y = Math.ceil(near.y / STEP) * STEP; y < near.y + near.height; y += STEP)
    for (let x = Math.ceil(near.x / STEP) * STEP; x < near.x + near.width; x += STEP) {
      const p = y * grey.width + x;
      if (!inside.has(p) && deviationAt(grey, p) >= MARKED) found.push(p);
    }
  const each = Math.ceil(found.length / BESIDE);
  return found.filter((_, k) => k % each === 0);
}

/** Whether what surrounds the site repeats by the same shift. */
function isPattern(grey: Plane, around: readonly number[], key: number): boolean {
  const dy = Math.round(key / KEY);
  const dx = key - dy * KEY;
  let [same, all] = [0, 0];
  for (const p of around) {
    const [u, v] = [(p % grey.width) + dx, Math.floor(p / grey.width) + dy];
    if (u < HALF || v < HALF || u >= grey.width - HALF || v >= grey.height - HALF) continue;
    all++;
    if (correlation(grey, p, v * grey.width + u) > 0.8) same++;
  }
  return all > 0 && same / all > PATTERN;
}
