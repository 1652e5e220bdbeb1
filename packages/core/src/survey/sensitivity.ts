import { scoreOf } from './judge.js';

/** Least log odds a finding needs at a sensitivity 0..1: 0 at the default of 0.5. */
export function oddsAt(sensitivity: number): number {
  return 6 * (0.5 - sensitivity);
}

/** Least score a finding needs at a sensitivity 0..1: 0.5 at the default of 0.5. */
export function leastScore(sensitivity: number): number {
  return scoreOf(oddsAt(sensitivity));
}
