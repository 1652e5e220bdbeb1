import type { GuideLine } from '../fill/guides.js';
import type { Raster } from '../raster/raster.js';
import type { Point } from '../shape/site.js';
import { greyOf } from './grey.js';

/** An edge that runs into the site. */
interface Entry {
  readonly at: Point;
  /** Unit vector along the edge, into the site. */
  readonly inward: Point;
  readonly strength: number;
  /** Mean luma left and right of the way in, 0..255. */
  readonly sides: readonly [number, number];
}

const MOST_GUIDES = 8;
/** Least step of luma, codes, between an edge's two sides. */
const LEAST_STEP = 14;
/** How far outside the site edges are looked for, and half the window they are measured in, px. */
const OUT = 4;
const HALF = 5;
/** Greatest turn, as a cosine, between an edge and the straight way to its partner. */
const STRAIGHT = 0.9;
const MOST_UNLIKE = 45;

/**
 * Finds the edges that enter a site and pairs those that go on in one another, straight or gently curved.
 * @param hole 1 = site, one value a pixel of the window
 * @returns guides in the window's coordinates, clearest first
 */
export function findGuides(window: Raster, hole: Uint8Array): GuideLine[] {
  const entries = entriesOf(window, hole);
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
  guides.sort((p, q) => q.strength - p.strength);
  return guides.slice(0, MOST_GUIDES).map(({ line }) => line);
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

/** Through both entries, bent so that it leaves each along its own direction. */
function bridge(a: Entry, b: Entry): GuideLine {
  const reach = Math.hypot(b.at[0] - a.at[0], b.at[1] - a.at[1]) / 3;
  const along = ({ at, inward }: Entry, d: number): Point => [
    Math.round(10 * (at[0] + d * inward[0])) / 10,
    Math.round(10 * (at[1] + d * inward[1])) / 10,
  ];
  const middle: Point = [
    Math.round(5 * (along(a, reach)[0] + along(b, reach)[0])) / 10,
    Math.round(5 * (along(a, reach)[1] + along(b, reach)[1])) / 10,
  ];
  return { points: [along(a, -6), middle, along(b, -6)] };
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
  const left: Point = [along[1], -along[0]];
  const side = (way: 1 | -1): number => {
    let sum = 0;
    for (let d = 2; d <= HALF; d++)
      sum += grey[Math.round(y + way * d * left[1]) * width + Math.round(x + way * d * left[0])]!;
    return sum / (HALF - 1);
  };
  const sides = [side(1), side(-1)] as const;
  const strength = Math.abs(sides[0] - sides[1]);
  return strength < LEAST_STEP ? null : { at: [x, y], inward: along, strength, sides };
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
