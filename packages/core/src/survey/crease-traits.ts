import type { ChainedStrand } from './chains.js';
import type { Flanks } from './crease-flanks.js';
import { acrossAt } from './crease-flanks.js';
import type { Course } from './crease-run.js';
import type { Layer } from '../raster/layers.js';
import { medianOf, valueAtShare } from '../raster/median.js';
import { sampleAt } from '../raster/plane.js';
import type { Paper } from './paper.js';
import type { StrandTraits } from './strand-traits.js';

/** What is measured of a crease as a whole; tones are 0..255. */
export interface CreaseTraits {
  /** Log odds of its strands. */
  readonly strands: number;
  /** Means of its strands. */
  readonly strand: StrandTraits;
  /** Length, and how far its nearer end stays from the border, in shorter sides of the picture. */
  readonly long: number;
  readonly inside: number;
  /** Length over that of its strands: what could be followed beyond them. */
  readonly gain: number;
  /** Chord over length. */
  readonly straight: number;
  /** Breadth, and how jagged its edges are, px. */
  readonly broad: number;
  readonly rough: number;
  /** How far what is on both of its sides differs: a crease runs over one ground, or across grounds. */
  readonly sides: number;
  /** By how much it is nearer to paper than the brighter side, where it is so the least. */
  readonly least: number;
  /** How far its paler places are from its usual paper. */
  readonly spread: number;
  /** Largest difference between the channels of its paper. */
  readonly cast: number;
}

/** Beyond its edge, px: where the sides are read, and the second reading from the first. */
const [BEYOND, FURTHER] = [4, 3];
/** Every so many points are read. */
const EVERY = 2;
/** Shares of the readings that are lower: the least, and the paler places. */
const [LEAST, PALE] = [0.3, 0.15];

/**
 * Measures a crease.
 * @param chain the strands it was told by
 * @param shown where it shows, a point every px
 */
export function creaseTraits(
  chain: ChainedStrand,
  shown: Course & Flanks,
  paper: Paper,
  layer: Layer,
): CreaseTraits {
  const { width, height } = layer.grey;
  const shorter = Math.min(width, height);
  const planes = layer.colours.length ? layer.colours.slice(0, 3) : [layer.grey];
  const { xs, ys } = shown;
  const n = xs.length;
  const broad = valueAtShare(
    shown.left.map((l, i) => l + shown.right[i]!),
    0.5,
  );
  const beyond = broad / 2 + BEYOND;
  const [on, over, sides]: [number[], number[], number[]] = [[], [], []];
  for (let i = 0; i < n; i += EVERY) {
    const [nx, ny] = acrossAt(shown, i);
    const near = (o: number): number => paper.at(xs[i]! + o * nx, ys[i]! + o * ny);
    const beside = (way: number): number =>
      (near(way * beyond) + near(way * (beyond + FURTHER))) / 2;
    const crest = Math.max(near(0), near(broad / 4), near(-broad / 4));
    on.push(crest);
    over.push(crest - Math.max(beside(-1), beside(1)));
    const o = beyond + BEYOND / 2;
    sides.push(
      Math.max(
        ...planes.map((plane) =>
          Math.abs(
            sampleAt(plane, xs[i]! - o * nx, ys[i]! - o * ny) -
              sampleAt(plane, xs[i]! + o * nx, ys[i]! + o * ny),
          ),
        ),
      ),
    );
  }
  const tones = planes.map((plane) =>
    medianOf(Array.from(chain.xs, (x, i) => sampleAt(plane, x, chain.ys[i]!))),
  );
  const inside = (i: number): number =>
    Math.min(xs[i]!, ys[i]!, width - 1 - xs[i]!, height - 1 - ys[i]!) / shorter;
  return {
    strands: chain.odds,
    strand: chain.traits,
    long: n / shorter,
    inside: Math.min(inside(0), inside(n - 1)),
    gain: n / Math.max(1, chain.traits.length * 2 ** chain.level),
    straight: Math.hypot(xs[n - 1]! - xs[0]!, ys[n - 1]! - ys[0]!) / n,
    broad,
    rough: shown.rough,
    sides: valueAtShare(sides, 0.5),
    least: valueAtShare(over, LEAST),
    spread: valueAtShare(on, 0.5) - valueAtShare(on, PALE),
    cast: Math.max(...tones) - Math.min(...tones),
  };
}
