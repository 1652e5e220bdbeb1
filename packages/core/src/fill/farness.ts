import type { Manner } from './manner.js';

/** What it costs a match to lie far from what it fills, on one level. Whole numbers. */
export interface Farness {
  /** Distance, px across and down together, up to which it costs nothing. */
  readonly free: number;
  /** What every px beyond adds to the squared difference of two patches. */
  readonly rate: number;
}

/** Wherever a match lies, it costs nothing. */
export const ANYWHERE: Farness = { free: 0, rate: 0 };

/** Costs and differences together must keep within 32 bits. */
const MOST = 1 << 30;

/** A hole, as what being far costs depends on it. */
export interface FarnessOf {
  /** Greatest depth, px. */
  readonly depth: number;
  /** Whether it reaches the picture's border. */
  readonly isOpen: boolean;
  /** How much patches by chance differ, squared: in a plain sky far is nearly as likely as near. */
  readonly unlike: number;
}

/**
 * What is near is likelier than what is far at the same likeness, since places of a photograph are the less alike the
 * farther they are apart. What is no farther than the hole is deep costs nothing: the very nearest would be laid over and
 * over.
 * @param level of the search, and its number: 0 is the finest
 */
export function farnessAt(
  { far, reach }: Pick<Manner, 'far' | 'reach'>,
  { depth, isOpen, unlike }: FarnessOf,
  level: { readonly width: number; readonly height: number },
  k: number,
): Farness {
  const cost = (isOpen ? far.open : far.within) * unlike;
  return {
    free: Math.floor(depth) >> k,
    rate: Math.min(
      Math.round(cost / Math.max(1, reach >> k)),
      Math.floor(MOST / (level.width + level.height)),
    ),
  };
}
