import type { StrandTraits } from './strand-traits.js';
import type { Strand } from './strands.js';

/**
 * The traits as a judge reads them: logarithms of ratios, so that sizes and tones compare, within the bounds that
 * strands of open photographs keep, so that nothing counts beyond what has been seen.
 */
const READINGS = {
  long: { of: (t) => Math.log(t.length / 40), within: [-0.69, 3.51] },
  high: { of: (t) => Math.log(Math.max(1, t.height) / 20), within: [-3, 2.24] },
  whole: { of: (t) => t.whole, within: [0.31, 1] },
  unsteady: { of: (t) => Math.log(t.unsteady + 0.05), within: [-3, 2.37] },
  ground: { of: (t) => Math.log((t.ground + 2) / 10), within: [-1.49, 2.21] },
  lopsided: { of: (t) => Math.log(t.lopsided + 0.05), within: [-2.83, 4.22] },
  busy: { of: (t) => Math.log((t.busy + 1) / 6), within: [-0.95, 1.75] },
  crowd: { of: (t) => Math.log(t.crowd + 0.003), within: [-5.81, -1.73] },
  turn: { of: (t) => Math.log(t.turn + 0.005), within: [-5.17, -2.17] },
  straight: { of: (t) => Math.log(1.02 - t.straight), within: [-3.91, -0.1] },
  width: { of: (t) => Math.log(t.width), within: [0.27, 1.98] },
  uneven: { of: (t) => Math.log(t.uneven + 0.05), within: [-2.92, -0.31] },
  extreme: { of: (t) => t.extreme, within: [0.08, 0.96] },
  alike: { of: (t) => t.alike, within: [-0.69, 0.99] },
  rough: { of: (t) => Math.log(t.rough + 0.02), within: [-3.91, 2.2] },
  groundRough: { of: (t) => Math.log(t.groundRough + 0.5), within: [-0.2, 3.6] },
  varied: { of: (t) => Math.log(t.varied + 0.03), within: [-3.17, 2.41] },
} satisfies Record<string, Reader>;

interface Reader {
  readonly of: (traits: StrandTraits) => number;
  readonly within: readonly [number, number];
}

type Reading = keyof typeof READINGS;
const NAMES = Object.keys(READINGS) as Reading[];

/** What speaks for a strand being one of a kind. */
export interface Weights {
  readonly bias: number;
  /** Of the finest level, of the third and coarser ones, and of bright strands (dark ones: the opposite). */
  readonly finest: number;
  readonly coarse: number;
  readonly bright: number;
  /** Of each reading: itself, squared, and itself once more at the finest level and at coarse ones. */
  readonly each: Record<Reading, readonly [number, number, number?, number?]>;
  /** Of two readings multiplied. */
  readonly together: readonly (readonly [Reading, Reading, number])[];
}

/**
 * Logistic regressions on made-up hairs, scratches and wires over 43 open photographs; the figures are standings of
 * evidence, not settings. Cross-checked by leaving out a sixth of the photographs in turn.
 */
export const SCRATCH_WEIGHTS: Weights = {
  bias: -11.067,
  finest: -6.929,
  coarse: 7.323,
  bright: 0.391,
  each: {
    long: [1.233, -0.368, 0.641, -0.712],
    high: [1.069, -0.397, -0.416, -0.002],
    whole: [-4.919, 4.332],
    unsteady: [-0.032, -0.204, -0.338, 0.294],
    ground: [0.799, 0.173],
    lopsided: [-0.309, 0.526, -0.45, 0.032],
    busy: [-3.247, 0.464, 0.66, 0.345],
    crowd: [-0.977, -0.041],
    turn: [-2.025, -0.212],
    straight: [0.007, -0.035, -0.193, 0.915],
    width: [-0.942, -3.432, 4.79, -5.749],
    uneven: [-0.073, -0.122],
    extreme: [-3.16, 3.129],
    alike: [-1.046, -0.477],
    rough: [-0.495, 0.513],
    groundRough: [3.064, -0.009],
    varied: [-1.166, -0.277],
  },
  together: [
    ['long', 'high', 0.437],
    ['long', 'straight', 0.285],
    ['long', 'busy', 0.31],
    ['high', 'busy', -0.394],
    ['unsteady', 'ground', 0.279],
    ['long', 'crowd', -0.137],
    ['high', 'lopsided', 0.006],
    ['width', 'high', -1.067],
  ],
};

/** The same of wires. */
export const WIRE_WEIGHTS: Weights = {
  bias: -21.136,
  finest: -6.46,
  coarse: 8.077,
  bright: -0.533,
  each: {
    long: [1.828, 0.042, -0.223, -0.221],
    high: [-1.363, -0.706, -0.355, 0.564],
    whole: [2.677, -2.034],
    unsteady: [-1.528, 0.223, 0.276, 0.784],
    ground: [0.427, 0.209],
    lopsided: [0.309, 0.104, -0.456, 0.191],
    busy: [-1.009, 0.257, -0.015, -0.063],
    crowd: [-0.617, -0.049],
    turn: [-3.731, -0.373],
    straight: [-5.382, -0.958, -0.575, 0.683],
    width: [-1.273, -2.102, 4.075, -4.333],
    uneven: [3.943, 1.075],
    extreme: [-6.409, 4.67],
    alike: [-0.55, 0.021],
    rough: [-0.745, 0.364],
    groundRough: [1.957, 0.089],
    varied: [-0.31, 0.009],
  },
  together: [
    ['long', 'high', 0.15],
    ['long', 'straight', 0.187],
    ['long', 'busy', 0.112],
    ['high', 'busy', 0.249],
    ['unsteady', 'ground', -0.051],
    ['long', 'crowd', -0.035],
    ['high', 'lopsided', -0.241],
    ['width', 'high', -0.314],
  ],
};

/** Log odds that a strand is what the weights stand for. */
export function oddsOf(
  { traits, level, polarity }: Pick<Strand, 'traits' | 'level' | 'polarity'>,
  { bias, finest, coarse, bright, each, together }: Weights,
): number {
  const read = readingsOf(traits);
  const [isFinest, isCoarse] = [level === 0 ? 1 : 0, level >= 2 ? 1 : 0];
  let sum = bias + isFinest * finest + isCoarse * coarse + polarity * bright;
  for (const name of NAMES) {
    const [own, squared, atFinest = 0, atCoarse = 0] = each[name];
    const v = read[name];
    sum += v * (own + squared * v + isFinest * atFinest + isCoarse * atCoarse);
  }
  for (const [a, b, weight] of together) sum += weight * read[a] * read[b];
  return sum;
}

function readingsOf(traits: StrandTraits): Record<Reading, number> {
  const read = {} as Record<Reading, number>;
  for (const name of NAMES) {
    const { of, within } = READINGS[name];
    read[name] = Math.max(within[0], Math.min(within[1], of(traits)));
  }
  return read;
}

/** Log odds as a score 0..1. */
export function scoreOf(odds: number): number {
  return 1 / (1 + Math.exp(-odds));
}
