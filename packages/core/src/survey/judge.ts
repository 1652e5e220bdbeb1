import type { Strand, StrandTraits } from './strands.js';

/** What speaks for a strand being one of a kind, in the order of {@link evidenceOf}. */
export interface Weights {
  readonly bias: number;
  readonly weights: readonly number[];
}

/** The traits as a judge reads them: logarithms of ratios, so that sizes and tones compare. */
function evidenceOf(t: StrandTraits, level: number): number[] {
  const height = Math.max(1, t.height);
  const long = Math.log(t.length / 40);
  const high = Math.log(height / 20);
  return [
    long,
    long * long,
    high,
    t.whole,
    Math.log(t.unsteady + 0.05),
    Math.log((t.ground + 2) / 10),
    Math.log(t.lopsided + 0.05),
    Math.log((t.busy + 1) / 6),
    Math.log(height / (t.busy + 1)),
    10 * t.crowd,
    Math.log(t.turn + 0.005),
    t.straight,
    t.width / 3,
    t.uneven,
    t.extreme,
    level === 0 ? 1 : 0,
    level === 1 ? 1 : 0,
    level >= 2 ? 1 : 0,
    (10 * t.unsteady) / (t.ground + 4),
    long * high,
  ];
}

/**
 * Logistic regression on made-up hairs and scratches over 32 open photographs; the figures are standings of evidence,
 * not settings. Cross-checked by leaving each photograph out in turn.
 */
export const SCRATCH_WEIGHTS: Weights = {
  bias: 1.46,
  weights: [
    -0.026, -0.3, 0.723, 3.702, -0.982, 1.24, 0.12, -1.404, 1.046, -0.124, 0.713, -1.631, -6.406,
    -0.421, 1.211, -0.15, 0.052, 0.294, 0.078, 1.245,
  ],
};

/** The same for made-up wires over the same photographs. */
export const WIRE_WEIGHTS: Weights = {
  bias: -5.821,
  weights: [
    1.019, -0.038, -0.961, -1.453, -3.231, 1.724, -0.686, -1.245, -0.85, -0.047, -0.66, 1.179,
    -3.123, 0.127, 0.053, -0.764, 0.104, 1.767, 0.55, 0.501,
  ],
};

/** Log odds that a strand is what the weights stand for. */
export function oddsOf(
  { traits, level }: Pick<Strand, 'traits' | 'level'>,
  { bias, weights }: Weights,
): number {
  const evidence = evidenceOf(traits, level);
  let sum = bias;
  for (let k = 0; k < weights.length; k++) sum += weights[k]! * evidence[k]!;
  return sum;
}

/** Log odds as a score 0..1. */
export function scoreOf(odds: number): number {
  return 1 / (1 + Math.exp(-odds));
}

/** Log odds a finding needs at a sensitivity 0..1; 0.5 is the default, half a unit above even. */
export function leastOdds(sensitivity: number, usual: number): number {
  return usual + 6 * (0.5 - sensitivity);
}
