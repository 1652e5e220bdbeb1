import { labOfSrgb } from '../colour/lab.js';
import { medianOf } from '../raster/median.js';
import { withoutEchoes } from './chains.js';
import { isOnBoard } from './ink-board.js';
import type { InkFlanks } from './ink-flanks.js';
import { inkFlanks } from './ink-flanks.js';
import { inkOdds } from './ink-judge.js';
import { offFrom } from './ink-letters.js';
import { inkSites } from './ink-sites.js';
import { inkTraits } from './ink-traits.js';
import type { Layer } from '../raster/layers.js';
import type { Strand } from './strands.js';
import type { Stroke } from './ink-stroke.js';
import { breadthsOf, SAME, SURELY } from './ink-stroke.js';
import type { ToneCurve } from './tone-curve.js';

/** Writing, stamps, printed marks: strokes of one colour laid over a picture. */
export interface Ink {
  /** Pixels of the picture, in reading order. */
  readonly site: Int32Array;
  readonly colour: readonly number[];
  readonly polarity: 1 | -1;
  readonly odds: number;
  /** Nothing else of the ink was found. */
  readonly isAlone: boolean;
  /** It stands on a sign, a label or the like, and so stood before the camera. */
  readonly isOnBoard: boolean;
}

/** What a strand must be to be a stroke of ink: standing out, and steady in tone and colour. */
const STROKE = { height: 25, unsteady: 0.25, spread: 9 } as const;
/** Where the hue itself tells ink, its tone may vary so many times more. */
const FOREIGN = 2.2;
const MODES = 8;
/** Flanks that speak for writing as much as any. */
const FLAWLESS = { thin: 1, crisp: 1 } as const;
/** What is less likely is not told. */
const LEAST = -1;
/** Share of a picture that writing takes at most, and what speaks against it a whole picture more. */
const BROAD = { share: 0.1, against: 20 } as const;
/** Strokes of a foreign hue that may as well be hairs, which come one by one, and so many more that are surely writing. */
const FEW = { hairs: 5, more: 5 } as const;

/**
 * By how much the contrast of a picture is raised: letters nearly of the tone of what is behind them stand out as little from
 * it as what stood before the camera does from its own, and are told apart from that once it is raised.
 */
const RAISED = [1, 2, 4] as const;
/** Share of a stroke in what was found before from which on it belongs to that. */
const FOUND = 0.5;

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
  const taken = new Uint8Array(width * height);
  const isFound = ({ xs, ys }: Strand): boolean =>
    xs.reduce((n, x, i) => n + taken[Math.round(ys[i]!) * width + Math.round(x)]!, 0) >
    FOUND * xs.length;
  return RAISED.flatMap((raised) =>
    inkStandingOut(
      strands.filter((s) => s.traits.height * raised >= STROKE.height && !isFound(s)),
      layers,
      raised > 1 ? null : tone,
      { taken, raised },
    ),
  ).sort((a, b) => b.odds - a.odds || a.site[0]! - b.site[0]!);
}

/** Writing among strands that stand out. @param options what was found before, to which this is added, and how far contrast is raised */
function inkStandingOut(
  strands: readonly Strand[],
  layers: readonly Layer[],
  tone: ToneCurve | null,
  { taken, raised }: { readonly taken: Uint8Array; readonly raised: number },
): Ink[] {
  const { width, height } = layers[0]!.grey;
  const size = Math.sqrt(width * height);
  const hueOf = (colour: readonly number[], polarity: 1 | -1): number =>
    Math.max(foreign(colour, tone), polarity < 0 ? strays(colour, tone) : 0);
  const isHued = (s: Stroke): boolean => hueOf(s.colour, s.polarity) > 0.5 && isSteady(s, FOREIGN);
  const strokes = withoutEchoes(
    strands
      .map((s) => strokeOf(s, layers[s.level]!, raised))
      .filter((s) => isSteady(s, 1) || isHued(s))
      .sort((a, b) => b.reach - a.reach || a.xs[0]! - b.xs[0]!),
    layers[0]!.grey,
  );
  const hued = strokes.filter(isHued);
  const other = new Set(hued);
  /** The colours of some strokes that are likely to be inks, likeliest first. */
  const likely = (some: readonly Stroke[], loose: number) =>
    modesOf(some, (loose * SAME) / raised)
      .flatMap((members) => {
        const colour = members[0]!.colour.map((_, c) => medianOf(members.map((m) => m.colour[c]!)));
        const hue = fewOf(members) * hueOf(colour, members[0]!.polarity);
        const oddsWith = (flanks: InkFlanks): number =>
          inkOdds(inkTraits(members, size, hue, flanks));
        // Looking beside the strokes takes longest: it is left out where it cannot help.
        if (oddsWith(FLAWLESS) < LEAST) return [];
        const own = oddsWith(
          inkFlanks(layers[0]!, members, offFrom(layers[0]!, colour, raised), loose * SURELY),
        );
        return own < LEAST ? [] : [{ members, colour, own }];
      })
      .sort((a, b) => b.own - a.own);
  const found: Ink[] = [];
  for (const [loose, some] of [
    [FOREIGN, hued],
    [1, strokes.filter((s) => !other.has(s))],
  ] as const)
    for (const { members, colour, own } of likely(some, loose)) {
      const off = offFrom(layers[0]!, colour, raised);
      const sites = inkSites(layers[0]!, { strokes: members, off, loose }, taken);
      const share = sites.reduce((sum, site) => sum + site.length, 0) / (width * height);
      const broad = BROAD.against * Math.max(0, share - BROAD.share);
      const { polarity } = members[0]!;
      const all = {
        colour,
        polarity,
        odds: own - broad,
        isAlone: sites.length === 1,
        isOnBoard: isOnBoard(layers[0]!, sites, breadthsOf(members).breadth),
      };
      for (const site of sites) found.push({ site, ...all });
    }
  return found;
}

function fewOf(strokes: readonly Stroke[]): number {
  return Math.max(0, Math.min(1, (strokes.length - FEW.hairs) / FEW.more));
}

function isSteady({ traits, spread }: Stroke, loose: number): boolean {
  return traits.unsteady < loose * STROKE.unsteady && spread <= loose * STROKE.spread;
}

/** @param raised by how much what its colour strays counts */
function strokeOf(strand: Strand, { grey, colours }: Layer, raised: number): Stroke {
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
    spread = Math.max(spread, raised * medianOf(along.map((v) => Math.abs(v - middle))));
    colour.push(middle);
  }
  return { ...strand, colour, spread, reach: xs.length * side };
}

function unlike(a: readonly number[], b: readonly number[]): number {
  return Math.max(...a.map((v, c) => Math.abs(v - b[c]!)));
}

/** Strokes by the colours that most stroke length has. @param same levels that strokes of one ink differ at most */
function modesOf(strokes: readonly Stroke[], same: number): Stroke[][] {
  let left = [...strokes];
  const modes: Stroke[][] = [];
  while (left.length && modes.length < MODES) {
    let best: Stroke[] = [];
    let most = 0;
    for (const s of left) {
      const members = left.filter(
        (t) => t.polarity === s.polarity && unlike(s.colour, t.colour) <= same,
      );
      const reach = members.reduce((sum, m) => sum + m.reach, 0);
      if (reach > most) [best, most] = [members, reach];
    }
    modes.push(best);
    const gone = new Set(best);
    left = left.filter((s) => !gone.has(s));
  }
  return modes;
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
