import { seededRandom } from '../random/random.js';
import type { Homography } from '../shape/homography.js';
import { homographyOf } from '../shape/homography.js';
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
export function offOf(m: Homography, { from, to }: Pair): number {
  // Written out: it is asked of every pair at every try.
  const w = m[6]! * from[0] + m[7]! * from[1] + m[8]!;
  const x = (m[0]! * from[0] + m[1]! * from[1] + m[2]!) / w - to[0];
  const y = (m[3]! * from[0] + m[4]! * from[1] + m[5]!) / w - to[1];
  return Math.sqrt(x * x + y * y);
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
  const ju = new Float64Array(UNKNOWN);
  const jv = new Float64Array(UNKNOWN);
  for (let pass = 0; pass < 8; pass++) {
    const system = emptySystem();
    for (const { from, to } of plain) {
      const [x, y] = from;
      const w = h[6]! * x + h[7]! * y + 1;
      const u = (h[0]! * x + h[1]! * y + h[2]!) / w;
      const v = (h[3]! * x + h[4]! * y + h[5]!) / w;
      const [ru, rv] = [to[0] - u, to[1] - v];
      const off = Math.sqrt(ru * ru + rv * rv) * other.scale;
      const weight = off <= huber ? 1 : huber / off;
      ju[0] = jv[3] = x / w;
      ju[1] = jv[4] = y / w;
      ju[2] = jv[5] = 1 / w;
      ju[6] = (-u * x) / w;
      ju[7] = (-u * y) / w;
      jv[6] = (-v * x) / w;
      jv[7] = (-v * y) / w;
      add(system, ju, ru, weight);
      add(system, jv, rv, weight);
    }
    const step = solved(system);
    h = [...h.slice(0, 8).map((v, k) => v + step[k]!), 1];
    if (Math.max(...step.map(Math.abs)) < 1e-10) break;
  }
  return denormalised(h, { shift, scale }, other);
}

/** Distances in the linear system weigh by the depth, which is near 1 here. */
function linear(pairs: readonly Pair[]): number[] {
  const system = emptySystem();
  const row = new Float64Array(UNKNOWN);
  for (const {
    from: [x, y],
    to: [u, v],
  } of pairs) {
    row.set([x, y, 1, 0, 0, 0, -u * x, -u * y]);
    add(system, row, u, 1);
    row.set([0, 0, 0, x, y, 1, -v * x, -v * y]);
    add(system, row, v, 1);
  }
  return [...solved(system), 1];
}

/** A map's numbers but the last, which is 1. */
const UNKNOWN = 8;

/** Normal equations: the products of rows, above the diagonal, and with what they should come to. */
interface System {
  readonly products: Float64Array;
  readonly sums: Float64Array;
}

function emptySystem(): System {
  return { products: new Float64Array(UNKNOWN * UNKNOWN), sums: new Float64Array(UNKNOWN) };
}

function add({ products, sums }: System, row: Float64Array, value: number, weight: number): void {
  for (let i = 0; i < UNKNOWN; i++) {
    const by = weight * row[i]!;
    if (by === 0) continue;
    sums[i]! += by * value;
    for (let j = i; j < UNKNOWN; j++) products[i * UNKNOWN + j]! += by * row[j]!;
  }
}

function solved({ products, sums }: System): number[] {
  const at = (i: number, j: number): number => products[Math.min(i, j) * UNKNOWN + Math.max(i, j)]!;
  const rows = Array.from({ length: UNKNOWN }, (_, i) =>
    Array.from({ length: UNKNOWN }, (_, j) => at(i, j)),
  );
  return solveSmall(rows, Array.from(sums));
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
