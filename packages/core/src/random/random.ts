/** Seeded source of chance: the same seed gives the same numbers in every engine. */
export interface Random {
  /** A whole number 0..2^32-1. */
  next(): number;
  /** A whole number low..high, both included. */
  between(low: number, high: number): number;
  /** A real number 0 <= r < 1. */
  unit(): number;
}

/**
 * xorshift32 (Marsaglia, "Xorshift RNGs", J. Stat. Software 8(14), 2003), the seed scrambled first so that
 * neighbouring seeds start far apart.
 */
export function seededRandom(seed: number): Random {
  let s = firstState(seed);
  const next = (): number => {
    s ^= s << 13;
    s ^= s >>> 17;
    s ^= s << 5;
    return s >>> 0;
  };
  const unit = (): number => next() / 4294967296;
  return { next, unit, between: (low, high) => low + Math.floor(unit() * (high - low + 1)) };
}

/** What a seed's source of chance begins with, for kernels that go on from there. */
export function firstState(seed: number): number {
  const s = Math.imul((seed | 0) ^ 0x6d2b79f5, 0x85ebca6b) ^ 0x9e3779b9;
  return Math.imul(s ^ (s >>> 15), 0x2c1b3c6d) || 0x1234567;
}
