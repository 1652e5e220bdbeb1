import type { Flat } from './flats.js';
import { flatFrom, flatsFromBorder } from './flats.js';
import type { Layer } from '../raster/layers.js';
import { calmed, refiner } from './rough-flats.js';
import { SIDES } from '../shape/sides.js';

/** What is missing from a picture: a corner, an edge, a hole, told by the bare colour that stands there. */
export interface Loss {
  /** Pixels of the level it was found at, the torn fringe with them, in reading order. */
  readonly pixels: Int32Array;
  readonly odds: number;
}

/** Evidence a loss needs. */
const USUAL = 5;
/** Holes are so near the colour of the losses at the border, levels of the furthest channel. */
const SAME = 4;
const FRINGE = 3;
/** Widths of the shadow of a torn sheet and of its fibre, shares of the picture's shorter side. */
const SHADOW = 0.009;
const STRIP = 0.02;
/** Levels the shadow is darker by, and the share of an edge along which it falls. */
const SHADE = 18;
const SHADED = 0.5;
/** How near the colour of what is bare the fibre is, levels of the furthest channel. */
const FIBRE = 24;
/** What speaks against a loss of another colour than the surest one's. */
const ELSE = 6;
/** Least share of even tone by which rough ground is asked about, and the least side of what it is told by, px. */
const EVEN = 0.7;
const CALM = 48;
/** What grounds of one colour take of the picture, and of its corners, where they are a backdrop. */
const BACKDROP = { share: 0.35, corners: 3 } as const;
/**
 * Shadows and lights that went out of range are even too, wherever they come to the border: how near the picture's
 * darkest and brightest such tones are, levels, what share of it lies beyond those, and what speaks against a loss then,
 * unless so much of its edge has a fringe; the paper or lid below a torn corner may be the brightest of all.
 */
const CLIPPED = { near: 3, share: 0.002, against: 3, fringe: { dark: 0.4, bright: 0.15 } } as const;
/** Least breadth, share of the picture's shorter side. */
const NARROW = 0.05;

/**
 * What speaks for an even region being bare ground and no part of the photograph: nothing in it changes, its edge is cut
 * through, a fringe of torn paper runs along it. Studio grounds take whole sides, clear skies have soft edges.
 */
function oddsOf({ traits: t }: Flat, extremes: Extremes): number {
  return (
    20 * (t.cut - 0.8) +
    7.5 * (t.even - 0.6) +
    6 * t.fringe -
    2 * Math.log(Math.max(1, t.ragged) / 1.5) -
    16 * Math.max(0, t.share - 0.25) -
    (t.corners >= 3 ? 6 : 0) -
    12 * Math.max(0, t.resumes - 0.25) -
    // A long thin band of bare paper is a crease.
    (t.breadth < NARROW ? 6 : 0) -
    (isClipped(t, extremes) ? CLIPPED.against : 0) -
    USUAL
  );
}

/** A region that may be a loss. */
interface Judged {
  readonly flat: Flat;
  readonly odds: number;
}

/** Losses of a picture, likeliest first. */
export function lossesOf(layer: Layer): Loss[] {
  const extremes = extremesOf(layer);
  const clear = judged(flatsFromBorder(layer), extremes);
  const sure = clear.filter(({ odds }) => odds > 0);
  const losses = sure.length
    ? [...clear, ...holesLike(sure[0]!, sure, layer)]
    : [...clear, ...roughLosses(layer, extremes)];
  return losses
    .map(({ flat, odds }): Loss => ({ pixels: withFringe(flat, layer), odds }))
    .sort((a, b) => b.odds - a.odds || a.pixels[0]! - b.pixels[0]!);
}

/** Losses whose ground is rough with noise or with what a compression left. */
function roughLosses(layer: Layer, extremes: Extremes): Judged[] {
  const calm = calmed(layer);
  if (Math.min(calm.grey.width, calm.grey.height) < CALM) return [];
  const regions = flatsFromBorder(calm).filter(({ traits }) => traits.even > EVEN);
  if (!regions.length) return [];
  const refined = refiner(layer);
  const known = (list: readonly Flat[]): Flat[] =>
    list.map(refined).filter((flat): flat is Flat => flat !== null);
  const sure = judged(known(regions), extremes).filter(({ odds }) => odds > 0);
  if (!sure.length) return [];
  // What lies in them already is found again, and told once.
  const shown = regions.map((flat) => ({ flat }));
  const { flat: bare, odds } = sure[0]!;
  const far = ({ colour }: Flat): number => furthest(colour, bare.colour);
  const like = regions.reduce((best, region) => (far(region) < far(best) ? region : best));
  const holes = holesLike({ flat: like, odds }, shown, calm);
  const cells = known(holes.map(({ flat }) => flat)).filter(({ traits }) => traits.cut > 0.9);
  return [...sure, ...cells.map((flat) => ({ flat, odds }))];
}

/** The darkest and the brightest grey of a picture that are more than a few of its pixels'. */
interface Extremes {
  readonly dark: number;
  readonly bright: number;
}

function extremesOf({ grey: { values } }: Layer): Extremes {
  const counts = new Uint32Array(256);
  for (let p = 0; p < values.length; p++) counts[Math.round(values[p]!)]!++;
  const beyond = CLIPPED.share * values.length;
  let [dark, bright] = [0, 255];
  for (let sum = counts[0]!; sum < beyond; sum += counts[dark]!) dark++;
  for (let sum = counts[255]!; sum < beyond; sum += counts[bright]!) bright--;
  return { dark, bright };
}

function isClipped(t: Flat['traits'], { dark, bright }: Extremes): boolean {
  return (
    (t.grey < dark + CLIPPED.near && t.fringe < CLIPPED.fringe.dark) ||
    (t.grey > bright - CLIPPED.near && t.fringe < CLIPPED.fringe.bright && t.corners === 0)
  );
}

function judged(flats: readonly Flat[], extremes: Extremes): Judged[] {
  const likely = flats
    .map((flat) => ({ flat, odds: oddsOf(flat, extremes) }))
    .sort((a, b) => b.odds - a.odds || a.flat.pixels[0]! - b.flat.pixels[0]!);
  return likely
    .map(({ flat, odds }) => ({
      flat,
      odds: odds - otherGround(flat, likely[0]!) - (isBackdrop(flat, flats) ? ELSE : 0),
    }))
    .filter(({ odds }) => odds > -USUAL);
}

/** One ground lies below a print: what is of another colour than where it surely shows is a ground of the photograph. */
function otherGround({ colour }: Flat, surest: Judged): number {
  return surest.odds > 0 && furthest(colour, surest.flat.colour) > FIBRE ? ELSE : 0;
}

/** Whether a region and others of its colour make up the ground that a thing was photographed before. */
function isBackdrop({ colour }: Flat, flats: readonly Flat[]): boolean {
  const like = flats.filter((f) => furthest(colour, f.colour) <= FIBRE);
  const sum = (of: (t: Flat['traits']) => number): number =>
    like.reduce((s, { traits }) => s + of(traits), 0);
  return sum((t) => t.share) > BACKDROP.share && sum((t) => t.corners) >= BACKDROP.corners;
}

function furthest(a: readonly number[], b: readonly number[]): number {
  return Math.max(...a.map((v, c) => Math.abs(v - b[c]!)));
}

/** Regions inside the picture of the colour that stands in its losses. */
function holesLike(
  { flat: like, odds }: Judged,
  known: readonly { flat: Flat }[],
  layer: Layer,
): Judged[] {
  const planes = (layer.colours.length ? layer.colours : [layer.grey]).map(({ values }) => values);
  const seen = new Uint8Array(layer.grey.values.length);
  for (const { flat } of known) for (const p of flat.pixels) seen[p] = 1;
  const holes: Judged[] = [];
  for (let p = 0; p < seen.length; p++) {
    if (seen[p] || planes.some((plane, c) => Math.abs(plane[p]! - like.colour[c]!) > SAME))
      continue;
    const flat = flatFrom(layer, p, seen);
    if (flat && flat.traits.cut > 0.9 && flat.traits.even > 0.8 * like.traits.even)
      holes.push({ flat, odds: Math.min(odds, 1 + 20 * (flat.traits.cut - 0.95)) });
  }
  return holes;
}

/** A region with the bright fringe along its edge, and with what a torn sheet shows that lies above what is bare. */
function withFringe({ pixels, traits, colour }: Flat, layer: Layer): Int32Array {
  const { grey } = layer;
  const found = new Set(pixels);
  const bright = Math.max(195, traits.grey + 20);
  // The first px is the edge itself, half covered.
  let edge = grownBy(found, [...pixels], FRINGE, grey, (p, round) =>
    round === 0 ? true : grey.values[p]! >= bright,
  );
  const lid = (p: number): boolean =>
    (layer.colours.length ? layer.colours : [grey]).every(
      ({ values }, c) => Math.abs(values[p]! - colour[c]!) <= FIBRE,
    );
  const sheet = tornSheet(pixels, grey, traits.grey);
  if (sheet) {
    edge = grownBy(found, edge, Math.round(SHADOW * sheet), grey, () => true);
    edge = grownBy(found, edge, Math.round(STRIP * sheet), grey, lid);
    // Half covered again.
    grownBy(found, edge, 1, grey, () => true);
  }
  return Int32Array.from(found).sort();
}

/**
 * Where the shadow of a sheet falls on what lies bare below it: darker close to the edge than further out, where the white
 * fibre of its torn edge is.
 * @returns the shorter side of the picture, to measure by; 0 where there is no shadow
 */
function tornSheet(
  pixels: Int32Array,
  { width, height, values }: Layer['grey'],
  middle: number,
): number {
  const shorter = Math.min(width, height);
  const inside = new Uint8Array(width * height);
  for (const p of pixels) inside[p] = 1;
  let [edge, shaded] = [0, 0];
  for (const p of pixels) {
    const [x, y] = [p % width, (p / width) | 0];
    for (const [dx, dy] of SIDES) {
      const at = (d: number): number => {
        const [qx, qy] = [x + d * dx, y + d * dy];
        return qx < 0 || qy < 0 || qx >= width || qy >= height ? -1 : qy * width + qx;
      };
      const next = at(1);
      if (next < 0 || inside[next]) continue;
      edge++;
      const along = Array.from({ length: Math.round((SHADOW + STRIP) * shorter) }, (_, d) =>
        at(d + 1),
      )
        .filter((q) => q >= 0)
        .map((q) => values[q]!);
      const near = along.slice(0, Math.round(SHADOW * shorter));
      const darkest = Math.min(...near);
      const rest = along.slice(near.indexOf(darkest) + 1);
      if (darkest < middle - SHADE && Math.max(...rest) > darkest + SHADE) shaded++;
    }
  }
  return edge && shaded > SHADED * edge ? shorter : 0;
}

/** Grows a set of pixels ring by ring where something holds. @returns the last ring */
function grownBy(
  found: Set<number>,
  from: readonly number[],
  rounds: number,
  { width, height }: Layer['grey'],
  holds: (p: number, round: number) => boolean,
): number[] {
  let edge = [...from];
  const all = [...from];
  for (let round = 0; round < rounds && edge.length; round++) {
    const next: number[] = [];
    for (const p of edge) {
      const x = p % width;
      for (const q of [x > 0 ? p - 1 : -1, x < width - 1 ? p + 1 : -1, p - width, p + width]) {
        if (q < 0 || q >= width * height || found.has(q) || !holds(q, round)) continue;
        found.add(q);
        next.push(q);
        all.push(q);
      }
    }
    edge = next;
  }
  return all;
}
