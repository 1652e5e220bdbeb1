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

/** Features of one picture with their only look-alikes in another; each must be the other's best. */
export function matched(one: Features, other: Features): Pair[] {
  const there = new Best(one.count);
  const back = new Best(other.count);
  const [a, b] = [one.looks, other.looks];
  for (let i = 0, p = 0; i < one.count; i++, p += SIZE)
    for (let j = 0, q = 0; j < other.count; j++, q += SIZE) {
      let s = 0;
      for (let k = 0; k < SIZE; k += 4)
        s +=
          a[p + k]! * b[q + k]! +
          a[p + k + 1]! * b[q + k + 1]! +
          a[p + k + 2]! * b[q + k + 2]! +
          a[p + k + 3]! * b[q + k + 3]!;
      there.offer(i, j, s);
      back.offer(j, i, s);
    }
  const pairs: Pair[] = [];
  for (let i = 0; i < one.count; i++) {
    const at = there.at[i]!;
    if (at < 0 || back.at[at] !== i) continue;
    // Squared distances of vectors of length 1.
    if (2 - 2 * there.first[i]! > RATIO * RATIO * (2 - 2 * there.second[i]!)) continue;
    pairs.push({ from: [one.x[i]!, one.y[i]!], to: [other.x[at]!, other.y[at]!] });
  }
  return pairs;
}

/** The likest and the next likest of every feature. */
class Best {
  readonly at: Int32Array;
  readonly first: Float32Array;
  readonly second: Float32Array;

  constructor(count: number) {
    this.at = new Int32Array(count).fill(-1);
    this.first = new Float32Array(count).fill(-1);
    this.second = new Float32Array(count).fill(-1);
  }

  offer(i: number, other: number, likeness: number): void {
    if (likeness > this.first[i]!) {
      this.second[i] = this.first[i]!;
      this.first[i] = likeness;
      this.at[i] = other;
    } else if (likeness > this.second[i]!) this.second[i] = likeness;
  }
}
