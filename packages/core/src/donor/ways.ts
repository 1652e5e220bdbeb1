import type { DonorOffer } from './offer.js';
import { SCALE_LIMITS } from './placement.js';

/** How a donor is laid, wherever it lies. */
export type Way = Omit<DonorOffer, 'dx' | 'dy' | 'misfit'>;

/** Options of {@link waysOf}. */
export interface WayOptions {
  /** Greatest turn tried, degrees. @default 0 */
  turn?: number;
  /** Whether mirrored donors are tried as well. @default false */
  mirror?: boolean;
  /** Tries only donors that are turned over left-right ('x'), top-bottom ('y') or not at all. @default by `mirror` */
  ways?: 'x' | 'y' | 'none';
  /** Least and greatest scale tried. @default [1, 1] */
  scale?: readonly [least: number, most: number];
}

const TURN_STEPS = 4;

/** The turns, mirrors and scales to be tried; as it stands comes first. */
export function waysOf({ turn = 0, mirror = false, ways, scale = [1, 1] }: WayOptions): Way[] {
  const turns = [0];
  for (let k = 1; k <= TURN_STEPS && turn > 0; k++)
    turns.push((turn * k) / TURN_STEPS, (-turn * k) / TURN_STEPS);
  const scales = [1];
  for (const s of scale) {
    const within = Math.min(SCALE_LIMITS.most, Math.max(SCALE_LIMITS.least, s));
    if (within !== 1) scales.push(within, Math.sqrt(within));
  }
  const overs = ways ? [ways] : mirror ? (['none', 'x'] as const) : (['none'] as const);
  return overs.flatMap((over) =>
    scales.flatMap((s) =>
      turns.map((t) => ({ turn: t, mirrorX: over === 'x', mirrorY: over === 'y', scale: s })),
    ),
  );
}

/** Whether two donors are turned, mirrored and scaled alike. */
export function isLaid(a: Way, b: Way): boolean {
  return (
    a.turn === b.turn && a.mirrorX === b.mirrorX && a.mirrorY === b.mirrorY && a.scale === b.scale
  );
}
