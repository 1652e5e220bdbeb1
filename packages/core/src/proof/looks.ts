import { seededRandom } from '../random/random.js';
import { greyOf } from '../raster/grey.js';
import type { Plane } from '../raster/plane.js';
import { boxMean } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { deviationsOf, deviationsOnGrid, HALF, isEdge } from './patches.js';

/**
 * Step of the grid of places among which a site's are looked for, px. A part of a picture that begins on the grid tells
 * what the whole does.
 */
export const REPEAT_STEP = 4;
/** Standard deviation from which on a patch is something a viewer may know again, codes. */
export const MARKED = 2.2;
/** From which on there is grain at least, which no two places share by chance. */
const GRAINY = 0.8;
/** Pixels of a site that are asked, about. */
const ASKED = 1000;
const PAIRS = comparisons(32);

/** A picture in which the same is looked for twice. */
export interface Scene {
  readonly grey: Plane;
  /** Smoothed a little, for comparisons. */
  readonly smooth: Float32Array;
  /** Tables of where a comparison's two pixels lie. */
  readonly from: Int32Array;
  readonly to: Int32Array;
}

/** Pixels of a site, by either half of their looks: first ones and the ones that follow. */
export interface Asked {
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
export interface Grid {
  readonly columns: number;
  readonly rows: number;
  readonly looks: Uint32Array;
  /** Standard deviation round each, codes; 0 where nothing is to be seen. */
  readonly spreads: Float32Array;
}

/** A picture as places in it are compared. */
export function sceneOf(picture: Raster): Scene {
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

/** The looks of the grid's places. */
export function gridOf(scene: Scene): Grid {
  const { width, height } = scene.grey;
  const [columns, rows] = [Math.ceil(width / REPEAT_STEP), Math.ceil(height / REPEAT_STEP)];
  const looks = new Uint32Array(columns * rows);
  const spreads = deviationsOnGrid(scene.grey, REPEAT_STEP).map((s) => (s < GRAINY ? 0 : s));
  for (let v = 0, g = 0; v < rows; v++)
    for (let u = 0; u < columns; u++, g++)
      if (spreads[g]) looks[g] = lookAt(scene, v * REPEAT_STEP * width + u * REPEAT_STEP);
  return { columns, rows, looks, spreads };
}

/** Every pixel of a site that shows something: one of the two grids of a pair can then be coarse. */
export function askedOf(scene: Scene, pixels: Int32Array, first: Asked['first']): Asked {
  const thinning = thinningOf(pixels);
  // Deviations are quick of pixels that follow each other: what is not asked is left out after them.
  const deviations = deviationsOf(scene.grey, pixels);
  const asks = (k: number): boolean => k % thinning === 0 && deviations[k]! >= GRAINY;
  const places = pixels.filter((_, k) => asks(k));
  const spreads = deviations.filter((_, k) => asks(k));
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
export function thinningOf(pixels: Int32Array): number {
  return Math.max(1, Math.round(pixels.length / ASKED));
}

/** Bits that are set. */
export function unlike(bits: number): number {
  let n = bits - ((bits >>> 1) & 0x55555555);
  n = (n & 0x33333333) + ((n >>> 2) & 0x33333333);
  return Math.imul((n + (n >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/** Which halves of looks there are, a bit each. */
export function halvesOf(looks: Uint32Array, from: 0 | 16): Uint32Array {
  const met = new Uint32Array(2048);
  for (const look of looks) {
    const bits = (look >>> from) & 0xffff;
    met[bits >>> 5]! |= 1 << (bits & 31);
  }
  return met;
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
