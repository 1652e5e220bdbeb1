import type { Layer } from '../raster/layers.js';
import type { Plane } from '../raster/plane.js';
import { crowdsOf } from './crowds.js';
import type { Spot } from './spots.js';
import { spotsAt } from './spots.js';
import type { SpotTraits } from './spot-traits.js';
import { busyAround, spotTraits } from './spot-traits.js';

/** A spot of another colour on even ground: a chip in paint, a blotch on skin. Tone alone hardly shows it. */
export interface Blemish {
  /** Pixels of the level it was found at, in reading order. */
  readonly pixels: Int32Array;
  readonly odds: number;
  /** Of its tone. */
  readonly polarity: 1 | -1;
}

/** How far a blemish stands out at least, in what its place strays by anyway. */
const CLEAR = 3.5;
/** From so many times what its ring strays by on, more says nothing more. */
const CLEAREST = 16;
/** Smallest, px of the level: what a compression leaves of colour is smaller. */
const SMALLEST = 7;
/** Blemishes less likely than this are not told. */
const HOPELESS = -3;

/** Blemishes of one level of a picture in colour, likeliest first. */
export function blemishesOf(layer: Layer): Blemish[] {
  if (!layer.colours.length) return [];
  const told: Blemish[] = [];
  const taken = new Uint8Array(layer.grey.values.length);
  const opponents = opponentsOf(layer);
  const found = opponents
    .flatMap((plane) => spotsIn(plane, layer.grey))
    .map(({ spot, odds }) => {
      const strength = Math.max(...opponents.map((of) => Math.abs(standingOut(spot.pixels, of))));
      return { spot, odds: odds - Math.max(0, strength - STRONG) / 8 };
    })
    .filter(({ odds }) => odds > HOPELESS);
  found.sort((a, b) => b.odds - a.odds || a.spot.summit - b.spot.summit);
  for (const { spot, odds } of found) {
    // Both opponents tell of most of them.
    if (spot.pixels.some((p) => taken[p])) continue;
    for (const p of spot.pixels) taken[p] = 1;
    const polarity = standingOut(spot.pixels, layer.grey) < 0 ? -1 : 1;
    told.push({ pixels: spot.pixels, odds, polarity });
  }
  return told;
}

/** Red against blue and red against green, about the middle of a grey plane's range. */
function opponentsOf({ grey, colours }: Layer): Plane[] {
  const [r, g, b] = colours.map(({ values }) => values) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const against = (other: Float32Array, share: number): Plane => {
    const values = new Float32Array(r.length);
    for (let p = 0; p < values.length; p++) values[p] = 128 + share * (r[p]! - other[p]!);
    return { ...grey, values };
  };
  return [against(b, 2 / 3), against(g, 1)];
}

function spotsIn(plane: Plane, grey: Plane): { spot: Spot; odds: number }[] {
  const spots = spotsAt(plane, 1);
  const crowds = crowdsOf(spots, plane.width);
  return spots.flatMap((spot, k) => {
    if (spot.pixels.length < SMALLEST) return [];
    const busy = busyAround(plane, spot.summit);
    if (spot.stands < CLEAR * (busy + 1)) return [];
    const traits = spotTraits({ grey: plane, colourOf: null }, spot, crowds[k]!, busy, null);
    return [{ spot, odds: oddsOf(traits, busyAround(grey, spot.summit)) }];
  });
}

/** How steep a place's tones may be, and how strong a spot's colour, before it is more likely a thing of its own. */
const [STEEP, STRONG] = [4, 45];

/**
 * Even ground all round it, from which it stands out on every side, and nothing like it near: set by hand.
 * @param steep how steep the tones are around it
 */
function oddsOf(t: SpotTraits, steep: number): number {
  return (
    3 * Math.log(Math.min(CLEAREST, t.height / (t.ring + 1)) / 4.2) +
    5 * (t.clear / t.height - 0.65) +
    1.5 * (t.rare / t.height - 0.35) -
    0.35 * Math.max(0, t.crowd - 1) -
    0.2 * Math.max(0, t.around - 6) -
    0.8 * Math.max(0, t.busy - 1.6) -
    3 * Math.max(0, t.long - 1.7) -
    (t.compact < 0.36 ? 3 : 0) -
    0.8 * Math.max(0, steep - STEEP) -
    1
  );
}

/** By how much pixels lie higher in a plane than what lies beside them. */
function standingOut(pixels: Int32Array, { width, height, values }: Plane): number {
  const own = new Set(pixels);
  let [inside, beside, count] = [0, 0, 0];
  for (const p of pixels) {
    inside += values[p]! / pixels.length;
    for (const q of [p - 2, p + 2, p - 2 * width, p + 2 * width])
      if (q >= 0 && q < width * height && !own.has(q)) {
        beside += values[q]!;
        count++;
      }
  }
  return count ? inside - beside / count : 0;
}
