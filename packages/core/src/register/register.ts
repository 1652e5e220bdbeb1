import { layerAt } from '../raster/layers.js';
import type { Plane } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import type { Homography } from '../shape/homography.js';
import type { Point } from '../shape/site.js';
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

/** Longest side that is looked at, px. */
const LONGEST = 1900;
/** Pairs that must agree. */
const LEAST = 16;
/** px of the plane a pair may be off at first. */
const TOLERANCE = 3;

export function landmarksOf(picture: Raster, most?: number): Landmarks {
  const longest = Math.max(picture.width, picture.height);
  const level = Math.max(0, Math.ceil(Math.log2(longest / LONGEST)));
  const { grey } = layerAt(picture, level);
  return { grey, features: featuresOf(grey, most), scale: 1 << level };
}

/** How one picture lies over another. */
export interface Registration {
  /** Takes px of the first picture to px of the other. */
  readonly map: Homography;
  /** Places that agree, px of both pictures. */
  readonly agreeing: readonly Pair[];
}

/** Lays one picture over another by what both show. @returns null when they show too little in common */
export function registered(one: Landmarks, other: Landmarks): Registration | null {
  const pairs = matched(one.features, other.features);
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
