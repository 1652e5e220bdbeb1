import type { Strand } from './strands.js';

/** Stretches that tell the direction before and after a point: widths, px at least. */
const REACH = { widths: 2.5, least: 24 } as const;
/** Cosine of the turn that is a corner. */
const CORNER = 0.77;
/** Points that a part needs. */
const SHORTEST = 12;

/** The parts of strands between their corners: where two lines cross, a ridge may turn from one into the other. */
export function cutAtCorners(strands: readonly Strand[]): Strand[] {
  return strands.flatMap((strand) => {
    const corners = cornersOf(strand);
    if (!corners.length) return [strand];
    const ends = [0, ...corners, strand.xs.length];
    return corners
      .concat(strand.xs.length)
      .map((to, k) => partOf(strand, ends[k]!, to))
      .filter(({ xs }) => xs.length >= SHORTEST);
  });
}

function partOf(strand: Strand, from: number, to: number): Strand {
  const { xs, ys, widths, traits } = strand;
  return {
    ...strand,
    xs: xs.slice(from, to),
    ys: ys.slice(from, to),
    widths: widths.slice(from, to),
    traits: { ...traits, length: (traits.length * (to - from)) / xs.length },
  };
}

/** Points at which a strand turns most, of those at which it turns by a corner. */
function cornersOf({ xs, ys, level, traits }: Strand): number[] {
  const n = xs.length;
  const step = 2 ** level;
  const reach = Math.ceil(Math.max(REACH.least / step, REACH.widths * traits.width));
  const found: { at: number; cos: number }[] = [];
  for (let i = reach; i + reach < n; i++) {
    const [ax, ay] = [xs[i]! - xs[i - reach]!, ys[i]! - ys[i - reach]!];
    const [bx, by] = [xs[i + reach]! - xs[i]!, ys[i + reach]! - ys[i]!];
    const cos = (ax * bx + ay * by) / (Math.hypot(ax, ay) * Math.hypot(bx, by) || 1);
    if (cos >= CORNER) continue;
    const last = found.at(-1);
    if (!last || i - last.at > reach) found.push({ at: i, cos });
    else if (cos < last.cos) Object.assign(last, { at: i, cos });
  }
  return found.map(({ at }) => at);
}
