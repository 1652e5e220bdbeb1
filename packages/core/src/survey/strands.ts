import { linked } from './curves.js';
import type { Plane } from '../raster/plane.js';
import { boxMean } from '../raster/plane.js';
import type { Profile } from './profile.js';
import { profileOf } from './profile.js';
import type { Ridges } from './ridges.js';
import { ridgesOf } from './ridges.js';
import { AROUND, Surroundings } from './surroundings.js';

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

/** What a strand is judged by. Grey levels are 0..255; lengths in px of its level unless said otherwise. */
export interface StrandTraits {
  /** Points along it. */
  readonly length: number;
  /** Median height over the nearer side. */
  readonly height: number;
  /** Share of its points that stand out from both sides by a third of that. */
  readonly whole: number;
  /** Scatter of the crest's grey along it, over its height: what is laid over a picture keeps its own tone. */
  readonly unsteady: number;
  /** Scatter of its sides' grey along it. */
  readonly ground: number;
  /** Difference between its two sides, over its height: edges of things have unlike sides. */
  readonly lopsided: number;
  /** How busy the picture is around it: mean deviation from the local mean. */
  readonly busy: number;
  /** Share of the surroundings taken by other crests of the same polarity. */
  readonly crowd: number;
  /** Mean turn, radians a px, at a scale of a few px. */
  readonly turn: number;
  /** Chord over length: 1 is straight. */
  readonly straight: number;
  readonly width: number;
  /** Scatter of the width over the width. */
  readonly uneven: number;
  /** How near the crest's grey comes to paper white or to black, 0..1. */
  readonly extreme: number;
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

function traitsOf(
  xs: Float32Array,
  ys: Float32Array,
  polarity: 1 | -1,
  profile: Profile,
  busy: (x: number, y: number) => number,
  crowd: (x: number, y: number) => number,
): StrandTraits {
  const n = xs.length;
  const height = middleOf(profile.stands);
  const floor = Math.max(1, height);
  let whole = 0;
  let [busySum, crowdSum, sides] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    if (profile.stands[i]! > floor / 3) whole++;
    const [x, y] = [Math.round(xs[i]!), Math.round(ys[i]!)];
    busySum += busy(x, y);
    crowdSum += crowd(x, y);
    sides += Math.abs(profile.left[i]! - profile.right[i]!);
  }
  const own = 1 / AROUND;
  const ground = profile.left.map((l, i) => (l + profile.right[i]!) / 2);
  const w = middleOf(profile.width);
  const crest = middleOf(profile.crest);
  const chord = Math.hypot(xs[n - 1]! - xs[0]!, ys[n - 1]! - ys[0]!);
  return {
    length: n,
    height,
    whole: whole / n,
    unsteady: scatterOf(profile.crest) / floor,
    ground: scatterOf(ground),
    lopsided: sides / n / floor,
    busy: busySum / n,
    crowd: Math.max(0, crowdSum / n - own),
    turn: turnOf(xs, ys),
    straight: Math.min(1, chord / pathLength(xs, ys)),
    width: w,
    uneven: scatterOf(profile.width) / Math.max(0.5, w),
    extreme: polarity === 1 ? crest / 255 : 1 - crest / 255,
  };
}

function pathLength(xs: Float32Array, ys: Float32Array): number {
  let sum = 0;
  for (let i = 1; i < xs.length; i++) sum += Math.hypot(xs[i]! - xs[i - 1]!, ys[i]! - ys[i - 1]!);
  return sum || 1;
}

function turnOf(xs: Float32Array, ys: Float32Array): number {
  const s = 6;
  let sum = 0;
  let count = 0;
  for (let i = s; i + s < xs.length; i++, count++) {
    const [ax, ay] = [xs[i]! - xs[i - s]!, ys[i]! - ys[i - s]!];
    const [bx, by] = [xs[i + s]! - xs[i]!, ys[i + s]! - ys[i]!];
    sum += Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
  }
  return count ? sum / count / s : 0;
}

export function middleOf(values: Float32Array): number {
  const sorted = Float32Array.from(values).sort();
  return sorted[sorted.length >> 1] ?? 0;
}

/** Scatter by the median absolute deviation, as a standard deviation of normal values. */
function scatterOf(values: Float32Array): number {
  const middle = middleOf(values);
  return 1.4826 * middleOf(values.map((v) => Math.abs(v - middle)));
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
