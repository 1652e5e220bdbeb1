import { greyAt } from '../raster/layers.js';
import type { Plane } from '../raster/plane.js';
import { halved } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import type { Homography } from '../shape/homography.js';
import type { Point } from '../shape/site.js';
import type { Crew } from '../task/crew.js';
import { alone } from '../task/crew.js';
import { aligned } from './align.js';
import type { Features } from './features.js';
import { featuresOf } from './features.js';
import { chained, fitPairs } from './fit.js';
import type { Pair } from './match.js';
import { matched } from './match.js';

/** A picture made ready to be laid over others. */
export interface Landmarks {
  readonly grey: Plane;
  readonly features: Features;
  /** px of the picture one px of the plane stands for. */
  readonly scale: number;
}

/** Longest side of the plane that maps are made exact on, and of the one that features are sought on, px. */
const LONGEST = 1900;
const BROAD = 1000;
/** Pairs that must agree. */
const LEAST = 16;
/** px of the plane a pair may be off at first. */
const TOLERANCE = 3;

/** @param most corners at the most */
export function landmarksOf(picture: Raster, most = 1000, crew: Crew = alone): Landmarks {
  const longest = Math.max(picture.width, picture.height);
  const level = Math.max(0, Math.ceil(Math.log2(longest / LONGEST)));
  const grey = greyAt(picture, level);
  let [seen, scale] = [grey, 1];
  for (; Math.max(seen.width, seen.height) > BROAD; scale *= 2) seen = halved(seen);
  const { looks, count, ...places } = featuresOf(seen, most, crew);
  const onPlane = (v: number): number => scale * v + (scale - 1) / 2;
  const [x, y] = [places.x.map(onPlane), places.y.map(onPlane)];
  return { grey, features: { x, y, looks, count }, scale: 1 << level };
}

/** How one picture lies over another. */
export interface Registration {
  /** Takes px of the first picture to px of the other. */
  readonly map: Homography;
  /** Places that agree, px of both pictures. */
  readonly agreeing: readonly Pair[];
}

/** Lays one picture over another by what both show. @returns null when they show too little in common */
export function registered(
  one: Landmarks,
  other: Landmarks,
  crew: Crew = alone,
): Registration | null {
  const pairs = matched(one.features, other.features, crew);
  const fitted = fitPairs(pairs, TOLERANCE, Math.max(LEAST, 0.08 * pairs.length));
  if (!fitted) return null;
  const exact = aligned(one.grey, other.grey, one.features, fitted.map);
  const sure = exact.agreeing.length >= LEAST ? exact : fitted;
  return {
    map: scaled(sure.map, one.scale, other.scale),
    agreeing: sure.agreeing.map(({ from, to }) => ({
      from: enlarged(from, one.scale),
      to: enlarged(to, other.scale),
    })),
  };
}

function enlarged([x, y]: Point, by: number): Point {
  return [by * x + (by - 1) / 2, by * y + (by - 1) / 2];
}

/** A map between reduced planes as a map between their pictures; centres of reduced pixels lie between the full ones. */
function scaled(map: Homography, from: number, to: number): Homography {
  const down = [1 / from, 0, (1 - from) / 2 / from, 0, 1 / from, (1 - from) / 2 / from, 0, 0, 1];
  const up = [to, 0, (to - 1) / 2, 0, to, (to - 1) / 2, 0, 0, 1];
  return chained(chained(down, map), up);
}
