import type { Rect } from '../raster/rect.js';

/** What gives a repair away. */
export const TELL_KINDS = [
  'seam',
  'tone',
  'softness',
  'grain',
  'repeat',
  'broken-line',
  'leftover',
  'pull',
] as const;
export type TellKind = (typeof TELL_KINDS)[number];

/** One tell of a site that is beyond its limit. */
export interface SiteTell {
  readonly kind: TellKind;
  /** In the unit of {@link TELL_LIMITS}. */
  readonly value: number;
  readonly limit: number;
  /** Where it shows. */
  readonly box: Rect;
  /** For a repeat: where the same is seen again. */
  readonly twin?: Rect;
  /** For a repeat: whether nothing but its grain is the same, which is measured but hardly seen. */
  readonly faint?: boolean;
}

/** A tell and which of several sites it belongs to. */
export interface Tell extends SiteTell {
  readonly site: number;
}

export type TellLimits = Readonly<Record<TellKind, number>>;

/**
 * Limits at which random places of untouched photographs hardly ever count as telling:
 * seam, how many times the steps beside it the steps across the border are; tone, CIEDE2000; softness and grain, fine detail
 * beside what the surroundings let expect (amplitude; grain also when it is over 1 / limit cubed); repeat, px across; broken line, px;
 * leftover and pull, the finding's score.
 */
export const TELL_LIMITS: TellLimits = {
  seam: 1.5,
  tone: 2.2,
  softness: 0.78,
  grain: 0.82,
  repeat: 7,
  'broken-line': 2.2,
  leftover: 0.5,
  pull: 0.5,
};

/** Within what each limit may be set: from the strictest to the laxest. */
export const TELL_RANGES: Readonly<Record<TellKind, readonly [strictest: number, laxest: number]>> =
  {
    seam: [1.2, 4],
    tone: [1, 8],
    softness: [0.9, 0.3],
    grain: [0.95, 0.4],
    repeat: [5, 60],
    'broken-line': [1, 6],
    leftover: [0.3, 0.95],
    pull: [0.3, 0.95],
  };

/** What is measured once, so that any limit can be set afterwards. */
export const STRICTEST_LIMITS = Object.fromEntries(
  TELL_KINDS.map((kind) => [kind, TELL_RANGES[kind][0]]),
) as TellLimits;

/** Grain that is too much is seen less easily than too little: power of the limit. */
const TOO_MUCH = 3;

/** Whether a value is telling; too much grain tells as well as too little. */
export function isBeyond(kind: TellKind, value: number, limit: number): boolean {
  if (kind === 'softness') return value < limit;
  if (kind === 'grain') return value < limit || value > 1 / limit ** TOO_MUCH;
  return value > limit;
}
