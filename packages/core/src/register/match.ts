import type { Point } from '../shape/site.js';
import type { Crew } from '../task/crew.js';
import { rangesOf } from '../task/crew.js';
import { openArena } from '../wasm/arena.js';
import type { Features } from './features.js';
import { SIZE } from './level.js';
import { REGISTER_KERNEL } from './register-kernel.js';

/** The same place in two pictures. */
export interface Pair {
  readonly from: Point;
  readonly to: Point;
}

/** How much nearer the best look-alike must be than the next one (Lowe 2004). */
const RATIO = 0.8;

/** Look-alikes at a glance that are looked at closely. */
const CANDIDATES = 8;
/** Values of a look at a glance: blocks of 2 x 2 cells. */
const GLANCE = SIZE / 4;

/** Features of one picture with their only look-alikes in another; each must be the other's best. */
export function matched(one: Features, other: Features, crew: Crew): Pair[] {
  const { there, back } = candidates(one, other, crew);
  const pairs: Pair[] = [];
  for (let i = 0; i < one.count; i++) {
    const best = bestOf(one, i, other, there);
    if (best < 0 || bestOf(other, best, one, back) !== i) continue;
    pairs.push({ from: [one.x[i]!, one.y[i]!], to: [other.x[best]!, other.y[best]!] });
  }
  return pairs;
}

/** The nearest of every feature at a glance, CANDIDATES a feature, -1 where there are fewer. */
function candidates(
  one: Features,
  other: Features,
  crew: Crew,
): { there: Int32Array; back: Int32Array } {
  const both = one.count + other.count;
  const bytes = 4 * both * (SIZE + GLANCE + 2 * CANDIDATES);
  const arena = openArena<object>(REGISTER_KERNEL, bytes, 8, { once: true, shared: true });
  const sides = [one, other].map(({ looks, count }) => {
    const own = arena.floats(count * SIZE);
    own.set(looks);
    const glances = arena.floats(count * GLANCE);
    const at = arena.words(count * CANDIDATES);
    const far = arena.floats(count * CANDIDATES);
    crew.run(arena.room, 'glance', [own.byteOffset, glances.byteOffset], rangesOf(count, 100));
    return { count, glances: glances.byteOffset, at, far: far.byteOffset };
  });
  const [a, b] = sides as [(typeof sides)[number], (typeof sides)[number]];
  for (const [from, to] of [
    [a, b],
    [b, a],
  ] as const)
    crew.run(
      arena.room,
      'nearest',
      [from.glances, to.glances, to.count, from.at.byteOffset, from.far],
      rangesOf(from.count, 100),
    );
  return { there: a.at, back: b.at };
}

/** The likest candidate, when it is clearly likelier than the next; else -1. */
function bestOf(one: Features, i: number, other: Features, list: Int32Array): number {
  let [best, first, second] = [-1, -1, -1];
  for (let c = 0; c < CANDIDATES; c++) {
    const j = list[i * CANDIDATES + c]!;
    if (j < 0) break;
    let s = 0;
    for (let k = 0; k < SIZE; k++) s += one.looks[i * SIZE + k]! * other.looks[j * SIZE + k]!;
    if (s > first) [best, first, second] = [j, s, first];
    else if (s > second) second = s;
  }
  // Squared distances of vectors of length 1.
  return 2 - 2 * first > RATIO * RATIO * (2 - 2 * second) ? -1 : best;
}
