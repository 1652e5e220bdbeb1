import { medianOf } from '../raster/median.js';
import type { Reading } from '../raster/layers.js';
import { crowdsOf } from './crowds.js';
import type { foreignAt } from './one-tone.js';
import { pixelsUp } from './pixels-up.js';
import type { Spot } from './spots.js';
import { spotsAt } from './spots.js';
import type { SpotTraits } from './spot-traits.js';
import { busyAround, spotTraits } from './spot-traits.js';

/** A spot with what speaks for its lying on the picture rather than in it. */
export interface Speck extends Spot {
  readonly traits: SpotTraits;
  /** Log odds. */
  readonly odds: number;
  /** Its pixels in the picture, in reading order. */
  readonly site: Int32Array;
}

/** How many other spots near a spot make texture. */
const TEXTURE = 40;
/** How far a speck stands out at least, in what its place strays by anyway. */
const CLEAR = 3.5;
/**
 * What a colour speaks for that is wholly foreign to a print of one tone, and what it speaks against a speck to be of the
 * print's own where the others are not.
 */
const FOREIGN = { own: 6, others: 1 } as const;
/** From which on a speck counts as foreign, levels of {@link SpotTraits.foreign}. */
const HUED = 20;
/** Candidates less likely than this are not followed up. */
const HOPELESS = -5;

/**
 * Specks of one level, before the picture as a whole is asked. Plain data in and out, so that levels run side by side.
 * @param within whether what has its summit at a pixel of the level is asked about; everything is when left out
 * @param foreign to a print of one tone, see {@link foreignAt}; left out where the tone is not known
 */
export function specksAt(
  reading: Reading,
  level: number,
  frame: { width: number; height: number },
  {
    within = () => true,
    foreign = null,
  }: { within?: (summit: number) => boolean; foreign?: ReturnType<typeof foreignAt> } = {},
): Speck[] {
  const { grey } = reading;
  const spots = spotsAt(grey, level);
  const crowds = crowdsOf(spots, grey.width);
  const specks: Speck[] = [];
  spots.forEach((spot, k) => {
    // Where everything is full of spots they are texture.
    if (crowds[k]! > TEXTURE || !within(spot.summit)) return;
    const busy = busyAround(grey, spot.summit);
    if (spot.stands < CLEAR * (busy + 1)) return;
    const traits = spotTraits(reading, spot, crowds[k]!, busy, foreign);
    const odds = speckOdds(traits, spot) + (FOREIGN.own * traits.foreign) / 60;
    if (odds >= HOPELESS)
      specks.push({ ...spot, traits, odds, site: pixelsUp(spot.pixels, grey.width, level, frame) });
  });
  return specks;
}

/**
 * Logistic regression on made-up dust over open photographs, checked by leaving photographs out; the order is that of
 * the evidence below.
 */
const BIAS = 1.422;
const WEIGHTS = [
  -1.263, -0.294, 0.958, 1.891, -0.496, -0.292, 1.04, 1.089, 1.382, 0.351, 3.193, 9.358, -12.865,
  4.65, -0.706, -0.324, -1.995, -1.594, -2.547, -0.883, 6.227, 0.332, -3.076, -2.103, -0.977,
  -1.151, -0.514, -0.068, 0.411, 0.265, 1.523, 1.044,
];

function speckOdds(t: SpotTraits, { level, polarity }: Spot): number {
  const area = Math.log(t.area);
  const high = Math.log(t.height / 40);
  const tint = Math.min(120, t.tint) / 40;
  const ringTint = Math.min(120, t.ringTint) / 40;
  const evidence = [
    area,
    (area * area) / 5,
    high,
    t.clear / t.height,
    t.clear / 40,
    t.rare / t.height,
    t.rare / 40,
    Math.log((t.ring + 1) / 6),
    Math.log((t.around + 1) / 12),
    Math.log(t.height / (t.around + 2)),
    Math.log(t.height / (t.ring + 2)),
    t.extreme,
    t.extreme * t.extreme,
    ((t.tone - 128) / 128) * polarity,
    tint,
    ringTint,
    tint - ringTint,
    t.compact,
    Math.log(t.long),
    t.sharp,
    t.rough,
    Math.log((t.mixed + 2) / 15),
    Math.log((t.busy + 0.5) / 4),
    Math.log(t.height / (t.busy + 1)),
    Math.log1p(t.crowd),
    level === 0 ? 1 : 0,
    level === 1 ? 1 : 0,
    level === 2 ? 1 : 0,
    polarity,
    polarity * high,
    (high * area) / 3,
    (t.sharp * area) / 3,
  ];
  let sum = BIAS;
  for (let k = 0; k < WEIGHTS.length; k++) sum += WEIGHTS[k]! * evidence[k]!;
  return sum;
}

/** Evidence a speck needs. */
const USUAL = 0.25;
/** Broad ones need more: what they cover by mistake is large. */
const BROAD = 0.5;
/** Odds from which a speck counts when the picture as a whole is asked how dusty it is. */
const SURE = 1;
/** Sure specks in a megapixel that make a picture dusty. */
const DUSTY = 20;

/**
 * What falls on a scan is alike in size: sure specks that tell their usual size, times that which a speck may be larger,
 * and what speaks against one e times as large as that.
 */
const SIZES = { told: 12, times: 8, against: 2 } as const;

/**
 * Asks the picture as a whole: where many sure specks lie, doubtful ones of their tone are specks as well; where there
 * are none, none are. Specks that tell again what a likelier one tells are left out.
 * @returns specks, likeliest first
 */
export function agreed(
  specks: readonly Speck[],
  frame: { width: number; height: number },
): Speck[] {
  const megapixels = (frame.width * frame.height) / 1e6;
  const sure = [1, -1].map((sign) => specks.filter((s) => s.polarity === sign && s.odds > SURE));
  const tones = sure.map((list) => middleAndSpread(list.map(({ traits }) => traits.tone)));
  const rates = sure.map((list) => Math.log(list.length / megapixels / DUSTY + 0.05));
  const hued = sure.flat();
  const usual = usualSize(hued, frame);
  const foreign =
    hued.length < 3 ? 0 : hued.filter(({ traits }) => traits.foreign > HUED).length / hued.length;
  const asked = specks.map((speck): Speck => {
    const own = speck.polarity === 1 ? 0 : 1;
    const { middle, spread } = tones[own]!;
    const known = sure[own]!.length >= 3;
    const off = known ? Math.min(4, Math.abs(speck.traits.tone - middle) / (spread + 8)) : 0;
    const odds =
      -USUAL -
      BROAD * speck.level -
      0.89 +
      0.799 * speck.odds +
      0.404 * rates[own]! +
      0.527 * rates[1 - own]! -
      0.167 * off +
      (known ? 0.224 : 0) +
      0.061 * speck.odds * rates[own]! -
      FOREIGN.others * foreign * (1 - speck.traits.foreign / 60) -
      SIZES.against * Math.max(0, Math.log(speck.site.length / (SIZES.times * usual)));
    return { ...speck, odds };
  });
  return toldOnce(asked, frame);
}

/** Specks, likeliest first, without those that tell again what a likelier one tells. */
function toldOnce(
  specks: readonly Speck[],
  { width, height }: { width: number; height: number },
): Speck[] {
  const taken = new Uint8Array(width * height);
  return [...specks]
    .sort((a, b) => b.odds - a.odds || a.site[0]! - b.site[0]!)
    .filter(({ site }) => {
      if (site.some((p) => taken[p])) return false;
      for (const p of site) taken[p] = 1;
      return true;
    });
}

/** Usual size of what surely lies on a picture, px; endless where too little does to tell. */
function usualSize(sure: readonly Speck[], frame: { width: number; height: number }): number {
  const sizes = toldOnce(sure, frame).map(({ site }) => site.length);
  return sizes.length < SIZES.told ? Infinity : medianOf(sizes);
}

function middleAndSpread(values: number[]): { middle: number; spread: number } {
  const middle = medianOf(values);
  return { middle, spread: medianOf(values.map((v) => Math.abs(v - middle))) };
}
