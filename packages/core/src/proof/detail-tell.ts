import { medianOf, valueAtShare } from '../raster/median.js';
import type { BlockBands } from './bands.js';
import { BLOCK, blockBands, smoothedOf } from './bands.js';
import { grainStep } from './grain-tell.js';
import type { SiteWindow } from './site-window.js';

/** Fine detail of a site beside what its surroundings let expect: amplitudes, 1 is alike; 1 too where it cannot be told. */
export interface Detail {
  readonly softness: number;
  readonly grain: number;
}

/** Standard errors a difference must be. */
const SURE = { softness: 3.2, grain: 4 } as const;
const LEAST = 3;
/** Variance, in units of a band's logarithm squared, that slopes are held back by. */
const HELD = 0.05;
/** Codes of tone that weigh like one unit of a band's logarithm. */
const TONES = 32;
/** By how much a block may lie beyond those outside that tell what is to be expected, logarithms of mean squares. */
const BEYOND = 0.7;

/**
 * What a block's coarser bands let expect of its finer ones is told by the surroundings. Grain: the finest band, beside the
 * middle one and the tone; the border says it surer, and only where that says nothing do the blocks. Softness: the fine and
 * the middle band beside the coarse one, which a slight blur leaves alone.
 */
export function detailOf(window: SiteWindow): Detail {
  const { luma, mask, changed, rect } = window;
  const layers = smoothedOf(luma);
  const step = grainStep(window, layers);
  const bands = blockBands(luma, layers);
  const [inner, outer] = blocksOf(bands, mask, changed, rect.width);
  if (inner.length < LEAST || outer.length < LEAST) return { softness: 1, grain: step };
  /** A band of the blocks inside beside that of those outside, each less what is to be expected of it. */
  const beside = (
    band: (b: number) => number,
    by: Float32Array,
    told: (b: number) => readonly number[],
    sure: number,
  ): number => {
    const expected = fitted(outer.map((b) => [told(b), band(b)]));
    const off = (b: number): number => band(b) - expected(told(b));
    const known = outer.map((b) => by[b]!);
    const [low, high] = [valueAtShare(known, 0.02) - BEYOND, valueAtShare(known, 0.98) + BEYOND];
    const seen = inner.filter((b) => by[b]! >= low && by[b]! <= high);
    return ratio(seen.map(off), outer.map(off), sure);
  };
  const { fine, middle, coarse, grain, tone } = bands;
  return {
    softness: beside(
      (b) => (fine[b]! + middle[b]!) / 2,
      coarse,
      (b) => [coarse[b]!],
      SURE.softness,
    ),
    grain:
      step === 1
        ? beside(
            (b) => grain[b]!,
            middle,
            (b) => [middle[b]!, tone[b]! / TONES],
            SURE.grain,
          )
        : step,
  };
}

/** Blocks wholly in the site, and wholly outside of everything changed. */
function blocksOf(
  { columns, rows }: BlockBands,
  mask: Uint8Array,
  changed: Uint8Array,
  width: number,
): [number[], number[]] {
  const inner: number[] = [];
  const outer: number[] = [];
  for (let v = 0; v < rows; v++)
    for (let u = 0; u < columns; u++) {
      let [inside, touched] = [0, 0];
      for (let y = 0; y < BLOCK; y++)
        for (let x = 0; x < BLOCK; x++) {
          const p = (v * BLOCK + y) * width + u * BLOCK + x;
          inside += mask[p]!;
          touched += changed[p]!;
        }
      // A few border pixels do not change what a block says.
      if (inside >= 0.9 * BLOCK * BLOCK) inner.push(v * columns + u);
      else if (touched === 0) outer.push(v * columns + u);
    }
  return [inner, outer];
}

/** Ratio of amplitudes of two lists of logarithms of mean squares; 1 when they differ by no more than chance. */
function ratio(here: readonly number[], there: readonly number[], sure: number): number {
  if (here.length < LEAST || there.length < LEAST) return 1;
  const [a, b] = [medianOf(here), medianOf(there)];
  const about = (list: readonly number[], m: number): number =>
    Math.max(0.15, 1.4826 * medianOf(list.map((v) => Math.abs(v - m))));
  // Neighbouring blocks show the same thing: half of them say something of their own.
  const doubt = Math.sqrt(
    about(here, a) ** 2 / Math.max(1, here.length / 2) +
      about(there, b) ** 2 / Math.max(1, there.length / 2),
  );
  return Math.abs(a - b) > sure * 1.25 * doubt ? Math.exp((a - b) / 2) : 1;
}

/** Least squares of values by what tells them; slopes are held back a little, so that few points do not tell much. */
function fitted(
  points: readonly (readonly [told: readonly number[], value: number])[],
): (told: readonly number[]) => number {
  const n = points.length;
  const size = points[0]![0].length;
  const means = Array.from({ length: size }, (_, i) => mean(points.map(([told]) => told[i]!)));
  const level = mean(points.map(([, value]) => value));
  const rows = means.map((_, i) => [
    ...means.map((__, j) => {
      const moment = sum(points.map(([t]) => (t[i]! - means[i]!) * (t[j]! - means[j]!)));
      return moment + (i === j ? HELD * n : 0);
    }),
    sum(points.map(([t, value]) => (t[i]! - means[i]!) * (value - level))),
  ]);
  const slopes = solved(rows);
  return (told) => level + sum(told.map((v, i) => slopes[i]! * (v - means[i]!)));
}

/** Solution of a small positive definite system, each row with its right side, by elimination. */
function solved(rows: number[][]): number[] {
  rows.forEach((pivot, i) => {
    for (const row of rows) {
      if (row === pivot) continue;
      const factor = row[i]! / pivot[i]!;
      for (let j = i; j < row.length; j++) row[j]! -= factor * pivot[j]!;
    }
  });
  return rows.map((row, i) => row.at(-1)! / row[i]!);
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);
const mean = (values: readonly number[]): number => sum(values) / values.length;
