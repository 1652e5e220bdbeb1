import type { GuideLine } from '../fill/guides.js';
import type { Raster } from '../raster/raster.js';
import type { Point } from '../shape/site.js';
import { greyOf } from '../raster/grey.js';

/** An edge that runs into the site. */
interface Entry {
  readonly at: Point;
  /** Unit vector along the edge, into the site. */
  readonly inward: Point;
  readonly strength: number;
  /** Mean luma left and right of the way in, 0..255. */
  readonly sides: readonly [number, number];
  /** Clear and straight for a long way: it needs nobody to confirm it. */
  readonly sure: boolean;
}

const MOST_GUIDES = 8;
/** Least step of luma, codes, between an edge's two sides. */
const LEAST_STEP = 14;
const SURE_STEP = 40;
/** How far outside the site edges are looked for, and half the window they are measured in, px. */
const OUT = 4;
const HALF = 5;
/** Greatest turn, as a cosine, between an edge and the straight way to its partner. */
const STRAIGHT = 0.9;
const MOST_UNLIKE = 45;

/**
 * Finds the edges that enter a site and pairs those that go on in one another, straight or gently curved.
 * @param hole 1 = site, one value a pixel of the window
 * @param sureOnly only edges that are clear and straight for a long way
 * @returns guides in the window's coordinates, clearest first
 */
export function findGuides(window: Raster, hole: Uint8Array, sureOnly = false): GuideLine[] {
  const entries = entriesOf(window, hole).filter(({ sure }) => sure || !sureOnly);
  const pairs: { a: number; b: number; cost: number }[] = [];
  for (let a = 0; a < entries.length; a++)
    for (let b = a + 1; b < entries.length; b++) {
      const cost = costOf(entries[a]!, entries[b]!);
      if (cost < 1) pairs.push({ a, b, cost });
    }
  pairs.sort((p, q) => p.cost - q.cost);
  const taken = new Set<number>();
  const guides: { line: GuideLine; strength: number }[] = [];
  for (const { a, b } of pairs) {
    if (taken.has(a) || taken.has(b)) continue;
    taken.add(a);
    taken.add(b);
    const [from, to] = [entries[a]!, entries[b]!];
    guides.push({ line: bridge(from, to), strength: Math.min(from.strength, to.strength) });
  }
  const left = entries.filter((_, i) => !taken.has(i));
  for (const corner of cornersOf(left, hole, window.width)) guides.push(corner);
  guides.sort((p, q) => q.strength - p.strength);
  return guides.slice(0, MOST_GUIDES).map(({ line }) => line);
}

/** Edges that go on in no other but meet one inside the site: the corner of a thing, a frame, a print. */
function cornersOf(
  entries: readonly Entry[],
  hole: Uint8Array,
  width: number,
): { line: GuideLine; strength: number }[] {
  const found: { line: GuideLine; strength: number; a: Entry; b: Entry; reach: number }[] = [];
  for (let i = 0; i < entries.length; i++)
    for (let j = i + 1; j < entries.length; j++) {
      const [a, b] = [entries[i]!, entries[j]!];
      const meet = meeting(a, b);
      if (!meet || !hole[Math.round(meet.at[1]) * width + Math.round(meet.at[0])]) continue;
      // Round the corner the same thing lies on the same side all the way.
      const unlike =
        Math.abs(a.sides[0] - b.sides[1]) / MOST_UNLIKE +
        Math.abs(a.sides[1] - b.sides[0]) / MOST_UNLIKE;
      if (unlike > 1) continue;
      const near = ({ inward }: Entry): Point => [
        meet.at[0] - 1.5 * inward[0],
        meet.at[1] - 1.5 * inward[1],
      ];
      const start = ({ at, inward }: Entry): Point => [
        at[0] - 6 * inward[0],
        at[1] - 6 * inward[1],
      ];
      const points = [start(a), near(a), meet.at, near(b), start(b)].map(([x, y]): Point => [
        Math.round(10 * x) / 10,
        Math.round(10 * y) / 10,
      ]);
      const strength = Math.min(a.strength, b.strength);
      found.push({ line: { points }, strength, a, b, reach: meet.reach });
    }
  found.sort((p, q) => p.reach - q.reach);
  const taken = new Set<Entry>();
  return found.filter(({ a, b }) => {
    if (taken.has(a) || taken.has(b)) return false;
    taken.add(a);
    taken.add(b);
    return true;
  });
}

/** Where two edges, carried on straight, meet ahead of both; null where they hardly differ in direction. */
function meeting(a: Entry, b: Entry): { at: Point; reach: number } | null {
  const cross = a.inward[0] * b.inward[1] - a.inward[1] * b.inward[0];
  if (Math.abs(cross) < 0.5) return null;
  const [dx, dy] = [b.at[0] - a.at[0], b.at[1] - a.at[1]];
  const s = (dx * b.inward[1] - dy * b.inward[0]) / cross;
  const t = (dx * a.inward[1] - dy * a.inward[0]) / cross;
  if (s < OUT || t < OUT) return null;
  return { at: [a.at[0] + s * a.inward[0], a.at[1] + s * a.inward[1]], reach: s + t };
}

/** How badly two edges go together: bends, and sides unlike each other; 1 and more is no pair. */
function costOf(a: Entry, b: Entry): number {
  const way: Point = [b.at[0] - a.at[0], b.at[1] - a.at[1]];
  const length = Math.hypot(...way);
  if (length < 4) return 1;
  const out = (a.inward[0] * way[0] + a.inward[1] * way[1]) / length;
  const back = -(b.inward[0] * way[0] + b.inward[1] * way[1]) / length;
  if (out < STRAIGHT || back < STRAIGHT) return 1;
  // Looking along the same line, the other edge's left is this one's right.
  const unlike =
    Math.abs(a.sides[0] - b.sides[1]) / MOST_UNLIKE +
    Math.abs(a.sides[1] - b.sides[0]) / MOST_UNLIKE;
  return (2 - out - back) / (2 * (1 - STRAIGHT)) / 2 + unlike / 4;
}

/** Bends less than this, as a cosine, are held for errors of measurement: the guide is straight. */
const NO_BEND = 0.985;

/** Through both entries; where they clearly bend, so that it leaves each along its own direction. */
function bridge(a: Entry, b: Entry): GuideLine {
  const way: Point = [b.at[0] - a.at[0], b.at[1] - a.at[1]];
  const length = Math.hypot(...way);
  const out = (a.inward[0] * way[0] + a.inward[1] * way[1]) / length;
  const back = -(b.inward[0] * way[0] + b.inward[1] * way[1]) / length;
  const bent = out < NO_BEND || back < NO_BEND ? length / 3 : 0;
  const along = ({ at, inward }: Entry, d: number): Point => [
    at[0] + d * inward[0],
    at[1] + d * inward[1],
  ];
  const [p, q] = [along(a, bent), along(b, bent)];
  const middle: Point = [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
  return {
    points: [along(a, -6), middle, along(b, -6)].map(([x, y]): Point => [
      Math.round(10 * x) / 10,
      Math.round(10 * y) / 10,
    ]),
  };
}

function entriesOf(window: Raster, hole: Uint8Array): Entry[] {
  const { width, height } = window;
  const grey = greyOf(window);
  const found: Entry[] = [];
  const margin = OUT + HALF;
  for (const [p, ox, oy] of rimOf(hole, width, height)) {
    const x = Math.round((p % width) + OUT * ox);
    const y = Math.round(Math.floor(p / width) + OUT * oy);
    if (x < margin || y < margin || x >= width - margin || y >= height - margin) continue;
    const entry = edgeAt(grey, hole, width, x, y, [-ox, -oy]);
    if (entry) found.push(entry);
  }
  found.sort((a, b) => b.strength - a.strength);
  const kept: Entry[] = [];
  for (const entry of found)
    if (kept.every((k) => Math.hypot(k.at[0] - entry.at[0], k.at[1] - entry.at[1]) > 7))
      kept.push(entry);
  return kept.slice(0, 24);
}

/** The edge through a point by the structure tensor around it (Forstner and Gulch 1987); null where there is none. */
function edgeAt(
  grey: Float32Array,
  hole: Uint8Array,
  width: number,
  x: number,
  y: number,
  inwards: Point,
): Entry | null {
  let xx = 0;
  let yy = 0;
  let xy = 0;
  for (let b = y - HALF + 1; b < y + HALF; b++)
    for (let a = x - HALF + 1; a < x + HALF; a++) {
      const p = b * width + a;
      if (hole[p] || hole[p + 1] || hole[p - 1] || hole[p + width] || hole[p - width]) continue;
      const gx = (grey[p + 1]! - grey[p - 1]!) / 2;
      const gy = (grey[p + width]! - grey[p - width]!) / 2;
      xx += gx * gx;
      yy += gy * gy;
      xy += gx * gy;
    }
  const spread = Math.hypot(xx - yy, 2 * xy);
  if (spread < 0.6 * (xx + yy) || xx + yy < 1) return null;
  const across = Math.atan2(2 * xy, xx - yy) / 2;
  let along: Point = [-Math.sin(across), Math.cos(across)];
  const into = along[0] * inwards[0] + along[1] * inwards[1];
  if (into < 0) along = [-along[0], -along[1]];
  if (Math.abs(into) < 0.35) return null;
  const back = followed(grey, hole, width, [x, y], along);
  along = back.way;
  const left: Point = [along[1], -along[0]];
  const side = (way: 1 | -1): number => {
    let sum = 0;
    for (let d = 2; d <= HALF; d++)
      sum += grey[Math.round(y + way * d * left[1]) * width + Math.round(x + way * d * left[0])]!;
    return sum / (HALF - 1);
  };
  const sides = [side(1), side(-1)] as const;
  const strength = Math.abs(sides[0] - sides[1]);
  const sure = back.straight && strength >= SURE_STEP;
  return strength < LEAST_STEP ? null : { at: back.at, inward: along, strength, sides, sure };
}

/** How far an edge is followed back to learn its direction, and how far off each step may lie, px. */
const FOLLOW = { far: 48, step: 2, astray: 3 } as const;
/** Root mean square distance from its line up to which an edge is straight, px. */
const STRAY = 0.8;

/** An edge's direction, from a line through where it is steepest along its way out of the site. */
function followed(
  grey: Float32Array,
  hole: Uint8Array,
  width: number,
  at: Point,
  inward: Point,
): { way: Point; at: Point; straight: boolean } {
  const height = grey.length / width;
  const steepness = (px: number, py: number, nx: number, ny: number): number => {
    const ax = Math.round(px + 1.5 * nx);
    const ay = Math.round(py + 1.5 * ny);
    const bx = Math.round(px - 1.5 * nx);
    const by = Math.round(py - 1.5 * ny);
    const out = (u: number, v: number): boolean =>
      u < 0 || v < 0 || u >= width || v >= height || hole[v * width + u] === 1;
    if (out(ax, ay) || out(bx, by)) return -1;
    return Math.abs(grey[ay * width + ax]! - grey[by * width + bx]!);
  };
  let way = inward;
  let last = at;
  let first = 0;
  const line: Point[] = [];
  for (let d = FOLLOW.step; d <= FOLLOW.far; d += FOLLOW.step) {
    const [nx, ny] = [way[1], -way[0]];
    const px = last[0] - FOLLOW.step * way[0];
    const py = last[1] - FOLLOW.step * way[1];
    let best = -1;
    let to: Point = [px, py];
    for (let k = -2 * FOLLOW.astray; k <= 2 * FOLLOW.astray; k++) {
      const s = steepness(px + (k / 2) * nx, py + (k / 2) * ny, nx, ny) - 0.4 * Math.abs(k);
      if (s > best) {
        best = s;
        to = [px + (k / 2) * nx, py + (k / 2) * ny];
      }
    }
    if (d === FOLLOW.step) first = best;
    if (best < Math.max(5, 0.4 * first)) break;
    line.push(to);
    last = to;
    if (line.length > 4) way = directionOf(line, inward);
  }
  if (line.length <= 4) return { way: inward, at, straight: false };
  way = directionOf(line, inward);
  // The line is fitted to all of the way back: the point is moved onto it.
  const mx = line.reduce((sum, [px]) => sum + px, 0) / line.length;
  const my = line.reduce((sum, [, py]) => sum + py, 0) / line.length;
  const off = (p: Point): number => (p[0] - mx) * way[1] - (p[1] - my) * way[0];
  const astray = Math.sqrt(line.reduce((sum, p) => sum + off(p) ** 2, 0) / line.length);
  const straight = line.length >= FOLLOW.far / FOLLOW.step && astray < STRAY;
  return { way, at: [at[0] - off(at) * way[1], at[1] + off(at) * way[0]], straight };
}

/** Direction of the line of least squares through points, pointing the way of `like`. */
function directionOf(line: readonly Point[], like: Point): Point {
  const n = line.length;
  const mx = line.reduce((sum, [x]) => sum + x, 0) / n;
  const my = line.reduce((sum, [, y]) => sum + y, 0) / n;
  let [xx, yy, xy] = [0, 0, 0];
  for (const [x, y] of line) {
    xx += (x - mx) ** 2;
    yy += (y - my) ** 2;
    xy += (x - mx) * (y - my);
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const found: Point = [Math.cos(angle), Math.sin(angle)];
  return found[0] * like[0] + found[1] * like[1] < 0 ? [-found[0], -found[1]] : found;
}

/** Border pixels of the site with the direction that leads out of it. */
function rimOf(hole: Uint8Array, width: number, height: number): [number, number, number][] {
  const rim: [number, number, number][] = [];
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const p = y * width + x;
      if (!hole[p]) continue;
      if (hole[p - 1] && hole[p + 1] && hole[p - width] && hole[p + width]) continue;
      let ox = 0;
      let oy = 0;
      for (let b = Math.max(0, y - 3); b <= Math.min(height - 1, y + 3); b++)
        for (let a = Math.max(0, x - 3); a <= Math.min(width - 1, x + 3); a++)
          if (!hole[b * width + a]) {
            ox += a - x;
            oy += b - y;
          }
      const length = Math.hypot(ox, oy);
      if (length > 0) rim.push([p, ox / length, oy / length]);
    }
  return rim;
}
