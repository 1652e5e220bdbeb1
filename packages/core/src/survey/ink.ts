import { labOfSrgb } from '../colour/lab.js';
import { medianOf } from '../raster/median.js';
import { withoutEchoes } from './chains.js';
import { breadthsOf, inkSites, SURELY } from './ink-sites.js';
import { thinShare } from './ink-thin.js';
import type { Layer } from '../raster/layers.js';
import type { Strand } from './strands.js';
import type { Stroke } from './ink-stroke.js';
import { SAME } from './ink-stroke.js';
import type { ToneCurve } from './tone-curve.js';

/** Writing, stamps, printed marks: strokes of one colour laid over a picture. */
export interface Ink {
  /** Pixels of the picture, in reading order. */
  readonly site: Int32Array;
  readonly colour: readonly number[];
  readonly polarity: 1 | -1;
  readonly odds: number;
}

/** What a strand must be to be a stroke of ink: standing out, and steady in tone and colour. */
const STROKE = { height: 25, unsteady: 0.25, spread: 9 } as const;
/** Where the hue itself tells ink, its tone may vary so many times more. */
const FOREIGN = 2.2;
const MODES = 4;
/** Evidence a piece of writing needs. */
const USUAL = 2.2;
/** What is less likely is not told. */
const LEAST = -1;
/**
 * What else speaks for strokes of a colour being written: that the colour is nowhere broad, that they are many, keep
 * their tone and colour, and bend. Fitted (logistic regression) to strokes in open photographs with and without writing.
 */
const WRITTEN = {
  usual: 1.45,
  odds: { weight: 0.48, least: -8 },
  thin: 1.8,
  count: 1.05,
  unsteady: { weight: -9.5, most: 0.4 },
  spread: { weight: -0.63, most: 8 },
  straight: -3,
} as const;
/** Share of a picture that writing takes at most, and what speaks against it a whole picture more. */
const BROAD = { share: 0.1, against: 20 } as const;
/** Strokes of a foreign hue that may as well be hairs, which come one by one, and so many more that are surely writing. */
const FEW = { hairs: 5, more: 5 } as const;

/**
 * Pieces of writing, likeliest first.
 * @param strands of the finest levels
 * @param layers the same levels, finest first
 */
export function inkOf(
  strands: readonly Strand[],
  layers: readonly Layer[],
  tone: ToneCurve | null,
): Ink[] {
  const { width, height } = layers[0]!.grey;
  const hueOf = (colour: readonly number[], polarity: 1 | -1): number =>
    Math.max(foreign(colour, tone), polarity < 0 ? strays(colour, tone) : 0);
  const isHued = (s: Stroke): boolean => hueOf(s.colour, s.polarity) > 0.5 && isSteady(s, FOREIGN);
  const strokes = withoutEchoes(
    strands
      .filter((s) => s.traits.height >= STROKE.height)
      .map((s) => strokeOf(s, layers[s.level]!))
      .filter((s) => isSteady(s, 1) || isHued(s))
      .sort((a, b) => b.reach - a.reach || a.xs[0]! - b.xs[0]!),
    layers[0]!.grey,
  );
  const hued = strokes.filter(isHued);
  const other = new Set(hued);
  const found: Ink[] = [];
  const taken = new Uint8Array(width * height);
  for (const [loose, some] of [
    [FOREIGN, hued],
    [1, strokes.filter((s) => !other.has(s))],
  ] as const)
    for (const { members, odds } of modesOf(some, Math.sqrt(width * height), loose)) {
      const colour = members[0]!.colour.map((_, c) => medianOf(members.map((m) => m.colour[c]!)));
      const { polarity } = members[0]!;
      const hue = fewOf(members) * hueOf(colour, polarity);
      const own = hue
        ? // A hue that is not the print's speaks for itself; the dark of a print is near a dark ink.
          odds + hue
        : written(members, odds, () =>
            thinShare(layers[0]!, {
              colour,
              within: loose * SURELY,
              breadth: breadthsOf(members).breadth,
            }),
          );
      if (own < LEAST) continue;
      const sites = inkSites(layers[0]!, { strokes: members, colour, loose }, taken);
      const share = sites.reduce((sum, site) => sum + site.length, 0) / (width * height);
      const broad = BROAD.against * Math.max(0, share - BROAD.share);
      for (const site of sites) found.push({ site, colour, polarity, odds: own - broad });
    }
  return found.sort((a, b) => b.odds - a.odds || a.site[0]! - b.site[0]!);
}

function fewOf(strokes: readonly Stroke[]): number {
  return Math.max(0, Math.min(1, (strokes.length - FEW.hairs) / FEW.more));
}

/** @param thin the share of their colour that is thin, asked for where it matters */
function written(strokes: readonly Stroke[], odds: number, thin: () => number): number {
  const reach = strokes.reduce((sum, s) => sum + s.reach, 0);
  const mean = (of: (s: Stroke) => number): number =>
    strokes.reduce((sum, s) => sum + s.reach * of(s), 0) / reach;
  const { unsteady, spread, straight } = WRITTEN;
  const own =
    WRITTEN.usual +
    WRITTEN.odds.weight * Math.max(WRITTEN.odds.least, odds) +
    WRITTEN.count * Math.log(strokes.length) +
    unsteady.weight *
      Math.min(
        unsteady.most,
        mean(({ traits }) => traits.unsteady),
      ) +
    spread.weight *
      Math.min(
        spread.most,
        mean((s) => s.spread),
      ) +
    straight * mean(({ traits }) => traits.straight);
  return own + WRITTEN.thin < LEAST ? own : own + WRITTEN.thin * thin();
}

function isSteady({ traits, spread }: Stroke, loose: number): boolean {
  return traits.unsteady < loose * STROKE.unsteady && spread <= loose * STROKE.spread;
}

function strokeOf(strand: Strand, { grey, colours }: Layer): Stroke {
  const { xs, ys, level } = strand;
  const side = 2 ** level;
  const shift = (side - 1) / 2;
  const planes = colours.length ? colours : [grey, grey, grey];
  const colour: number[] = [];
  let spread = 0;
  for (const { values } of planes) {
    const along = Array.from(xs, (x, i) => {
      const [px, py] = [Math.round((x - shift) / side), Math.round((ys[i]! - shift) / side)];
      return values[py * grey.width + px]!;
    });
    const middle = medianOf(along);
    spread = Math.max(spread, medianOf(along.map((v) => Math.abs(v - middle))));
    colour.push(middle);
  }
  return { ...strand, colour, spread, reach: xs.length * side };
}

function unlike(a: readonly number[], b: readonly number[]): number {
  return Math.max(...a.map((v, c) => Math.abs(v - b[c]!)));
}

/** The colours most stroke length has, with their strokes. */
function modesOf(
  strokes: readonly Stroke[],
  size: number,
  loose: number,
): { members: Stroke[]; odds: number }[] {
  let left = [...strokes];
  const modes: { members: Stroke[]; odds: number }[] = [];
  while (left.length && modes.length < MODES) {
    let best: Stroke[] = [];
    let most = 0;
    for (const s of left) {
      const members = left.filter(
        (t) => t.polarity === s.polarity && unlike(s.colour, t.colour) <= loose * SAME,
      );
      const reach = members.reduce((sum, m) => sum + m.reach, 0);
      if (reach > most) [best, most] = [members, reach];
    }
    modes.push({ members: best, odds: oddsOf(best, size) });
    const gone = new Set(best);
    left = left.filter((s) => !gone.has(s));
  }
  return modes.sort((a, b) => b.odds - a.odds);
}

/** Least chroma of coloured ink, CIELAB units. */
const COLOURED = 6;
/** Cosine between two hues from which on they are the same. */
const ALIKE = 0.5;

/** On a print of one tone a stroke of another hue is ink. */
function foreign(colour: readonly number[], tone: ToneCurve | null): number {
  if (!tone?.oneTone) return 0;
  const [r, g, b] = colour.map((v) => v / 255) as [number, number, number];
  const lab = labOfSrgb(r, g, b);
  // Hairs and dust have no hue of their own, or the print's.
  const chroma = Math.hypot(lab.a, lab.b);
  const own = tone.at(lab);
  const alike = (lab.a * own.a + lab.b * own.b) / (chroma * Math.hypot(own.a, own.b) + 1e-6);
  if (chroma < COLOURED || alike > ALIKE) return 0;
  return Math.min(10, 1.5 * Math.max(0, tone.stray(lab) - 5));
}

/**
 * How far a dark stroke strays from the tones of a print before that tells anything, what each level more speaks for, at
 * most, and by how much its chroma is more than the print's there, CIELAB units: hairs and dust have no more of it.
 */
const STRAYS = { free: 25, each: 0.75, most: 16, richer: 3.5 } as const;

/** On a print of one tone a dark stroke that is richer in colour than the print is ink, though its hue be the print's. */
function strays([r, g, b, off = 0]: readonly number[], tone: ToneCurve | null): number {
  if (!tone?.oneTone) return 0;
  const lab = labOfSrgb(r! / 255, g! / 255, b! / 255);
  const own = tone.at(lab);
  if (Math.hypot(lab.a, lab.b) - Math.hypot(own.a, own.b) < STRAYS.richer) return 0;
  return Math.min(STRAYS.most, STRAYS.each * Math.max(0, off - STRAYS.free));
}

const DIRECTIONS = 12;

/** Writing is long for its picture, and runs in all directions; rigging, frames and rails run in few. */
function oddsOf(strokes: readonly Stroke[], size: number): number {
  const runs = new Float64Array(DIRECTIONS);
  let reach = 0;
  for (const { xs, ys, level, reach: own } of strokes) {
    reach += own;
    for (let i = 3; i < xs.length; i += 3) {
      const angle = Math.atan2(ys[i]! - ys[i - 3]!, xs[i]! - xs[i - 3]!) / Math.PI;
      runs[Math.floor(((angle % 1) + 1) * DIRECTIONS) % DIRECTIONS]! += 2 ** level;
    }
  }
  const total = runs.reduce((sum, v) => sum + v, 0) || 1;
  let spread = 0;
  for (const v of runs) if (v) spread -= (v / total) * Math.log(v / total);
  return 3 * Math.log(reach / size / 3) + 20 * (spread / Math.log(DIRECTIONS) - 0.82) - USUAL;
}
