import { linked } from './curves.js';
import type { Plane } from '../raster/plane.js';
import { boxMean } from '../raster/plane.js';
import { profileOf } from './profile.js';
import type { Ridges } from './ridges.js';
import { ridgesOf } from './ridges.js';
import type { StrandTraits } from './strand-traits.js';
import { traitsOf } from './strand-traits.js';
import { Surroundings } from './surroundings.js';

/** A line-like thing: where it runs, how wide it is, and what speaks for its not being part of the photograph. */
export interface Strand {
  /** Points along it, px of the picture. */
  readonly xs: Float32Array;
  readonly ys: Float32Array;
  /** Width at half height at every point, px of the picture, smoothed. */
  readonly widths: Float32Array;
  readonly polarity: 1 | -1;
  /** Level of the pyramid it was found at: 0 for the finest lines, each next twice as wide. */
  readonly level: number;
  readonly traits: StrandTraits;
}

/** Scale of the ridge filter at every level, px of the level. */
const SIGMA = 1.2;
const WEAKEST = 2.5;
const START = 5;
const SHORTEST = 20;
const GAP = 14;

/**
 * Strands at one level of a pyramid.
 * @param plane grey 0..255 of the level
 * @param only of one polarity alone
 */
export function strandsAt(plane: Plane, level: number, only?: 1 | -1): Strand[] {
  const ridges = ridgesOf(plane, SIGMA, WEAKEST);
  const curves = linked(ridges, { start: START, shortest: SHORTEST, gap: GAP, only });
  if (!curves.length) return [];
  const differences = new Surroundings(plane);
  differences.countDifferences(plane, boxMean(plane, 3));
  const busy = differences.means();
  const crests = new Map(
    (only ? [only] : ([1, -1] as const)).map((sign) => [sign, crestsOf(ridges, sign)]),
  );
  const scale = 2 ** level;
  const shift = (scale - 1) / 2;
  return curves.map((curve): Strand => {
    const profile = profileOf(plane, curve);
    const crowd = crests.get(curve.polarity)!;
    return {
      xs: curve.xs.map((x) => x * scale + shift),
      ys: curve.ys.map((y) => y * scale + shift),
      widths: smoothed(profile.width).map((w) => w * scale),
      polarity: curve.polarity,
      level,
      traits: traitsOf(curve.xs, curve.ys, curve.polarity, profile, busy, crowd),
    };
  });
}

/** Share of the surroundings of a pixel that crests of a polarity take. */
function crestsOf(ridges: Ridges, sign: 1 | -1): (x: number, y: number) => number {
  const { count, x, y, strength } = ridges;
  const crests = new Surroundings(ridges);
  for (let k = 0; k < count; k++)
    if (strength[k]! * sign >= START) crests.count(Math.round(x[k]!), Math.round(y[k]!));
  return crests.means();
}

/** Running mean over nine points. */
function smoothed(values: Float32Array): Float32Array {
  return values.map((_, i) => {
    const from = Math.max(0, i - 4);
    const to = Math.min(values.length, i + 5);
    let sum = 0;
    for (let k = from; k < to; k++) sum += values[k]!;
    return sum / (to - from);
  });
}
