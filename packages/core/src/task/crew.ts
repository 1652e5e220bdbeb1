import type { Room } from '../wasm/arena.js';

/** From here up to, but not including, there. */
export type Range = readonly [number, number];

/** Threads that run a kernel's functions together on shared memory. */
export interface Crew {
  /** How many threads, the calling one included. */
  readonly threads: number;
  /**
   * Calls `name` of the room's kernel once for every range, as name(...args, number of the range, from, to), on
   * whichever thread is free; returns when all are done. Ranges must not write what another one reads or writes.
   */
  run(room: Room, name: string, args: readonly number[], ranges: readonly Range[]): void;
}

/** The calling thread alone. */
export const alone: Crew = {
  threads: 1,
  run({ exports }, name, args, ranges) {
    const call = (exports as Record<string, (...args: number[]) => void>)[name]!;
    ranges.forEach(([from, to], part) => call(...args, part, from, to));
  },
};

/** Most ranges a list is cut into. */
export const MOST_RANGES = 16;

/**
 * Cuts a list into ranges that depend on its length only, so that no result depends on how many threads there are.
 * @param least shorter lists stay whole
 * @param shifted moves the cuts by half a range, so that what stops at a cut goes on in the next pass
 */
export function rangesOf(count: number, least: number, shifted = false): Range[] {
  const parts = Math.max(1, Math.min(MOST_RANGES - 1, Math.ceil(count / least)));
  const size = Math.ceil(count / parts);
  const ranges: Range[] = [];
  let from = 0;
  let to = shifted ? Math.ceil(size / 2) : size;
  while (from < count) {
    ranges.push([from, Math.min(to, count)]);
    from = to;
    to += size;
  }
  return ranges;
}
