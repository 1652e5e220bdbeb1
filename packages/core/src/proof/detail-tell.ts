import { medianOf } from '../raster/median.js';
import type { BlockBands } from './bands.js';
import { BLOCK, blockBands } from './bands.js';
import type { SiteWindow } from './site-window.js';

/** Fine detail of a site beside what its surroundings let expect: amplitudes, 1 is alike; 1 too where it cannot be told. */
export interface Detail {
  readonly softness: number;
  readonly grain: number;
}

const SURE = 3.2;
/** Grain is asked twice. */
const SURE_GRAIN = 2.2;
/** A block is flat when its coarse band is at most so much over the quietest blocks (logarithm of the mean square). */
const FLAT = 1.2;
/** Codes by which flat blocks that are compared may differ in tone. */
const TONES = 30;
const LEAST = 3;

/**
 * Grain: the finest band of flat blocks, site against surroundings. Softness: the fine and the middle band of all blocks
 * beside their coarse band, which a slight blur leaves alone.
 */
export function detailOf({ luma, mask, changed, rect }: SiteWindow): Detail {
  const bands = blockBands(luma);
  const [inner, outer] = blocksOf(bands, mask, changed, rect.width);
  if (inner.length < LEAST || outer.length < LEAST) return { softness: 1, grain: 1 };
  const quiet = quantile(
    [...inner, ...outer].map((b) => bands.coarse[b]!),
    0.3,
  );
  const flat = (list: readonly number[]): number[] =>
    list.filter((b) => bands.coarse[b]! < quiet + FLAT);
  // Grain goes with the tone.
  const quietOnes = flat(inner);
  const tones = quietOnes.map((b) => bands.tone[b]!);
  const [dark, light] = tones.length ? [quantile(tones, 0.1), quantile(tones, 0.9)] : [0, 255];
  const alike = flat(outer).filter(
    (b) => bands.tone[b]! > dark - TONES && bands.tone[b]! < light + TONES,
  );
  const grainy = (b: number): number => bands.grain[b]!;
  const bare = ratio(quietOnes.map(grainy), alike.map(grainy), SURE_GRAIN);
  const bound = fitted(outer.map((b) => [bands.coarse[b]!, bands.grain[b]!]));
  const beyond = (b: number): number => bands.grain[b]! - bound(bands.coarse[b]!);
  const due = ratio(quietOnes.map(beyond), outer.map(beyond), SURE_GRAIN);
  // Both have to say so: beside like tones, and beside what so much texture lets expect.
  const grain =
    bare < 1 && due < 1 ? Math.max(bare, due) : bare > 1 && due > 1 ? Math.min(bare, due) : 1;
  // What a block's coarse band lets expect of its finer ones, by the surroundings.
  const line = fitted(
    outer.map((b) => [bands.coarse[b]!, (bands.fine[b]! + bands.middle[b]!) / 2]),
  );
  const off = (b: number): number =>
    (bands.fine[b]! + bands.middle[b]!) / 2 - line(bands.coarse[b]!);
  const within = outer.map((b) => bands.coarse[b]!);
  const [low, high] = [quantile(within, 0.02) - 0.7, quantile(within, 0.98) + 0.7];
  const seen = inner.filter((b) => bands.coarse[b]! >= low && bands.coarse[b]! <= high);
  const softness = ratio(seen.map(off), outer.map(off));
  return { softness, grain };
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
function ratio(here: readonly number[], there: readonly number[], sure = SURE): number {
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

function fitted(points: readonly (readonly [number, number])[]): (x: number) => number {
  let [n, sx, sy, sxx, sxy] = [0, 0, 0, 0, 0];
  for (const [x, y] of points) {
    n++;
    sx += x;
    sy += y;
    sxx += x * x;
    sxy += x * y;
  }
  const slope = (n * sxy - sx * sy) / (n * sxx - sx * sx + n * n * 0.05);
  return (x) => sy / n + slope * (x - sx / n);
}

function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
}
