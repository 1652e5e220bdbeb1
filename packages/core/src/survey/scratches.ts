import type { ChainedStrand } from './chains.js';
import { chained } from './chains.js';
import type { Plane } from '../raster/plane.js';
import { inDoubt } from './doubt.js';
import { oddsOf, SCRATCH_WEIGHTS } from './judge.js';
import { middleOf } from './strand-traits.js';
import type { Strand } from './strands.js';
import type { Frame } from './wires.js';
import { reachesOut } from './wires.js';

/** Evidence a strand needs to be part of a line, and a whole line needs to count. */
const PART = -1;
/** What no sensitivity shows. */
const FAINT = -3;
const GAP = { widths: 30, most: 80 } as const;

/** Fitted as the weights are, to the same photographs. */
const DOUBT = { free: 0.75, each: 0.68 } as const;

/**
 * Hairs, scratches and cracks: thin lines that lie on the picture, likeliest first.
 * @param frame the picture at the level whose px the strands are told in
 * @param foreign what is foreign to a print of one tone, 0..60, at that level; null in other pictures
 */
export function scratchesOf(
  strands: readonly Strand[],
  frame: Frame,
  foreign: Plane | null,
): ChainedStrand[] {
  const own = inDoubt(strands, frame, (s) => oddsOf(s, SCRATCH_WEIGHTS), DOUBT);
  const judge = (s: Strand): number =>
    own(s) + (foreign && s.polarity > 0 ? foreignOdds(s, foreign, BARE) : 0);
  return chained(strands, frame, { judge, part: PART, faint: FAINT, gap: GAP })
    .map((line) => (foreign ? foreignPart(line, foreign) : line))
    .map((line) => ({
      ...line,
      odds:
        line.odds -
        (isPole(line, frame) ? POLE.against : 0) -
        (foreign && foreignStretch(line, foreign) ? 0 : broadness(line, frame)),
    }))
    .sort((a, b) => b.odds - a.odds);
}

/**
 * How foreign a line is before that tells anything, and what each level more speaks for, at most: of bright lines, where the
 * paper lies bare, whatever else speaks against them; of dark ones, strokes of ink as a rule, only where they may be hairs anyhow.
 */
const BARE = { free: 6, each: 0.2, most: 3 } as const;
const DARK = { free: 12, each: 0.07, most: 3 } as const;
/** How foreign a line is for most of its length, and the share of that below which a point is of the print itself. */
const OWN = { most: 0.7, share: 0.25 } as const;

/** The stretch of a line that is of another tone than the print, and how much for most of its length; null when none is. */
function foreignStretch(
  { xs, ys }: Strand,
  { values, width }: Plane,
): { from: number; to: number; usual: number } | null {
  const along = xs.map((x, i) => values[Math.round(ys[i]!) * width + Math.round(x)]!);
  const most = along.slice().sort()[Math.floor(OWN.most * along.length)]!;
  if (most <= BARE.free) return null;
  const [from, to] = bestStretch(along.map((v) => v - OWN.share * most));
  return { from, to, usual: middleOf(along.slice(from, to)) };
}

/** On a print of one tone, what is of another lies on the print: what speaks for that. */
function foreignOdds(
  line: Strand,
  foreign: Plane,
  { free, each, most }: typeof BARE | typeof DARK,
): number {
  const stretch = foreignStretch(line, foreign);
  return stretch ? Math.max(0, Math.min(most, each * (stretch.usual - free))) : 0;
}

/** The line as far as it is of another tone: it ends where the print's own begins. */
function foreignPart(line: ChainedStrand, foreign: Plane): ChainedStrand {
  const stretch = foreignStretch(line, foreign);
  if (!stretch) return line;
  const { from, to } = stretch;
  return {
    ...line,
    xs: line.xs.slice(from, to),
    ys: line.ys.slice(from, to),
    widths: line.widths.slice(from, to),
    odds:
      line.odds + (line.polarity < 0 && line.odds >= PART ? foreignOdds(line, foreign, DARK) : 0),
  };
}

/** Where the largest sum of neighbours begins and ends (Kadane). */
function bestStretch(values: Float32Array): readonly [number, number] {
  let [best, from, to] = [-Infinity, 0, values.length];
  let [sum, start] = [0, 0];
  values.forEach((v, i) => {
    if (sum < 0) [sum, start] = [0, i];
    sum += v;
    if (sum > best) [best, from, to] = [sum, start, i + 1];
  });
  return [from, to];
}

/**
 * Breadth up to which lines are thin, share of the picture's shorter side and px at least, and what speaks against one e
 * times as broad.
 */
const THIN = { share: 0.012, least: 5, against: 3 } as const;

/** What speaks against a line because of its breadth: rims and bars of things are broader than hairs. */
function broadness({ traits, level }: ChainedStrand, { width, height }: Frame): number {
  const thin = Math.max(THIN.least, THIN.share * Math.min(width, height));
  return THIN.against * Math.max(0, Math.log((traits.width * 2 ** level) / thin));
}

/**
 * What stands plumb, dead straight and a few px broad within the picture is more likely a pole or a mast: greatest
 * slope and bow as shares of its length, least breadth in px, and what speaks against a scratch (common experience).
 */
const POLE = { slope: 0.04, bow: 0.01, broad: 2.4, against: 2 } as const;

function isPole(line: ChainedStrand, frame: Frame): boolean {
  const { xs, ys, traits, level } = line;
  const [aside, up] = [xs.at(-1)! - xs[0]!, ys.at(-1)! - ys[0]!];
  if (Math.abs(aside) > POLE.slope * Math.abs(up)) return false;
  // What hangs at it may pull a few points aside.
  const off = xs.map((x, i) => Math.abs(x - xs[0]! - (aside * (ys[i]! - ys[0]!)) / up)).sort();
  const bow = off[Math.floor(0.8 * off.length)]!;
  return (
    bow < POLE.bow * Math.abs(up) + 1 &&
    traits.width * 2 ** level >= POLE.broad &&
    !reachesOut(line, frame)
  );
}
