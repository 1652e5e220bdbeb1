import type { CreaseTraits } from './crease-traits.js';
import type { Reading } from './readings.js';
import { oddsBy } from './readings.js';
import type { Strand } from './strands.js';

/**
 * What speaks for a strand being bare paper: its tone, its steadiness, its height and its length. Standings set by
 * hand on open photographs and made-up creases.
 * @param shorter the picture's shorter side, px
 */
export function strandJudge(shorter: number): (strand: Strand) => number {
  return ({ traits: t, level, polarity }) => {
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

/** Folds run straight on as a whole: chord over length below which a line is a thing's rim, and what speaks against one. */
const BENT = { from: 0.75, against: 10 } as const;

/**
 * A logistic regression on made-up creases and tears over 43 open photographs, at several sizes, with hairs, scratches,
 * wires, lettering and meshes as what is none; the figures are standings of evidence, not settings. Cross-checked by
 * leaving out a sixth of the photographs in turn, and on 21 that it never saw.
 */
const READINGS: readonly Reading<CreaseTraits>[] = [
  { of: (t) => t.strands, within: [-1.98, 8], says: [0.679] },
  { of: (t) => t.inside, within: [0, 0.2], says: [-17.144] },
  { of: (t) => Math.log(t.long), within: [-3, 0.47], says: [0.375, -0.36] },
  { of: (t) => Math.log(t.gain), within: [-0.04, 2.08], says: [0.643] },
  { of: (t) => Math.log(t.broad / 8), within: [-0.98, 1.32], says: [-0.231, -3.162] },
  { of: (t) => t.rough, within: [0, 1.5], says: [3.001] },
  { of: (t) => Math.log(t.sides + 3), within: [1.51, 5.14], says: [-0.603, -0.064] },
  { of: (t) => t.least / 50, within: [-0.24, 2.4], says: [0.637] },
  { of: (t) => Math.log(t.spread + 3), within: [1.1, 5.14], says: [0.327, -0.041] },
  { of: (t) => (t.cast - 25) / 50, within: [0, 1], says: [-2.779] },
  {
    of: ({ strand: t }) => t.extreme,
    within: [0.5, 1.2],
    says: [5.359],
  },
  { of: ({ strand: t }) => Math.log(t.unsteady + 0.05), within: [-2, -0.3], says: [2.258] },
  {
    of: ({ strand: t }) => Math.log(Math.max(1, t.ground) / 10),
    within: [-2.27, 2.14],
    says: [0.713],
  },
  { of: ({ strand: t }) => Math.log(t.crowd + 0.003), within: [-5.81, -1.8], says: [-0.826] },
];
const BIAS = -5.29;

/** Log odds that something is a crease or a tear. */
export function creaseOdds(traits: CreaseTraits): number {
  const bent = BENT.against * Math.max(0, BENT.from - traits.straight);
  return oddsBy(READINGS, BIAS - bent, traits);
}

/** Log odds between which something is doubtful: no crease, but like one. */
const DOUBTFUL = { from: -4, to: 0 } as const;
/** What speaks for a crease where nothing else is doubtful, at most and before the cap, and against it by others that are. */
const ALONE = { most: 0.5, free: 1.3, each: 1.1 } as const;

/**
 * Asks the picture as a whole: where much is nearly like a crease, among ledges, beams and furrows, a crease has to be
 * more than that.
 * @param odds of all that may be creases, each by itself
 */
export function creasesInDoubt(odds: readonly number[]): number[] {
  const isDoubtful = (o: number): boolean => o > DOUBTFUL.from && o < DOUBTFUL.to;
  const doubtful = odds.filter(isDoubtful).length;
  return odds.map((own) => {
    const others = doubtful - (isDoubtful(own) ? 1 : 0);
    return own + Math.min(ALONE.most, ALONE.free - ALONE.each * Math.log(1 + others));
  });
}
