import { medianOf } from '../raster/median.js';
import type { Plane } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { reducedMask, smallLab } from './small-lab.js';

/** Longest side that is looked at, px. */
const LONGEST = 320;
/** Share of a side from the edge inwards in which a backdrop may end. */
const REACH = 0.4;
/** px of the reduced picture on either side of an end that are compared, and the CIELAB difference that makes one. */
const [BESIDE, LEAST] = [4, 6];
/** How far off its upright an end may run, and in what steps: px across a px along. */
const [LEAN, STEP] = [0.08, 0.01];
/** Share of an end's length in which it must be seen; of its first tenth, too, half. */
const SEEN = 0.8;
const [FIRST, HALF] = [0.1, 0.5];
/** CIELAB difference up to which something looks like the room or the backdrop. */
const LIKE = 9;
/** Rows of the reduced picture in which the backdrop is taken to be of one tone. */
const SECTION = 24;
/** px of the reduced picture by which what lies beyond is taken wider: the end itself is mixed, and often casts a line. */
const WIDER = 2;

/** Where a backdrop ends: x = from + lean y, for y from 0 to along, px of the reduced picture. */
interface End {
  readonly from: number;
  readonly lean: number;
  readonly along: number;
}

/**
 * What lies beyond a backdrop that ends inside the frame, such as the room beside a roll of paper: what a straight, nearly
 * upright end parts from the backdrop at the left or right, or a nearly level one above. An end is seen from the
 * upper (or left) edge on; below one at the side a floor may begin.
 * @param subject 1 = subject, a value a pixel; null where nothing stands out
 * @returns 1 = beyond, the subject not among it, a value a pixel; null when the backdrop reaches the edges
 */
export function beyondBackdrop(picture: Raster, subject: Uint8Array | null): Uint8Array | null {
  const { width, height } = picture;
  const { level, planes } = smallLab(picture, LONGEST);
  const shut = subject && reducedMask(subject, picture, level, planes[0]!);
  const out = new Uint8Array(width * height);
  for (const way of WAYS) {
    const { width: w, height: h } = planes[0]!;
    const [across, along] = way.turned ? [h, w] : [w, h];
    // Seen so that the edge in question is the left one.
    const from = (u: number, v: number): number => {
      const inward = way.far ? across - 1 - u : u;
      return way.turned ? inward * w + v : v * w + inward;
    };
    const end = endOf(planes, from, across, along, way.long);
    if (!end) continue;
    const holds = (u: number, v: number): boolean =>
      u < end.from + end.lean * v + WIDER && v <= end.along;
    const room = meanIn(planes, shut, from, (u, v) => holds(u + 2 * WIDER, v), across, along);
    const inside = besideEnd(planes, from, end, along);
    for (let y = 0, p = 0; y < height; y++)
      for (let x = 0; x < width; x++, p++) {
        const [u, v] = way.turned ? [y, x] : [way.far ? width - 1 - x : x, y];
        if (!holds(u / (1 << level), v / (1 << level))) continue;
        const small = Math.min(h - 1, y >> level) * w + Math.min(w - 1, x >> level);
        // An outline often takes in some of what is beside it: what looks like the room, like the backdrop, or like a mix of
        // both where they meet, is no subject.
        const there = inside[Math.min(inside.length - 1, Math.floor(v / (1 << level) / SECTION))]!;
        if (!subject?.[p] || offMix(planes, small, room, there) < LIKE) out[p] = 1;
      }
  }
  return out.includes(1) ? out : null;
}

/** Mean CIELAB of the places that belong to the room and not to the subject. */
function meanIn(
  planes: readonly Plane[],
  shut: Uint8Array | null,
  at: (u: number, v: number) => number,
  holds: (u: number, v: number) => boolean,
  across: number,
  along: number,
): number[] {
  const sums = planes.map(() => 0);
  let n = 0;
  for (let v = 0; v < along; v++)
    for (let u = 0; u < across && holds(u, v); u++) {
      const p = at(u, v);
      if (shut?.[p]) continue;
      planes.forEach(({ values }, c) => (sums[c]! += values[p]!));
      n++;
    }
  return sums.map((s) => s / Math.max(1, n));
}

/** CIELAB of the backdrop along its end, section by section: middle values, so that a thing before it does not count. */
function besideEnd(
  planes: readonly Plane[],
  at: (u: number, v: number) => number,
  { from, lean }: End,
  along: number,
): number[][] {
  return Array.from({ length: Math.ceil(along / SECTION) }, (_, s) => {
    const places: number[] = [];
    for (let v = s * SECTION; v < Math.min(along, (s + 1) * SECTION); v++)
      for (let k = WIDER + 1; k < WIDER + 7; k++)
        places.push(at(Math.max(0, Math.round(from + lean * v) + k), v));
    return planes.map(({ values }) => medianOf(places.map((p) => values[p]!)));
  });
}

/** CIELAB distance of a place from the nearest mix of two colours. */
function offMix(
  planes: readonly Plane[],
  p: number,
  one: readonly number[],
  other: readonly number[],
): number {
  const way = one.map((v, c) => other[c]! - v);
  const off = one.map((v, c) => planes[c]!.values[p]! - v);
  const dot = (a: readonly number[], b: readonly number[]): number =>
    a.reduce((sum, v, c) => sum + v * b[c]!, 0);
  const share = Math.min(1, Math.max(0, dot(off, way) / (dot(way, way) || 1)));
  return Math.sqrt(off.reduce((sum, v, c) => sum + (v - share * way[c]!) ** 2, 0));
}

/** Left, right and above, and the share of the side that an end must run along there: a floor hides it below, nothing does above. */
const WAYS = [
  { turned: false, far: false, long: 0.45 },
  { turned: false, far: true, long: 0.45 },
  { turned: true, far: false, long: 0.9 },
] as const;

/** The end that is seen best, counted from the edge u = 0. */
function endOf(
  planes: readonly Plane[],
  at: (u: number, v: number) => number,
  across: number,
  along: number,
  long: number,
): End | null {
  const reach = Math.floor(REACH * across);
  const steps = stepsOf(planes, at, reach + Math.ceil(LEAN * along), along);
  const stride = steps.length / along;
  const first = Math.floor(FIRST * along);
  let best: (End & { readonly score: number }) | null = null;
  for (let lean = -LEAN; lean <= LEAN + 1e-9; lean += STEP)
    for (let from = BESIDE; from < reach; from++) {
      // As far along as it is seen: what is seen counts for it, what is not four times against it.
      let [score, most, end, strong] = [0, 0, 0, 0];
      let strongest = 0;
      for (let v = 0; v < along; v++) {
        const u = Math.round(from + lean * v);
        const step = u >= 0 && u < stride ? steps[v * stride + u]! : 0;
        score += step >= LEAST ? 1 - SEEN : -SEEN;
        if (v === first && score < (HALF - SEEN) * first) break;
        strong += Math.min(step, 4 * LEAST);
        if (score > most) [most, end, strongest] = [score, v, strong];
      }
      const worth = most * strongest;
      if (end >= long * along && worth > (best?.score ?? 0))
        best = { from, lean, along: end > 0.9 * along ? along : end, score: worth };
    }
  return best;
}

/** CIELAB difference of the means before and after every place. */
function stepsOf(
  planes: readonly Plane[],
  at: (u: number, v: number) => number,
  reach: number,
  along: number,
): Float32Array {
  const steps = new Float32Array(reach * along);
  for (let v = 0; v < along; v++)
    for (let u = 0; u < reach; u++) {
      if (u < BESIDE) continue;
      let sum = 0;
      for (const { values } of planes) {
        let [before, after] = [0, 0];
        for (let k = 1; k <= BESIDE; k++) {
          before += values[at(u - k, v)]!;
          after += values[at(u + k - 1, v)]!;
        }
        sum += ((after - before) / BESIDE) ** 2;
      }
      steps[v * reach + u] = Math.sqrt(sum);
    }
  return steps;
}
