import { seededRandom } from '../random/random.js';
import { greyOf } from '../find/grey.js';
import type { Plane } from '../raster/plane.js';
import { boxMean } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect, shift } from '../raster/rect.js';
import {
  correlation,
  deviationAt,
  deviationsOf,
  deviationsOnGrid,
  HALF,
  isEdge,
  isWithin,
  SIDE,
} from './patches.js';
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

/**
 * Step of the grid of places among which a site's are looked for, px. A part of a picture that begins on the grid tells
 * what the whole does.
 */
export const REPEAT_STEP = 4;
const STEP = REPEAT_STEP;
/** Standard deviation from which on a patch is something a viewer may know again, codes. */
const MARKED = 2.2;
/** From which on there is grain at least, which no two places share by chance. */
const GRAINY = 0.8;
/** Correlation of the same thing seen twice, and of the same grain. */
const SAME = 0.955;
const EXACT = 0.985;
/** Root mean square by which the same grain may be off, codes. */
const GRAIN_OFF = 1;
/** What only its grain gives away counts half: it has to be larger to be told. */
const FAINT = 0.5;
/** Share of marked places from which on a repeat is seen. */
const SHOWN = 0.2;
/** Share of the picture's longer side that is taken in at one look, and at most so many px. */
const SIGHT = 0.3;
const MOST_SIGHT = 360;
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
  return Math.min(MOST_SIGHT, Math.round(SIGHT * Math.max(width, height)));
}

/** Shifts of most votes that are looked into. */
const TRIED = 40;
/** Pixels of a site that are asked, about. */
const ASKED = 6000;
/** Places beside a site that are asked about each. */
const BESIDE = 240;

/** Two shifts as one number. */
const KEY = 8192;

const PAIRS = comparisons(32);

/** A picture in which the same is looked for twice. */
interface Scene {
  readonly grey: Plane;
  /** Smoothed a little, for comparisons. */
  readonly smooth: Float32Array;
  /** Tables of where a comparison's two pixels lie. */
  readonly from: Int32Array;
  readonly to: Int32Array;
}

/** Pixels of a site, by either half of their looks: first ones and the ones that follow. */
interface Asked {
  readonly places: Int32Array;
  readonly xs: Int32Array;
  readonly ys: Int32Array;
  readonly looks: Uint32Array;
  readonly marked: Uint8Array;
  /** Standard deviation round each, codes. */
  readonly spreads: Float32Array;
  readonly first: readonly [Int32Array, Int32Array];
  readonly next: readonly [Int32Array, Int32Array];
}

/** The looks of a coarse grid of places; only where something is to be seen. */
interface Grid {
  readonly columns: number;
  readonly rows: number;
  readonly looks: Uint32Array;
  /** Standard deviation round each, codes; 0 where nothing is to be seen. */
  readonly spreads: Float32Array;
}

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

function sceneOf(picture: Raster): Scene {
  const { width, height } = picture;
  const values = greyOf(picture);
  // What changes slowly is alike in many places and tells nothing.
  const slow = boxMean({ width, height, values }, HALF).values;
  for (let p = 0; p < slow.length; p++) slow[p] = values[p]! - slow[p]!;
  const grey = { width, height, values: slow };
  return {
    grey,
    smooth: boxMean(grey, 1).values,
    from: Int32Array.from(PAIRS, ([x, y]) => y * width + x),
    to: Int32Array.from(PAIRS, ([, , x, y]) => y * width + x),
  };
}

function gridOf(scene: Scene): Grid {
  const { width, height } = scene.grey;
  const [columns, rows] = [Math.ceil(width / STEP), Math.ceil(height / STEP)];
  const looks = new Uint32Array(columns * rows);
  const spreads = deviationsOnGrid(scene.grey, STEP).map((s) => (s < GRAINY ? 0 : s));
  for (let v = 0, g = 0; v < rows; v++)
    for (let u = 0; u < columns; u++, g++)
      if (spreads[g]) looks[g] = lookAt(scene, v * STEP * width + u * STEP);
  return { columns, rows, looks, spreads };
}

/** Every pixel of a site that shows something: one of the two grids of a pair can then be coarse. */
function askedOf(scene: Scene, pixels: Int32Array, first: Asked['first']): Asked {
  const thinning = thinningOf(pixels);
  const thinned = thinning > 1 ? pixels.filter((_, k) => k % thinning === 0) : pixels;
  const deviations = deviationsOf(scene.grey, thinned);
  const places = thinned.filter((_, k) => deviations[k]! >= GRAINY);
  const spreads = deviations.filter((deviation) => deviation >= GRAINY);
  const next = [new Int32Array(places.length), new Int32Array(places.length)] as const;
  first[0].fill(-1);
  first[1].fill(-1);
  const looks = Uint32Array.from(places, (p) => lookAt(scene, p));
  looks.forEach((look, n) => {
    next[0][n] = first[0][look & 0xffff]!;
    first[0][look & 0xffff] = n;
    next[1][n] = first[1][look >>> 16]!;
    first[1][look >>> 16] = n;
  });
  return {
    places,
    xs: places.map((p) => p % scene.grey.width),
    ys: places.map((p) => Math.floor(p / scene.grey.width)),
    looks,
    marked: Uint8Array.from(places, (p, k) =>
      spreads[k]! >= MARKED && !isEdge(scene.grey, p) ? 1 : 0,
    ),
    spreads,
    first,
    next,
  };
}

/** Of a large site every so many-th pixel is asked. */
function thinningOf(pixels: Int32Array): number {
  return Math.max(1, Math.round(pixels.length / ASKED));
}

/** Bits that are set. */
function unlike(bits: number): number {
  let n = bits - ((bits >>> 1) & 0x55555555);
  n = (n & 0x33333333) + ((n >>> 2) & 0x33333333);
  return Math.imul((n + (n >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/** Which halves of looks there are, a bit each. */
function halvesOf(looks: Uint32Array, from: 0 | 16): Uint32Array {
  const met = new Uint32Array(2048);
  for (const look of looks) {
    const bits = (look >>> from) & 0xffff;
    met[bits >>> 5]! |= 1 << (bits & 31);
  }
  return met;
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
    if (correlation(grey, p, q) < (asked.marked[a] ? SAME : EXACT)) return;
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

function comparisons(count: number): readonly (readonly [number, number, number, number])[] {
  const random = seededRandom(41);
  const at = (): number => random.between(-HALF, HALF);
  return Array.from({ length: count }, () => [at(), at(), at(), at()] as const);
}

/** Bits of which pixel of each pair is lighter. */
function lookAt({ smooth, from, to }: Scene, p: number): number {
  let bits = 0;
  for (let k = 0; k < 32; k++)
    bits = (bits << 1) | (smooth[p + from[k]!]! > smooth[p + to[k]!]! ? 1 : 0);
  return bits >>> 0;
}
