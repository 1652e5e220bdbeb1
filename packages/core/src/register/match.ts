import type { Point } from '../shape/site.js';
import type { Features } from './features.js';
import { SIZE } from './features.js';

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
export function matched(one: Features, other: Features): Pair[] {
  const { there, back } = candidates(one, other);
  const pairs: Pair[] = [];
  for (let i = 0; i < one.count; i++) {
    const best = bestOf(one, i, other, there);
    if (best < 0 || bestOf(other, best, one, back) !== i) continue;
    pairs.push({ from: [one.x[i]!, one.y[i]!], to: [other.x[best]!, other.y[best]!] });
  }
  return pairs;
}

/** Looks with four cells made one. */
function glances({ looks, count }: Features): Float32Array {
  const out = new Float32Array(count * GLANCE);
  for (let i = 0; i < count; i++)
    for (let cell = 0; cell < 16; cell++) {
      const to = i * GLANCE + ((cell >> 3) * 2 + ((cell >> 1) & 1)) * 8;
      const from = i * SIZE + cell * 8;
      for (let k = 0; k < 8; k++) out[to + k]! += looks[from + k]!;
    }
  return out;
}

/** The nearest of every feature at a glance, CANDIDATES a feature, -1 where there are fewer. */
class Nearest {
  readonly at: Int32Array;
  private readonly far: Float64Array;

  constructor(count: number) {
    this.at = new Int32Array(count * CANDIDATES).fill(-1);
    this.far = new Float64Array(count * CANDIDATES).fill(Infinity);
  }

  /** The distance from which on others are of no interest to feature `i`. */
  limit(i: number): number {
    return this.far[(i + 1) * CANDIDATES - 1]!;
  }

  offer(i: number, other: number, distance: number): void {
    const first = i * CANDIDATES;
    let at = first + CANDIDATES - 1;
    for (; at > first && this.far[at - 1]! > distance; at--) {
      this.far[at] = this.far[at - 1]!;
      this.at[at] = this.at[at - 1]!;
    }
    this.far[at] = distance;
    this.at[at] = other;
  }
}

function candidates(one: Features, other: Features): { there: Int32Array; back: Int32Array } {
  const [a, b] = [glances(one), glances(other)];
  const [p2, q2] = [squares(a), squares(b)];
  const there = new Nearest(one.count);
  const back = new Nearest(other.count);
  for (let i = 0, p = 0; i < one.count; i++, p += GLANCE)
    for (let j = 0, q = 0; j < other.count; j++, q += GLANCE) {
      let s = 0;
      for (let k = 0; k < GLANCE; k += 4)
        s +=
          a[p + k]! * b[q + k]! +
          a[p + k + 1]! * b[q + k + 1]! +
          a[p + k + 2]! * b[q + k + 2]! +
          a[p + k + 3]! * b[q + k + 3]!;
      const distance = p2[i]! + q2[j]! - 2 * s;
      if (distance < there.limit(i)) there.offer(i, j, distance);
      if (distance < back.limit(j)) back.offer(j, i, distance);
    }
  return { there: there.at, back: back.at };
}

/** Squared lengths of the looks at a glance. */
function squares(glance: Float32Array): Float64Array {
  return Float64Array.from({ length: glance.length / GLANCE }, (_, i) => {
    let s = 0;
    for (let k = i * GLANCE; k < (i + 1) * GLANCE; k++) s += glance[k]! * glance[k]!;
    return s;
  });
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
