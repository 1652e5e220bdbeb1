import { chained } from './chains.js';
import { cutAtCorners } from './corners.js';
import type { Course } from './crease-run.js';
import { followedOn, toTheBorder } from './crease-run.js';
import { middleOver } from './running.js';
import type { Layer } from '../raster/layers.js';
import { medianOf } from '../raster/median.js';
import type { Paper } from './paper.js';
import { paperLike } from './paper.js';
import type { Strand } from './strands.js';

/** A crease or tear: where it runs, and how far it reaches to its left and right point by point; px. */
export interface Crease {
  readonly xs: Float32Array;
  readonly ys: Float32Array;
  readonly widths: Float32Array;
  /** Pixels of the picture, in reading order. */
  readonly site: Int32Array;
  readonly odds: number;
  readonly polarity: 1;
}

const PART = -1.5;
/** What is more jagged than torn emulsion is no more of a crease, px. */
const JAGGED = 1.5;
/** Evidence a whole crease needs. */
const USUAL = 6;
/** Folds run straight on as a whole: chord over length below which a line is a thing's rim, and what speaks against one. */
const BENT = { from: 0.75, against: 10 } as const;
const GAP = { widths: 30, most: 260 } as const;
/** Levels of the pyramid at which the breadth of a crease is a line's. */
export const CREASE_LEVELS = [1, 2, 3] as const;

/**
 * What speaks for a strand being bare paper: its tone, its steadiness, its height and its length. Standings set by
 * hand on open photographs and made-up creases.
 */
function judge(shorter: number) {
  return ({
    traits: t,
    level,
    polarity,
  }: Pick<Strand, 'traits' | 'level' | 'polarity'>): number => {
    if (polarity < 0) return -9;
    const length = t.length * 2 ** level;
    return (
      Math.min(2, 14 * (t.extreme - 0.78)) -
      5 * (Math.min(1, t.unsteady) - 0.2) +
      1.5 * Math.log(Math.max(4, t.height) / 40) +
      1.5 * Math.log(length / (0.2 * shorter)) -
      0.8 * (Math.min(3, t.lopsided) - 0.6) +
      3 * (t.whole - 0.8) -
      // The finest level tells hairs and scratches as well: a crease is broad.
      (t.width * 2 ** level < 4 ? 3 : 0)
    );
  };
}

/**
 * Creases of a picture, likeliest first.
 * @param strands of {@link CREASE_LEVELS}
 * @param layer the whole picture; in prints of one tone with what is foreign to it as one more plane
 */
export function creasesOf(strands: readonly Strand[], layer: Layer): Crease[] {
  const shorter = Math.min(layer.grey.width, layer.grey.height);
  const chains = chained(cutAtCorners(strands), layer.grey, {
    judge: judge(shorter),
    part: PART,
    gap: GAP,
  }).filter(({ odds }) => odds > 0);
  return chains
    .map((chain): Crease => {
      const paper = paperLike(layer, chain);
      const tone = medianOf(alongOf(paper, chain));
      const seen = followedOn(paper, chain, tone);
      const shown = evenly(seen);
      const line = evenly(toTheBorder(paper, seen, tone));
      const { left, right } = flanksOf(paper, line, tone);
      return {
        ...line,
        widths: left.map((l, i) => l + right[i]!),
        site: between(line, left, right, paper),
        odds:
          chain.odds +
          2 * Math.log((Math.min(JAGGED, flanksOf(paper, shown, tone).rough) + 0.1) / 0.7) +
          2 * Math.log(shown.xs.length / (0.35 * shorter)) -
          BENT.against * Math.max(0, BENT.from - straightness(shown)) -
          USUAL,
        polarity: 1,
      };
    })
    .sort((a, b) => b.odds - a.odds);
}

function alongOf(paper: Paper, { xs, ys }: Course): number[] {
  return Array.from(xs, (x, i) => paper.at(x, ys[i]!));
}

/** The same line with a point every px or so. */
function evenly({ xs, ys, widths }: Course): Course {
  const [x, y, w]: [number[], number[], number[]] = [[], [], []];
  for (let i = 0; i + 1 < xs.length; i++) {
    const n = Math.max(1, Math.round(Math.hypot(xs[i + 1]! - xs[i]!, ys[i + 1]! - ys[i]!)));
    for (let k = 0; k < n; k++) {
      const t = k / n;
      x.push(xs[i]! + t * (xs[i + 1]! - xs[i]!));
      y.push(ys[i]! + t * (ys[i + 1]! - ys[i]!));
      w.push(widths[i]! + t * (widths[i + 1]! - widths[i]!));
    }
  }
  return { xs: Float32Array.from(x), ys: Float32Array.from(y), widths: Float32Array.from(w) };
}

/** Chord over length of a line with a point every px. */
function straightness({ xs, ys }: Course): number {
  return Math.hypot(xs.at(-1)! - xs[0]!, ys.at(-1)! - ys[0]!) / xs.length;
}

function acrossAt({ xs, ys }: Course, i: number): [number, number] {
  const [a, b] = [Math.max(0, i - 8), Math.min(xs.length - 1, i + 8)];
  const [dx, dy] = [xs[b]! - xs[a]!, ys[b]! - ys[a]!];
  const d = Math.hypot(dx, dy) || 1;
  return [-dy / d, dx / d];
}

/** How far a crumb may stand out from the edge's run, px. */
const BULGE = 2.0;
/** Dirt on paper is no longer than this across it, px. */
const DIRT = 4;

/** How far paper reaches to either side, px, and how jagged its edge is, px. */
function flanksOf(
  paper: Paper,
  line: Course,
  tone: number,
): { left: Float32Array; right: Float32Array; rough: number } {
  const n = line.xs.length;
  const usual = [...line.widths].sort((a, b) => a - b)[n >> 1]! / 2;
  const sides = [-1, 1].map((way) => {
    const reach = new Float32Array(n);
    for (let i = 0; i < n; i++) {
      const [nx, ny] = acrossAt(line, i);
      const at = (o: number): number =>
        paper.at(line.xs[i]! + way * o * nx, line.ys[i]! + way * o * ny);
      const side = (at(1.8 * usual + 3) + at(1.8 * usual + 5) + at(2.2 * usual + 5)) / 3;
      const half = (tone + side) / 2;
      let found = usual;
      // The last px of paper; dirt on it does not end it, but what is bright beyond a gap is another thing.
      if (tone - side > 25)
        for (let o = 0, last = usual / 2; o < 1.9 * usual + 3 && o < last + DIRT; o += 0.5)
          if (at(o) > half) last = found = o + 0.5;
      reach[i] = found;
    }
    return reach;
  });
  const steady = sides.map((s) => middleOver(s, 15));
  const jag = sides
    .flatMap((s, k) => [...s].map((v, i) => Math.abs(v - steady[k]![i]!)))
    .sort((a, b) => a - b);
  const limited = sides.map((s, k) => s.map((v, i) => Math.min(v, steady[k]![i]! + BULGE)));
  return { left: limited[0]!, right: limited[1]!, rough: jag[Math.floor(0.7 * jag.length)]! };
}

/** Pixels between the left and the right flank of a line, in reading order. */
function between(
  line: Course,
  left: Float32Array,
  right: Float32Array,
  { width, height }: Paper,
): Int32Array {
  const found = new Set<number>();
  for (let i = 0; i < line.xs.length; i++) {
    const [nx, ny] = acrossAt(line, i);
    for (let o = -left[i]!; o <= right[i]!; o += 0.5) {
      const x = Math.round(line.xs[i]! + o * nx);
      const y = Math.round(line.ys[i]! + o * ny);
      if (x >= 0 && y >= 0 && x < width && y < height) found.add(y * width + x);
    }
  }
  return Int32Array.from(found).sort();
}
