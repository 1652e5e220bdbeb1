import type { ChainedStrand } from './chains.js';
import { chained } from './chains.js';
import { inDoubt } from './doubt.js';
import { oddsOf, scoreOf, WIRE_WEIGHTS } from './judge.js';
import type { Strand } from './strands.js';

export interface Frame {
  readonly width: number;
  readonly height: number;
}

/** Evidence a strand needs to be part of a wire, and a whole wire needs to count. */
const PART = -2.6;
const WIRE = { usual: 1.2, gap: { widths: 60, most: 160 } } as const;
/** Fitted as the weights are, to the same photographs. */
const DOUBT = { free: 1.16, each: 0.76 } as const;
/** Shortest wire, as a share of the picture's diagonal. */
const SHORTEST = 0.1;
/** A line this near the border and this parallel to it is a frame's or a mount's, shares of the shorter side. */
const HUGGING = { near: 0.04, slope: 0.012 } as const;

/** What a line must show to be a line at all: its height, levels, and the share of it that stands out. */
const SHOWN = { height: 4, whole: 0.35 } as const;

const standsOut = ({ traits }: Pick<Strand, 'traits'>): boolean =>
  traits.height >= SHOWN.height && traits.whole >= SHOWN.whole;

/** Wires and poles: long smooth dark or bright lines that stood before the camera, likeliest first. */
export function wiresOf(strands: readonly Strand[], frame: Frame): ChainedStrand[] {
  const diagonal = Math.hypot(frame.width, frame.height);
  const own = inDoubt(strands, frame, (s) => oddsOf(s, WIRE_WEIGHTS), DOUBT);
  const judge = (s: Strand): number => (standsOut(s) ? own(s) - WIRE.usual : -Infinity);
  const wires = chained(strands, frame, { judge, part: PART, gap: WIRE.gap })
    .filter((w) => spanOf(w) >= SHORTEST * diagonal && !hugsBorder(w, frame))
    .map((w) => ({
      ...w,
      odds:
        w.odds +
        Math.min(0, 1.5 * Math.log(spanOf(w) / (0.25 * diagonal))) -
        (isRuled(w) ? RULED.against : 0) -
        BENT.against * Math.max(0, BENT.from - w.traits.straight) -
        (reachesOut(w, frame) ? 0 : ENDED),
    }));
  return inCompany(wires, diagonal).sort((a, b) => b.odds - a.odds);
}

/**
 * Wires hang in company: what each line like another, were it surely a wire, has in that one's favour, and at most; by
 * how much tones, 0..1, and by what factors breadths and heights may differ.
 */
const COMPANY = { each: 2, most: 2.5, tone: 0.08, breadth: 1.5, height: 1.6 } as const;
/** Times that lines which have gained by others favour others in turn. */
const ROUNDS = 3;

function inCompany(wires: readonly ChainedStrand[], diagonal: number): ChainedStrand[] {
  const like = wires.map((wire) =>
    wires.flatMap((other, k) =>
      isLike(wire, other) || leaveTogether(wire, other, MEETING * diagonal) ? [k] : [],
    ),
  );
  let odds = wires.map((wire) => wire.odds);
  for (let round = 0; round < ROUNDS; round++)
    odds = wires.map((wire, k) => {
      const favour = like[k]!.reduce((sum, j) => sum + COMPANY.each * scoreOf(odds[j]!), 0);
      return wire.odds + Math.min(COMPANY.most, favour);
    });
  return wires.map((wire, k) => ({ ...wire, odds: odds[k]! }));
}

/** Whether two lines could be wires of one kind: as dark, as broad, and both hanging from side to side. */
function isLike(a: ChainedStrand, b: ChainedStrand): boolean {
  const within = (x: number, y: number, factor: number): boolean =>
    Math.max(x, y) <= factor * Math.min(x, y);
  return (
    a !== b &&
    a.polarity === b.polarity &&
    isAcross(a) &&
    isAcross(b) &&
    Math.abs(a.traits.extreme - b.traits.extreme) <= COMPANY.tone &&
    within(a.traits.height, b.traits.height, COMPANY.height) &&
    within(a.traits.width * 2 ** a.level, b.traits.width * 2 ** b.level, COMPANY.breadth)
  );
}

/** Wires that leave one pole begin so near each other, share of the picture's diagonal. */
const MEETING = 0.012;
/** Greatest difference of breadth between them: they may be of several kinds. */
const KINDS = 2.2;

/** Whether two lines of like breadth begin or end at one place, as wires do at a pole. */
function leaveTogether(a: ChainedStrand, b: ChainedStrand, near: number): boolean {
  const [wide, narrow] = [a, b].map((s) => s.traits.width * 2 ** s.level).sort((x, y) => y - x);
  if (a === b || a.polarity !== b.polarity || wide! > KINDS * narrow!) return false;
  return [0, a.xs.length - 1].some((i) =>
    [0, b.xs.length - 1].some((k) => Math.hypot(a.xs[i]! - b.xs[k]!, a.ys[i]! - b.ys[k]!) <= near),
  );
}

/** A wire comes from somewhere and goes on: one that begins and ends within the picture is more likely a hair. */
const ENDED = 3;
/** An end so near the border reaches it, share of the shorter side. */
const OUT = 0.05;

/** Whether a line comes to the border of the picture at one end at least. */
export function reachesOut({ xs, ys }: Strand, { width, height }: Frame): boolean {
  const near = OUT * Math.min(width, height);
  return [0, xs.length - 1].some((i) => {
    const [x, y] = [xs[i]!, ys[i]!];
    return Math.min(x, y, width - 1 - x, height - 1 - y) < near;
  });
}

/**
 * Chord over length of a wire that sags by a fifth of its span (parabola), and what speaks against a line that is bent so
 * far as to come back: rims of things are.
 */
const BENT = { from: 0.9, against: 14 } as const;

/**
 * Drawn and built lines lie dead straight and near level, a wire sags or slopes: greatest slope and bow of such lines,
 * shares of their reach, and what speaks against a wire then.
 */
const RULED = { slope: 0.06, bow: 0.005, against: 4 } as const;

function isRuled({ xs, ys }: Strand): boolean {
  const [x, y] = [xs[0]!, ys[0]!];
  const [reach, rise] = [xs.at(-1)! - x, ys.at(-1)! - y];
  if (Math.abs(rise) > RULED.slope * Math.abs(reach)) return false;
  const off = xs.map((px, i) => Math.abs(ys[i]! - y - (rise * (px - x)) / reach)).sort();
  return off[Math.floor(MOSTLY * off.length)]! < RULED.bow * Math.abs(reach);
}

/** Share of a line's points that tell its bow: what hangs at it may pull a few aside. */
const MOSTLY = 0.9;

/** Wires hang from side to side; what stands is a mast. */
function isAcross({ xs, ys }: Strand): boolean {
  return Math.abs(ys.at(-1)! - ys[0]!) < Math.abs(xs.at(-1)! - xs[0]!);
}

function spanOf({ xs, ys }: Strand): number {
  return Math.hypot(xs.at(-1)! - xs[0]!, ys.at(-1)! - ys[0]!);
}

function hugsBorder({ xs, ys }: Strand, { width, height }: Frame): boolean {
  const near = HUGGING.near * Math.min(width, height);
  const along = (values: Float32Array, across: Float32Array, most: number): boolean => {
    const [low, high] = [Math.min(...across), Math.max(...across)];
    const reach = Math.max(...values) - Math.min(...values);
    return high - low < HUGGING.slope * reach + 2 && (high < near || low > most - near);
  };
  return along(xs, ys, height) || along(ys, xs, width);
}
