import { seededRandom } from '../random/random.js';
import type { Homography } from '../shape/homography.js';
import { homographyOf, through } from '../shape/homography.js';
import type { Point } from '../shape/site.js';
import { solveSmall } from '../solve/small.js';
import type { Pair } from './match.js';

/** A projective map that most pairs agree on. */
export interface Fitted {
  readonly map: Homography;
  /** Pairs that agree, in the order given. */
  readonly agreeing: readonly Pair[];
}

/** Most tries, and how sure it should be that one of them had no wrong pair. */
const TRIES = 2000;
const SURE = 0.999;

/**
 * The projective map from `from` to `to` that most pairs agree on (Fischler, Bolles, "Random Sample Consensus", CACM 24(6),
 * 1981), then fitted to all of those.
 * @param tolerance px a pair may be off
 * @returns null when fewer than `least` agree
 */
export function fitPairs(
  pairs: readonly Pair[],
  tolerance: number,
  least: number,
  seed = 1,
): Fitted | null {
  if (pairs.length < 4) return null;
  const random = seededRandom(seed);
  let best: Pair[] = [];
  let tries = TRIES;
  for (let k = 0; k < tries; k++) {
    const four = Array.from({ length: 4 }, () => pairs[random.between(0, pairs.length - 1)]!);
    const map = mapOf(four);
    if (!map) continue;
    let count = 0;
    for (const p of pairs) if (offOf(map, p) < tolerance) count++;
    if (count <= best.length) continue;
    best = pairs.filter((p) => offOf(map, p) < tolerance);
    const share = (best.length / pairs.length) ** 4;
    tries = Math.min(
      tries,
      Math.ceil(Math.log(1 - SURE) / Math.log(1 - Math.min(0.9999, share))) + 20,
    );
  }
  if (best.length < Math.max(4, least)) return null;
  let map = leastSquares(best);
  for (let pass = 0; pass < 3; pass++) {
    const agreeing = pairs.filter((p) => offOf(map, p) < tolerance);
    if (agreeing.length < Math.max(4, least)) break;
    best = agreeing;
    map = leastSquares(best);
  }
  return { map, agreeing: best };
}

/** px between where a pair is taken and where it should be. */
export function offOf(map: Homography, { from, to }: Pair): number {
  const [x, y] = through(map, from);
  return Math.sqrt((x - to[0]) ** 2 + (y - to[1]) ** 2);
}

function mapOf(four: readonly Pair[]): Homography | null {
  try {
    return homographyOf(
      four.map((p) => p.from),
      four.map((p) => p.to),
    );
  } catch {
    return null;
  }
}

/**
 * The map with the least squared distances (Gauss-Newton on the eight numbers, from the linear solution), pairs that are
 * further off counting less (Huber).
 * @param huber px from which on a distance counts linearly
 */
export function leastSquares(pairs: readonly Pair[], huber = 1): Homography {
  const { shift, scale } = middleOf(pairs.map((p) => p.from));
  const other = middleOf(pairs.map((p) => p.to));
  const norm = ([x, y]: Point, m: { shift: Point; scale: number }): Point => [
    (x - m.shift[0]) / m.scale,
    (y - m.shift[1]) / m.scale,
  ];
  const plain = pairs.map((p) => ({ from: norm(p.from, { shift, scale }), to: norm(p.to, other) }));
  let h = linear(plain);
  for (let pass = 0; pass < 8; pass++) {
    const a = Array.from({ length: 8 }, () => new Array<number>(8).fill(0));
    const b = new Array<number>(8).fill(0);
    for (const { from, to } of plain) {
      const [x, y] = from;
      const w = h[6]! * x + h[7]! * y + 1;
      const u = (h[0]! * x + h[1]! * y + h[2]!) / w;
      const v = (h[3]! * x + h[4]! * y + h[5]!) / w;
      const [ru, rv] = [to[0] - u, to[1] - v];
      const off = Math.sqrt(ru * ru + rv * rv) * other.scale;
      const weight = off <= huber ? 1 : huber / off;
      const ju = [x / w, y / w, 1 / w, 0, 0, 0, (-u * x) / w, (-u * y) / w];
      const jv = [0, 0, 0, x / w, y / w, 1 / w, (-v * x) / w, (-v * y) / w];
      for (let i = 0; i < 8; i++) {
        b[i]! += weight * (ju[i]! * ru + jv[i]! * rv);
        for (let j = 0; j < 8; j++) a[i]![j]! += weight * (ju[i]! * ju[j]! + jv[i]! * jv[j]!);
      }
    }
    const step = solveSmall(a, b);
    h = [...h.slice(0, 8).map((v, k) => v + step[k]!), 1];
    if (Math.max(...step.map(Math.abs)) < 1e-10) break;
  }
  return denormalised(h, { shift, scale }, other);
}

/** Distances in the linear system weigh by the depth, which is near 1 here. */
function linear(pairs: readonly Pair[]): number[] {
  const a = Array.from({ length: 8 }, () => new Array<number>(8).fill(0));
  const b = new Array<number>(8).fill(0);
  const add = (row: readonly number[], value: number): void => {
    for (let i = 0; i < 8; i++) {
      b[i]! += row[i]! * value;
      for (let j = 0; j < 8; j++) a[i]![j]! += row[i]! * row[j]!;
    }
  };
  for (const {
    from: [x, y],
    to: [u, v],
  } of pairs) {
    add([x, y, 1, 0, 0, 0, -u * x, -u * y], u);
    add([0, 0, 0, x, y, 1, -v * x, -v * y], v);
  }
  return [...solveSmall(a, b), 1];
}

/** Middle and mean distance from it (Hartley, "In Defense of the Eight-Point Algorithm", IEEE TPAMI 19(6), 1997). */
function middleOf(points: readonly Point[]): { shift: Point; scale: number } {
  const n = points.length;
  const x = points.reduce((sum, p) => sum + p[0], 0) / n;
  const y = points.reduce((sum, p) => sum + p[1], 0) / n;
  const far = points.reduce((sum, p) => sum + Math.sqrt((p[0] - x) ** 2 + (p[1] - y) ** 2), 0) / n;
  return { shift: [x, y], scale: (far || 1) / Math.SQRT2 };
}

function denormalised(
  h: readonly number[],
  from: { shift: Point; scale: number },
  to: { shift: Point; scale: number },
): Homography {
  const s = 1 / from.scale;
  const inward = [s, 0, -from.shift[0] * s, 0, s, -from.shift[1] * s, 0, 0, 1];
  const outward = [to.scale, 0, to.shift[0], 0, to.scale, to.shift[1], 0, 0, 1];
  return chained(chained(inward, h), outward);
}

/** One map after another. */
export function chained(first: Homography, second: Homography): Homography {
  const out = new Array<number>(9).fill(0);
  for (let r = 0; r < 3; r++)
    for (let c = 0; c < 3; c++)
      for (let k = 0; k < 3; k++) out[3 * r + c]! += second[3 * r + k]! * first[3 * k + c]!;
  return out.map((v) => v / out[8]!);
}
