import type { GuideLine } from '../fill/guides.js';
import type { Raster } from '../raster/raster.js';
import { deepestOf } from '../shape/depth.js';
import type { Point } from '../shape/site.js';
import { FOLLOWED } from './edges.js';
import type { Entry } from './entries.js';
import { entriesOf, OUT } from './entries.js';

const MOST_GUIDES = 8;
/** Greatest turn, as a cosine, between an edge and the straight way to its partner. */
const STRAIGHT = 0.9;
const MOST_UNLIKE = 45;
/** Up to this depth, px, the fill carries edges on by itself: guides were measured to change nothing but the time it takes. */
const SHALLOW = 16;

/**
 * Finds the edges that enter a site and pairs those that go on in one another, straight or gently curved; clear ones that meet
 * no other are carried on where the site reaches the window's border.
 * @param hole 1 = site, one value a pixel of the window
 * @param sureOnly only edges that are clear and straight for a long way, and only across what is deep enough to need them
 * @returns guides in the window's coordinates, clearest first
 */
export function findGuides(window: Raster, hole: Uint8Array, sureOnly = false): GuideLine[] {
  if (sureOnly && deepestOf(hole, window.width, window.height) <= SHALLOW) return [];
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
  const corners = cornersOf(left, hole, window.width);
  const ends = new Set(corners.flatMap(({ a, b }) => [a, b]));
  guides.push(...corners);
  for (const entry of left) {
    const line = entry.sure && !ends.has(entry) && onwardOf(entry, hole, window);
    if (line) guides.push({ line, strength: entry.strength });
  }
  guides.sort((p, q) => q.strength - p.strength);
  return guides.slice(0, MOST_GUIDES).map(({ line }) => line);
}

/**
 * A clear edge carried on straight to the window's border, or along its arc, where that whole side is missing: through part
 * of a side a thing has gone, and what stood behind it may have ended anywhere. Null where the site ends before.
 */
function onwardOf(entry: Entry, hole: Uint8Array, { width, height }: Raster): GuideLine | null {
  for (let d = OUT + 2; ; d++) {
    const [x, y] = onward(entry, d);
    const [u, v] = [Math.round(x), Math.round(y)];
    const out = u < 0 || u >= width ? 'column' : v < 0 || v >= height ? 'row' : null;
    if (!out && !hole[v * width + u]) return null;
    if (!out) continue;
    const missing =
      out === 'column'
        ? Array.from({ length: height }, (_, k) => hole[k * width + (u < 0 ? 0 : width - 1)])
        : Array.from({ length: width }, (_, k) => hole[(v < 0 ? 0 : height - 1) * width + k]);
    if (!missing.every(Boolean)) return null;
    const isBent = Math.abs(entry.bend) > BENT;
    return isBent
      ? arcOf(entry, Math.min(d, TURN / Math.abs(entry.bend)))
      : { points: [onward(entry, -6), onward(entry, d / 2), onward(entry, d)] };
  }
}

/** Bend from which on an edge is followed as an arc, radians a px: straight things are mostly measured to bend by less than 0.003. */
const BENT = 0.005;
/** Turn, radians, after which nothing says that an edge goes on bending so. */
const TURN = 0.5;
/** px between the points of an arc. */
const ARC_STEP = 12;

/** An edge carried on so far with the bend that it has. */
function arcOf({ at, inward, bend }: Entry, reach: number): GuideLine {
  const points: Point[] = [];
  for (let d = -6; d <= reach; d += ARC_STEP) {
    // Of the way back that it was followed its place and direction are those of a straight line.
    const aside = bend * (FOLLOWED ** 2 / 12 + (FOLLOWED * d) / 2 + (d * d) / 2);
    points.push([
      at[0] + d * inward[0] + aside * inward[1],
      at[1] + d * inward[1] - aside * inward[0],
    ]);
  }
  return tenths(points);
}

/** Edges that go on in no other but meet one inside the site: the corner of a thing, a frame, a print. */
function cornersOf(
  entries: readonly Entry[],
  hole: Uint8Array,
  width: number,
): { line: GuideLine; strength: number; a: Entry; b: Entry }[] {
  const found: { line: GuideLine; strength: number; a: Entry; b: Entry; reach: number }[] = [];
  for (let i = 0; i < entries.length; i++)
    for (let j = i + 1; j < entries.length; j++) {
      const [a, b] = [entries[i]!, entries[j]!];
      const meet = meeting(a, b, 0.5);
      if (!meet || !hole[Math.round(meet.at[1]) * width + Math.round(meet.at[0])]) continue;
      // What lies in shadow at one end of a corner only is more often another thing.
      if (unlikeness(a, b, false) > 1) continue;
      const strength = Math.min(a.strength, b.strength);
      found.push({ line: roundCorner(a, b, meet.at), strength, a, b, reach: meet.reach });
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

/** Where two edges, carried on straight, meet ahead of both; null where their directions differ by no more than a sine. */
function meeting(a: Entry, b: Entry, least: number): { at: Point; reach: number } | null {
  const cross = a.inward[0] * b.inward[1] - a.inward[1] * b.inward[0];
  if (Math.abs(cross) <= least) return null;
  const [dx, dy] = [b.at[0] - a.at[0], b.at[1] - a.at[1]];
  const s = (dx * b.inward[1] - dy * b.inward[0]) / cross;
  const t = (dx * a.inward[1] - dy * a.inward[0]) / cross;
  if (s < OUT || t < OUT) return null;
  return { at: [a.at[0] + s * a.inward[0], a.at[1] + s * a.inward[1]], reach: s + t };
}

/** A side that differs by no more is the same thing in the same light; then the other may lie in shadow at one end. */
const SAME = 10;
/** As dark as shadows make things, as a share. */
const SHADOW = 0.4;

/**
 * How unlike the sides of two edges are, looking along the same line: 1 and more is no line of one thing. The other edge's
 * left is this one's right. @param shaded whether one side may lie in shadow at one end
 */
function unlikeness(a: Entry, b: Entry, shaded = true): number {
  const [left, right] = [apart(a.sides[0], b.sides[1]), apart(a.sides[1], b.sides[0])];
  if (!shaded || Math.min(left, right) > SAME) return (left + right) / MOST_UNLIKE;
  const inShadow =
    left <= right
      ? apartInHue(a.sides[1], b.sides[0], a.sides[0])
      : apartInHue(a.sides[0], b.sides[1], a.sides[1]);
  return (Math.min(left, right) + Math.min(Math.max(left, right), inShadow)) / MOST_UNLIKE;
}

type Colour = Entry['sides'][0];

/** The greatest difference of a channel. */
function apart(s: Colour, t: Colour): number {
  return Math.max(...s.map((v, c) => Math.abs(v - t[c]!)));
}

/**
 * What is left of a difference when the darker is taken to lie in shadow; infinite when it is too dark for that, or they
 * stand out of what lies beside them in different ways.
 */
function apartInHue(s: Colour, t: Colour, beside: Colour): number {
  const mean = (colour: Colour): number => colour.reduce((sum, v) => sum + v, 0) / colour.length;
  const [one, other, base] = [mean(s), mean(t), mean(beside)];
  const [dark, light] = one < other ? [s, t] : [t, s];
  const share = Math.min(one, other) / Math.max(one, other, 1);
  if (share < SHADOW || one < base !== other < base) return Infinity;
  return apart(
    dark.map((v) => v / share),
    light,
  );
}

/** How badly two edges go together: bends, and sides unlike each other; 1 and more is no pair. */
function costOf(a: Entry, b: Entry): number {
  const way: Point = [b.at[0] - a.at[0], b.at[1] - a.at[1]];
  const length = Math.hypot(...way);
  if (length < 4) return 1;
  const out = (a.inward[0] * way[0] + a.inward[1] * way[1]) / length;
  const back = -(b.inward[0] * way[0] + b.inward[1] * way[1]) / length;
  if (out < STRAIGHT || back < STRAIGHT) return 1;
  const unlike = unlikeness(a, b);
  return unlike > 1 ? 1 : (2 - out - back) / (2 * (1 - STRAIGHT)) / 2 + unlike / 4;
}

/** Bends less than this, as a cosine, are held for errors of measurement, so the guide is straight; of sure edges less. */
const [NO_BEND, SURE_BEND] = [0.985, 0.998];

/** Through both entries: straight, bowed as both say, or round the corner they make. */
function bridge(a: Entry, b: Entry): GuideLine {
  const way: Point = [b.at[0] - a.at[0], b.at[1] - a.at[1]];
  const length = Math.hypot(...way);
  const out = (a.inward[0] * way[0] + a.inward[1] * way[1]) / length;
  const back = -(b.inward[0] * way[0] + b.inward[1] * way[1]) / length;
  const isBent = Math.min(out, back) < (a.sure && b.sure ? SURE_BEND : NO_BEND);
  // Directions are those half the way back that they were learnt from.
  const turn = b.inward[1] * a.inward[0] - b.inward[0] * a.inward[1];
  const bow = isBent ? turn / (length + FOLLOWED + 2 * OUT) : 0;
  const shown = (Math.sign(turn) * (a.bend - b.bend)) / 2;
  const meet = isBent && shown < Math.abs(bow) / 2 ? meeting(a, b, 0) : null;
  if (meet) return roundCorner(a, b, meet.at);
  // What turns left bulges to the right.
  const bulge = (bow * length) / 8;
  const middle: Point = [
    (a.at[0] + b.at[0]) / 2 - bulge * way[1],
    (a.at[1] + b.at[1]) / 2 + bulge * way[0],
  ];
  return tenths([onward(a, -6), middle, onward(b, -6)]);
}

/** From one edge to the other by the place where they meet. */
function roundCorner(a: Entry, b: Entry, at: Point): GuideLine {
  const near = ({ inward }: Entry): Point => [at[0] - 1.5 * inward[0], at[1] - 1.5 * inward[1]];
  return tenths([onward(a, -6), near(a), at, near(b), onward(b, -6)]);
}

function onward({ at, inward }: Entry, d: number): Point {
  return [at[0] + d * inward[0], at[1] + d * inward[1]];
}

/** A guide to a tenth of a px, as records keep it. */
function tenths(points: readonly Point[]): GuideLine {
  return { points: points.map(([x, y]) => [Math.round(10 * x) / 10, Math.round(10 * y) / 10]) };
}
