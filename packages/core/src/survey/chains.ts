import type { StrandTraits } from './strand-traits.js';
import type { Strand } from './strands.js';

/** One or more strands that go on in one another, judged as a whole. */
export interface ChainedStrand extends Strand {
  readonly odds: number;
}

/** How strands are put together. */
export interface ChainOptions {
  /** Log odds that a strand is what is looked for. */
  judge(strand: Strand): number;
  /** Log odds a strand needs to be part of a chain at all. */
  readonly part: number;
  /** Less likely strands down to these log odds are chained as well, but among themselves. @default none */
  readonly faint?: number;
  /** Largest gap between strands of a chain, in their widths and in px. */
  readonly gap: { readonly widths: number; readonly most: number };
}

const TRAITS = [
  'height',
  'whole',
  'unsteady',
  'ground',
  'lopsided',
  'busy',
  'crowd',
  'turn',
  'straight',
  'uneven',
  'extreme',
  'alike',
  'varied',
  'rough',
  'groundRough',
] as const;

/** Least cosine between the directions of strands that go on in one another. */
const FACING = 0.94;
const STEADY = 6;

/**
 * Judges strands, leaves out those that tell again what a better one tells, and chains those that go on in one another.
 * @returns chains, best first
 */
export function chained(
  strands: readonly Strand[],
  frame: { readonly width: number; readonly height: number },
  { judge, part, faint = part, gap }: ChainOptions,
): ChainedStrand[] {
  const judged = strands
    .map((strand): ChainedStrand => ({ ...strand, odds: judge(strand) }))
    .filter(({ odds }) => odds >= faint)
    .sort((a, b) => Number(b.odds >= part) - Number(a.odds >= part) || rank(b) - rank(a));
  const kept = withoutEchoes(judged, frame);
  const chains = [true, false]
    .flatMap((likely) =>
      linkedUp(
        kept.filter(({ odds }) => odds >= part === likely),
        gap,
      ),
    )
    .map((members) => (members.length === 1 ? members[0]! : united(members, judge)));
  return chains.sort((a, b) => b.odds - a.odds);
}

/** Log odds from which on a strand is sure: what is longer comes first then. */
const SURE = 4;
/** What a level more speaks against a strand that finer ones tell as well: they tell its width. */
const COARSE = 1;

/** What tells of strands in one place comes first by this. */
function rank(strand: ChainedStrand): number {
  return Math.min(SURE, strand.odds) + weight(strand) - COARSE * strand.level;
}

function weight({ xs, level }: Strand): number {
  return Math.log(xs.length * 2 ** level);
}

/** Strands less than half of which lie on better ones. */
export function withoutEchoes<S extends Strand>(
  strands: readonly S[],
  { width, height }: { readonly width: number; readonly height: number },
): S[] {
  const [w, h] = [(width >> 1) + 1, (height >> 1) + 1];
  const covered = new Uint8Array(w * h);
  const kept: S[] = [];
  for (const strand of strands) {
    const { xs, ys, widths } = strand;
    let met = 0;
    for (let i = 0; i < xs.length; i++) {
      const p = (Math.round(ys[i]!) >> 1) * w + (Math.round(xs[i]!) >> 1);
      if (covered[p]) met++;
    }
    if (met > xs.length / 2) continue;
    kept.push(strand);
    for (let i = 0; i < xs.length; i++) {
      const r = Math.max(1, Math.round((widths[i]! + 3) / 4));
      const [cx, cy] = [Math.round(xs[i]!) >> 1, Math.round(ys[i]!) >> 1];
      for (let y = Math.max(0, cy - r); y <= Math.min(h - 1, cy + r); y++)
        covered.fill(1, y * w + Math.max(0, cx - r), y * w + Math.min(w - 1, cx + r) + 1);
    }
  }
  return kept;
}

interface End {
  readonly x: number;
  readonly y: number;
  readonly way: readonly [number, number];
}

function endOf({ xs, ys }: Strand, end: 0 | 1): End {
  const n = xs.length;
  const reach = Math.min(n - 1, 24);
  const [a, b] = end ? [n - 1 - reach, n - 1] : [reach, 0];
  const [dx, dy] = [xs[b]! - xs[a]!, ys[b]! - ys[a]!];
  const d = Math.hypot(dx, dy) || 1;
  return { x: xs[b]!, y: ys[b]!, way: [dx / d, dy / d] };
}

/** Groups of strands in their order along a chain, each turned so that its end meets the next one's start. */
function linkedUp(strands: readonly ChainedStrand[], gap: ChainOptions['gap']): ChainedStrand[][] {
  const ends = strands.map((s) => [endOf(s, 0), endOf(s, 1)] as const);
  const widths = strands.map(({ traits, level }) => traits.width * 2 ** level);
  const pairs: { a: number; b: number; cost: number }[] = [];
  for (let s = 0; s < strands.length; s++)
    for (let t = s + 1; t < strands.length; t++) {
      if (strands[s]!.polarity !== strands[t]!.polarity) continue;
      const [wide, narrow] = [Math.max(widths[s]!, widths[t]!), Math.min(widths[s]!, widths[t]!)];
      if (wide > 2.2 * narrow) continue;
      const reach = Math.min(gap.most, gap.widths * wide);
      for (const e of [0, 1] as const)
        for (const f of [0, 1] as const) {
          const [p, q] = [ends[s]![e], ends[t]![f]];
          const [vx, vy] = [q.x - p.x, q.y - p.y];
          const d = Math.hypot(vx, vy);
          if (d > reach) continue;
          const facing = -(p.way[0] * q.way[0] + p.way[1] * q.way[1]);
          const out = d < 3 ? 1 : (vx * p.way[0] + vy * p.way[1]) / d;
          const back = d < 3 ? 1 : -(vx * q.way[0] + vy * q.way[1]) / d;
          if (facing < FACING || out < FACING || back < FACING) continue;
          pairs.push({ a: 2 * s + e, b: 2 * t + f, cost: d + 400 * (3 - facing - out - back) });
        }
    }
  pairs.sort((p, q) => p.cost - q.cost || p.a - q.a || p.b - q.b);
  const mate = new Int32Array(2 * strands.length).fill(-1);
  for (const { a, b } of pairs)
    if (mate[a]! < 0 && mate[b]! < 0) {
      mate[a] = b;
      mate[b] = a;
    }
  const done = new Uint8Array(strands.length);
  const groups: ChainedStrand[][] = [];
  const gather = (first: number): void => {
    const members: ChainedStrand[] = [];
    for (let end = first; !done[end >> 1];) {
      done[end >> 1] = 1;
      const strand = strands[end >> 1]!;
      members.push(end & 1 ? turnedRound(strand) : strand);
      const next = mate[end ^ 1]!;
      if (next < 0) break;
      end = next;
    }
    groups.push(members);
  };
  for (let e = 0; e < mate.length; e++) if (mate[e]! < 0 && !done[e >> 1]) gather(e);
  for (let s = 0; s < strands.length; s++) if (!done[s]) gather(2 * s);
  return groups;
}

function turnedRound(strand: ChainedStrand): ChainedStrand {
  return {
    ...strand,
    xs: strand.xs.slice().reverse(),
    ys: strand.ys.slice().reverse(),
    widths: strand.widths.slice().reverse(),
  };
}

/** Several strands as one, the gaps between them bridged straight, judged by their traits' means. */
function united(members: readonly ChainedStrand[], judge: ChainOptions['judge']): ChainedStrand {
  const xs: number[] = [];
  const ys: number[] = [];
  const widths: number[] = [];
  for (const { xs: x, ys: y, widths: w } of members) {
    if (xs.length) {
      const [ax, ay, aw] = [xs.at(-1)!, ys.at(-1)!, widths.at(-1)!];
      const n = Math.floor(Math.hypot(x[0]! - ax, y[0]! - ay) / STEADY);
      for (let k = 1; k <= n; k++) {
        const t = k / (n + 1);
        xs.push(ax + t * (x[0]! - ax));
        ys.push(ay + t * (y[0]! - ay));
        widths.push(aw + t * (w[0]! - aw));
      }
    }
    for (let i = 0; i < x.length; i++) {
      xs.push(x[i]!);
      ys.push(y[i]!);
      widths.push(w[i]!);
    }
  }
  const first = members.reduce((a, b) => (weight(b) > weight(a) ? b : a));
  const traits = meanTraits(members, first.level);
  const whole = {
    xs: Float32Array.from(xs),
    ys: Float32Array.from(ys),
    widths: Float32Array.from(widths),
    polarity: first.polarity,
    level: first.level,
    traits,
  };
  return { ...whole, odds: judge(whole) };
}

function meanTraits(members: readonly ChainedStrand[], level: number): StrandTraits {
  // A level's px are twice as long as the next finer one's.
  const lengthAt = (s: ChainedStrand): number => s.traits.length * 2 ** (s.level - level);
  const length = members.reduce((sum, s) => sum + lengthAt(s), 0);
  const mean = (of: (s: ChainedStrand) => number): number =>
    members.reduce((sum, s) => sum + lengthAt(s) * of(s), 0) / length;
  const means = Object.fromEntries(
    TRAITS.map((trait) => [trait, mean(({ traits }) => traits[trait])]),
  ) as Record<(typeof TRAITS)[number], number>;
  return { ...means, length, width: mean((s) => s.traits.width * 2 ** (s.level - level)) };
}
