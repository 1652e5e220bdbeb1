import { levelled, LEVELS_LIMITS } from './levels.js';
import type { Levels } from './levels.js';
import type { ToneActOf } from './step.js';

/** What a place in the picture is taken for. */
export type NeutralPoint = 'white' | 'grey' | 'black';

/** Paper white lies just short of clipping, print black just above it (common practice). */
const PAPER = 0.96;
const DEEP = 0.03;
const LEAST_RANGE = 0.02;

/**
 * Levels that make a place neutral, channel by channel: as paper white, as black, or as a grey of its own lightness. What
 * is set for all channels together stays.
 * @param colour of the place where the step begins, 0..1, three channels
 */
export function neutralised(
  act: ToneActOf<'levels'>,
  colour: readonly number[],
  as: NeutralPoint,
): ToneActOf<'levels'> {
  const before = [0, 1, 2].map((c) => levelled(colour[c]!, act.all));
  const now = before.map((v, c) => levelled(v, act.channels[c as 0]));
  const middle = now.reduce((sum, v) => sum + v, 0) / 3;
  const channels = act.channels.map((levels, c): Levels => {
    const v = before[c]!;
    const { black, white } = levels;
    if (as === 'white') {
      // (v - black) / (white - black) = PAPER, the middle left alone.
      const next = black + (v - black) / Math.pow(PAPER, levels.gamma);
      return { ...levels, white: limited(next, 'white', black) };
    }
    if (as === 'black') {
      const deep = Math.pow(DEEP, levels.gamma);
      const next = (v - deep * white) / (1 - deep);
      return { ...levels, black: limited(next, 'black', white) };
    }
    const share = Math.min(0.98, Math.max(0.02, (v - black) / (white - black)));
    const wanted = Math.min(0.98, Math.max(0.02, middle));
    const gamma = Math.log(share) / Math.log(wanted);
    return {
      ...levels,
      gamma: Math.min(LEVELS_LIMITS.gamma[1], Math.max(LEVELS_LIMITS.gamma[0], gamma)),
    };
  });
  return { ...act, channels: channels as unknown as typeof act.channels };
}

function limited(value: number, end: 'black' | 'white', other: number): number {
  const [least, most] = LEVELS_LIMITS[end];
  const kept =
    end === 'white' ? Math.max(value, other + LEAST_RANGE) : Math.min(value, other - LEAST_RANGE);
  return Math.min(most, Math.max(least, kept));
}
