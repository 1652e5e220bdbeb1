import type { Flat } from './flats.js';
import { flatFrom, flatsFromBorder } from './flats.js';
import type { Layer } from '../raster/layers.js';

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
/** Least breadth, share of the picture's shorter side. */
const NARROW = 0.05;

/**
 * What speaks for an even region being bare ground and no part of the photograph: nothing in it changes, its edge is cut
 * through, a fringe of torn paper runs along it. Studio grounds take whole sides, clear skies have soft edges.
 */
function oddsOf({ traits: t }: Flat): number {
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
    USUAL
  );
}

/** Losses of a picture, likeliest first. */
export function lossesOf(layer: Layer): Loss[] {
  const losses: { flat: Flat; odds: number }[] = flatsFromBorder(layer)
    .map((flat) => ({ flat, odds: oddsOf(flat) }))
    .filter(({ odds }) => odds > -USUAL);
  const sure = losses.filter(({ odds }) => odds > 0);
  if (sure.length) losses.push(...holesLike(sure[0]!, sure, layer));
  return losses
    .map(({ flat, odds }): Loss => ({ pixels: withFringe(flat, layer), odds }))
    .sort((a, b) => b.odds - a.odds || a.pixels[0]! - b.pixels[0]!);
}

/** Regions inside the picture of the colour that stands in its losses. */
function holesLike(
  { flat: like, odds }: { flat: Flat; odds: number },
  known: readonly { flat: Flat }[],
  layer: Layer,
): { flat: Flat; odds: number }[] {
  const planes = (layer.colours.length ? layer.colours : [layer.grey]).map(({ values }) => values);
  const seen = new Uint8Array(layer.grey.values.length);
  for (const { flat } of known) for (const p of flat.pixels) seen[p] = 1;
  const holes: { flat: Flat; odds: number }[] = [];
  for (let p = 0; p < seen.length; p++) {
    if (seen[p] || planes.some((plane, c) => Math.abs(plane[p]! - like.colour[c]!) > SAME))
      continue;
    const flat = flatFrom(layer, p, seen);
    if (flat && flat.traits.cut > 0.9 && flat.traits.even > 0.8 * like.traits.even)
      holes.push({ flat, odds: Math.min(odds, 1 + 20 * (flat.traits.cut - 0.95)) });
  }
  return holes;
}

/** A region with the bright fringe along its edge. */
function withFringe({ pixels, traits }: Flat, { grey }: Layer): Int32Array {
  const { width, height, values } = grey;
  const found = new Set(pixels);
  let edge = [...pixels];
  for (let round = 0; round < FRINGE; round++) {
    const next: number[] = [];
    for (const p of edge) {
      const x = p % width;
      for (const q of [x > 0 ? p - 1 : -1, x < width - 1 ? p + 1 : -1, p - width, p + width]) {
        if (q < 0 || q >= width * height || found.has(q)) continue;
        // The first px is the edge itself, half covered.
        if (round > 0 && values[q]! < Math.max(195, traits.grey + 20)) continue;
        found.add(q);
        next.push(q);
      }
    }
    edge = next;
  }
  return Int32Array.from(found).sort();
}
