/** How a judge reads one trait of what it judges, and what that speaks. */
export interface Reading<T> {
  readonly of: (traits: T) => number;
  /** Bounds that open photographs keep: nothing counts beyond what has been seen. */
  readonly within: readonly [number, number];
  /** What it speaks by itself, and squared. */
  readonly says: readonly [number, number?];
}

/** Log odds by readings that speak one by one. */
export function oddsBy<T>(readings: readonly Reading<T>[], bias: number, traits: T): number {
  return readings.reduce((odds, { of, within: [from, to], says: [once, squared = 0] }) => {
    const value = Math.min(to, Math.max(from, of(traits)));
    return odds + once * value + squared * value * value;
  }, bias);
}
