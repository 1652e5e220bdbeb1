import type { AutoTone } from './auto-tone.js';
import type { Levels } from './levels.js';
import { NO_LEVELS } from './levels.js';
import type { ToneAct } from './step.js';

/** The acts that undo fading as it was measured: even light first, then every channel's range. */
export function actsOf({ falloff, channels }: AutoTone): ToneAct[] {
  const [first = NO_LEVELS] = channels;
  const each = [0, 1, 2].map((c) => channels[c] ?? first) as [Levels, Levels, Levels];
  const flat: ToneAct[] = falloff > 0 ? [{ kind: 'flatten', falloff }] : [];
  return [...flat, { kind: 'levels', all: NO_LEVELS, channels: each }];
}

/** A step that works everywhere at full strength. */
export function plainStep<A extends ToneAct>(
  act: A,
): { act: A; enabled: true; strength: 1; mask: null } {
  return { act, enabled: true, strength: 1, mask: null };
}
