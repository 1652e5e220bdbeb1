import type { Ridges } from './ridges.js';

/** A line followed point by point; coordinates in the plane it was found in. */
export interface Curve {
  readonly xs: Float32Array;
  readonly ys: Float32Array;
  readonly polarity: 1 | -1;
  /** Mean strength of its crest points. */
  readonly strength: number;
}

/** How crest points are linked. */
export interface LinkOptions {
  /** Least strength a line starts from. */
  readonly start: number;
  /** Shortest line kept, points. */
  readonly shortest: number;
  /** Largest gap that two ends facing each other are joined across, px. */
  readonly gap: number;
  /** Lines of one polarity alone. @default both */
  readonly only?: 1 | -1;
}

/** Greatest turn from point to point, as a cosine. */
const TURN = 0.75;

/**
 * Follows crests from their strongest points both ways, then joins ends that face each other.
 * @returns curves, strongest start first
 */
export function linked(ridges: Ridges, options: LinkOptions): Curve[] {
  const { count, strength } = ridges;
  const seeds: number[] = [];
  for (let k = 0; k < count; k++) {
    const s = strength[k]!;
    if (Math.abs(s) >= options.start && s * (options.only ?? s) > 0) seeds.push(k);
  }
  const order = Int32Array.from(seeds).sort(
    (a, b) => Math.abs(strength[b]!) - Math.abs(strength[a]!) || a - b,
  );
  const used = new Uint8Array(count);
  const curves: Curve[] = [];
  for (const seed of order) {
    if (used[seed]) continue;
    used[seed] = 1;
    const ahead = followed(ridges, used, seed, 1);
    const behind = followed(ridges, used, seed, -1);
    const points = [...behind.reverse(), seed, ...ahead];
    if (points.length < Math.max(4, options.shortest / 4)) continue;
    curves.push(curveOf(ridges, points));
  }
  return joined(curves, options.gap).filter(({ xs }) => xs.length >= options.shortest);
}

function curveOf({ x, y, strength }: Ridges, points: readonly number[]): Curve {
  let sum = 0;
  for (const k of points) sum += strength[k]!;
  return {
    xs: Float32Array.from(points, (k) => x[k]!),
    ys: Float32Array.from(points, (k) => y[k]!),
    polarity: sum > 0 ? 1 : -1,
    strength: Math.abs(sum) / points.length,
  };
}

/** Numbers of the points reached from a seed along one direction of its line. */
function followed(ridges: Ridges, used: Uint8Array, seed: number, way: 1 | -1): number[] {
  const { width, height, at, x, y, nx, ny, strength } = ridges;
  const found: number[] = [];
  let k = seed;
  let tx = -way * ny[k]!;
  let ty = way * nx[k]!;
  const sign = Math.sign(strength[seed]!);
  for (;;) {
    const px = Math.round(x[k]!);
    const py = Math.round(y[k]!);
    let best = -1;
    let cost = Infinity;
    for (let dy = -2; dy <= 2; dy++)
      for (let dx = -2; dx <= 2; dx++) {
        const qx = px + dx;
        const qy = py + dy;
        if (qx < 0 || qy < 0 || qx >= width || qy >= height) continue;
        const q = at[qy * width + qx]! - 1;
        if (q < 0 || used[q] || Math.sign(strength[q]!) !== sign) continue;
        const [vx, vy] = [x[q]! - x[k]!, y[q]! - y[k]!];
        const d = Math.sqrt(vx * vx + vy * vy);
        const on = (vx * tx + vy * ty) / (d || 1);
        if (d > 2.6 || on < TURN) continue;
        const along = Math.abs(-ny[q]! * tx + nx[q]! * ty);
        const c = d + 2 * (1 - on) + 2 * (1 - along);
        if (along > TURN && c < cost) {
          cost = c;
          best = q;
        }
      }
    if (best < 0) return found;
    const [vx, vy] = [x[best]! - x[k]!, y[best]! - y[k]!];
    // What lies beside the way is the same crest seen twice.
    markBeside(ridges, used, px, py, best);
    used[best] = 1;
    found.push(best);
    k = best;
    let [ax, ay] = [-ny[k]!, nx[k]!];
    if (ax * vx + ay * vy < 0) [ax, ay] = [-ax, -ay];
    // Directions of single points shake: a running mean is steadier.
    tx = 0.6 * tx + 0.4 * ax;
    ty = 0.6 * ty + 0.4 * ay;
    const length = Math.sqrt(tx * tx + ty * ty) || 1;
    tx /= length;
    ty /= length;
  }
}

function markBeside(
  { width, at }: Ridges,
  used: Uint8Array,
  px: number,
  py: number,
  best: number,
): void {
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) {
      const q = at[(py + dy) * width + px + dx];
      if (q !== undefined && q > 0 && q - 1 !== best) used[q - 1] = 1;
    }
}

/** Direction a curve leaves by at one of its ends, from its last points. */
function leaving({ xs, ys }: Curve, end: 0 | 1): [number, number] {
  const n = xs.length;
  const reach = Math.min(n - 1, 10);
  const [a, b] = end ? [n - 1 - reach, n - 1] : [reach, 0];
  const [dx, dy] = [xs[b]! - xs[a]!, ys[b]! - ys[a]!];
  const d = Math.sqrt(dx * dx + dy * dy) || 1;
  return [dx / d, dy / d];
}

const FACING = 0.85;

/** Joins curves end to end where they face each other across a gap, nearest first. */
function joined(curves: readonly Curve[], gap: number): Curve[] {
  if (gap <= 0 || curves.length < 2) return [...curves];
  const cells = new Map<number, number[]>();
  const size = Math.max(4, gap);
  const key = (x: number, y: number): number => Math.floor(y / size) * 65536 + Math.floor(x / size);
  const ends = curves.flatMap((curve, c) =>
    ([0, 1] as const).map((end) => {
      const i = end ? curve.xs.length - 1 : 0;
      return { c, end, x: curve.xs[i]!, y: curve.ys[i]!, way: leaving(curve, end) };
    }),
  );
  ends.forEach((e, k) => {
    const list = cells.get(key(e.x, e.y));
    if (list) list.push(k);
    else cells.set(key(e.x, e.y), [k]);
  });
  const pairs: { a: number; b: number; cost: number }[] = [];
  ends.forEach((e, a) => {
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++)
        for (const b of cells.get(key(e.x + dx * size, e.y + dy * size)) ?? []) {
          const f = ends[b]!;
          if (b <= a || f.c === e.c || curves[e.c]!.polarity !== curves[f.c]!.polarity) continue;
          const [vx, vy] = [f.x - e.x, f.y - e.y];
          const d = Math.sqrt(vx * vx + vy * vy);
          const short = Math.min(curves[e.c]!.xs.length, curves[f.c]!.xs.length);
          if (d > gap || d > 1.2 * short + 3) continue;
          const out = d < 1.5 ? 1 : (vx * e.way[0] + vy * e.way[1]) / d;
          const back = d < 1.5 ? 1 : -(vx * f.way[0] + vy * f.way[1]) / d;
          const facing = -(e.way[0] * f.way[0] + e.way[1] * f.way[1]);
          if (out < FACING || back < FACING || facing < FACING) continue;
          const [s, t] = [curves[e.c]!.strength, curves[f.c]!.strength];
          const like = Math.min(s, t) / Math.max(s, t);
          if (like < 0.3) continue;
          pairs.push({ a, b, cost: d + 20 * (3 - out - back - facing) + 6 * (1 - like) });
        }
  });
  pairs.sort((p, q) => p.cost - q.cost || p.a - q.a || p.b - q.b);
  const mate = new Int32Array(ends.length).fill(-1);
  for (const { a, b } of pairs) {
    if (mate[a]! >= 0 || mate[b]! >= 0) continue;
    mate[a] = b;
    mate[b] = a;
  }
  return strung(curves, mate);
}

/** Strings curves together along their mates; end 2c is the first of curve c, 2c+1 its last. */
function strung(curves: readonly Curve[], mate: Int32Array): Curve[] {
  const done = new Uint8Array(curves.length);
  const out: Curve[] = [];
  const gather = (first: number): void => {
    const xs: number[] = [];
    const ys: number[] = [];
    let sum = 0;
    let end = first;
    for (;;) {
      const c = end >> 1;
      if (done[c]) break;
      done[c] = 1;
      const curve = curves[c]!;
      const n = curve.xs.length;
      for (let i = 0; i < n; i++) {
        const k = end & 1 ? n - 1 - i : i;
        xs.push(curve.xs[k]!);
        ys.push(curve.ys[k]!);
      }
      sum += n * curve.strength;
      const next = mate[end ^ 1]!;
      if (next < 0) break;
      end = next;
    }
    out.push({
      xs: Float32Array.from(xs),
      ys: Float32Array.from(ys),
      polarity: curves[first >> 1]!.polarity,
      strength: sum / xs.length,
    });
  };
  for (let e = 0; e < 2 * curves.length; e++) if (mate[e]! < 0 && !done[e >> 1]) gather(e);
  for (let c = 0; c < curves.length; c++) if (!done[c]) gather(2 * c);
  return out;
}
