import type { Profile } from './profile.js';
import { AROUND } from './surroundings.js';

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
  /** Correlation of its two sides along it, -1..1: what is laid over a picture has the same behind it on both. */
  readonly alike: number;
  /** Scatter of its height over both sides along it, over that height. */
  readonly varied: number;
  /** Mean change of the crest's grey within a few points, over its height. */
  readonly rough: number;
  /** Mean change of its sides' grey within a few points. */
  readonly groundRough: number;
}

/** The traits of a curve at its level. */
export function traitsOf(
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
  const over = profile.crest.map((c, i) => c - ground[i]!);
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
    alike: alikeness(profile.left, profile.right),
    varied: scatterOf(over) / floor,
    rough: roughnessOf(profile.crest) / floor,
    groundRough: roughnessOf(ground),
  };
}

/** Variance that grain alone may have, grey levels squared. */
const GRAIN = 9;

/** Pearson's correlation, damped where there is little to correlate. */
function alikeness(a: Float32Array, b: Float32Array): number {
  const n = a.length;
  const mean = (values: Float32Array): number => values.reduce((sum, v) => sum + v, 0) / n;
  const [ma, mb] = [mean(a), mean(b)];
  let [aa, bb, ab] = [GRAIN * n, GRAIN * n, 0];
  for (let i = 0; i < n; i++) {
    const [u, v] = [a[i]! - ma, b[i]! - mb];
    aa += u * u;
    bb += v * v;
    ab += u * v;
  }
  return ab / Math.sqrt(aa * bb);
}

/** Points over which a change along a curve is one of texture. */
const FEW = 4;

function roughnessOf(values: Float32Array): number {
  let sum = 0;
  for (let i = FEW; i < values.length; i++) sum += Math.abs(values[i]! - values[i - FEW]!);
  return sum / Math.max(1, values.length - FEW);
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
