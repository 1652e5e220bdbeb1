import type { ProofAnswer, RepairTell, Repair } from '@tersum/document';

/** The tells of a proof as they are listed: of what is switched on, the worst first. */
export interface Told {
  /** To be mended, or to be let stand. */
  readonly open: readonly RepairTell[];
  /** Let stand by a person. */
  readonly standing: readonly RepairTell[];
  /** How many repeats of grain alone there are. */
  readonly faint: number;
}

export function toldOf(proof: ProofAnswer | null, repairs: readonly Repair[]): Told {
  const enabled = new Set(repairs.filter((r) => r.enabled).map(({ id }) => id));
  const all = (proof?.tells ?? [])
    .filter(({ repair }) => repair === null || enabled.has(repair))
    .sort((a, b) => farBeyond(b) - farBeyond(a));
  const seen = all.filter(({ faint }) => !faint);
  return {
    open: seen.filter(({ stands }) => !stands),
    standing: seen.filter(({ stands }) => stands),
    faint: all.length - seen.length,
  };
}

/** By how far a tell is beyond its limit: 0 at it. */
export function farBeyond({ value, limit }: Pick<RepairTell, 'value' | 'limit'>): number {
  return Math.abs(Math.log(value / limit));
}
