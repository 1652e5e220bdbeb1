import type { Border } from './border.js';
import { solveSmall } from '../solve/small.js';

/**
 * How the donor's tone becomes the picture's, a channel: gain * donor + bias + slopeX * u + slopeY * v,
 * with u and v the place in the window, -1..1.
 */
export interface ToneMatch {
  readonly gain: readonly number[];
  readonly bias: readonly number[];
  readonly slopeX: readonly number[];
  readonly slopeY: readonly number[];
}

/** What a tone match leaves along the border. */
export interface ToneFit {
  readonly match: ToneMatch;
  /** Three values a pair: picture minus matched donor. */
  readonly rest: Float64Array;
  /** Trust in each pair, 0..1: low where an edge runs through it. */
  readonly trust: Float64Array;
  /** Spread of the rest where it can be trusted, 8-bit codes, a channel. */
  readonly spread: readonly number[];
}

const BLOCK = 6;
const ROUNDS = 5;
/** A pair this many spreads and this many 8-bit codes off lies across an edge. */
const TUKEY = 3.5;
const ALLOWANCE = 6;
const LEAST_SPREAD = 1.5;
/** Values a median is taken of at most. */
const MOST_SORTED = 600;
/** A change so many standard errors large is certain. */
const CERTAIN = 2;
/** How far tone usually drifts across half a site, 8-bit codes; how far gains usually are from 1. */
const USUAL_SLOPE = 5;
const USUAL_GAIN = 0.12;
const GAIN_LIMITS = { least: 0.6, most: 1.6 } as const;

/**
 * Fits the donor's tone to the surroundings along a border, robustly (iterated reweighting with Tukey's biweight;
 * Huber, "Robust Statistics", 1981): pairs across an edge, where picture and donor stand on different sides,
 * count little or nothing. Gain is believed only as far as picture and donor go up and down together.
 */
export function matchTone(border: Border, width: number, height: number): ToneFit {
  const { count } = border;
  const place = placesOf(border, width, height);
  const trust = new Float64Array(count).fill(1);
  const rest = new Float64Array(3 * count);
  const match = { gain: [1, 1, 1], bias: [0, 0, 0], slopeX: [0, 0, 0], slopeY: [0, 0, 0] };
  const spread = [0, 0, 0];
  for (let c = 0; c < 3; c++) match.bias[c] = medianOf(count, (k) => stepOf(border, k, c));
  measure();
  for (let round = 0; round < ROUNDS; round++) {
    if (!count) break;
    for (let c = 0; c < 3; c++) fitChannel(border, place, trust, match, c, spread[c]!);
    measure();
  }
  return { match, rest, trust, spread };

  function measure(): void {
    for (let c = 0; c < 3; c++) {
      for (let k = 0; k < count; k++) {
        const said =
          match.gain[c]! * border.donor[3 * k + c]! +
          match.bias[c]! +
          match.slopeX[c]! * place.u[k]! +
          match.slopeY[c]! * place.v[k]!;
        rest[3 * k + c] = border.picture[3 * k + c]! - said;
      }
      spread[c] = Math.max(
        LEAST_SPREAD,
        1.4826 * medianOf(count, (k) => Math.abs(rest[3 * k + c]!)),
      );
    }
    for (let k = 0; k < count; k++) {
      let off = 0;
      for (let c = 0; c < 3; c++)
        off = Math.max(off, Math.abs(rest[3 * k + c]!) / (TUKEY * spread[c]! + ALLOWANCE));
      trust[k] = off >= 1 ? 0 : (1 - off * off) * (1 - off * off);
    }
  }
}

/**
 * The same fit, believed only as far as it is more than the grain of the border could feign: what was never pasted
 * is left as it is.
 */
export function believeFit(border: Border, fit: ToneFit): ToneFit {
  const { match, trust, spread } = fit;
  const weight = trust.reduce((a, b) => a + b, 0);
  if (weight <= 0) return fit;
  const rest = new Float64Array(fit.rest);
  const share = [0, 1, 2].map((c) => {
    let sum = 0;
    for (let k = 0; k < border.count; k++)
      sum += trust[k]! * (stepOf(border, k, c) - fit.rest[3 * k + c]!);
    const change = sum / weight;
    const error = (CERTAIN * CERTAIN * spread[c]! * spread[c]!) / weight;
    return Math.max(0, 1 - error / (change * change + 1e-12));
  });
  for (let k = 0; k < border.count; k++)
    for (let c = 0; c < 3; c++) {
      const step = stepOf(border, k, c);
      rest[3 * k + c] = step - share[c]! * (step - fit.rest[3 * k + c]!);
    }
  const scaled = (values: readonly number[]): number[] => values.map((v, c) => v * share[c]!);
  return {
    match: {
      gain: match.gain.map((g, c) => 1 + (g - 1) * share[c]!),
      bias: scaled(match.bias),
      slopeX: scaled(match.slopeX),
      slopeY: scaled(match.slopeY),
    },
    rest,
    trust,
    spread,
  };
}

interface Places {
  readonly u: Float64Array;
  readonly v: Float64Array;
  /** Block of each pair, and how many there are. */
  readonly block: Int32Array;
  readonly blocks: number;
}

function placesOf({ count, outside }: Border, width: number, height: number): Places {
  const u = new Float64Array(count);
  const v = new Float64Array(count);
  const block = new Int32Array(count);
  const number = new Map<number, number>();
  const columns = Math.ceil(width / BLOCK);
  for (let k = 0; k < count; k++) {
    const x = outside[k]! % width;
    const y = (outside[k]! / width) | 0;
    u[k] = (2 * x) / Math.max(1, width - 1) - 1;
    v[k] = (2 * y) / Math.max(1, height - 1) - 1;
    const name = ((y / BLOCK) | 0) * columns + ((x / BLOCK) | 0);
    let known = number.get(name);
    if (known === undefined) number.set(name, (known = number.size));
    block[k] = known;
  }
  return { u, v, block, blocks: number.size };
}

function stepOf({ picture, donor }: Border, k: number, c: number): number {
  return picture[3 * k + c]! - donor[3 * k + c]!;
}

/** One weighted fit of a channel. Pairs are averaged in blocks first: grain would pull the gain towards 0. */
function fitChannel(
  border: Border,
  place: Places,
  trust: Float64Array,
  match: { gain: number[]; bias: number[]; slopeX: number[]; slopeY: number[] },
  c: number,
  spread: number,
): void {
  const { block, blocks, u, v } = place;
  const means = new Float64Array(5 * blocks);
  for (let k = 0; k < border.count; k++) {
    const w = trust[k]!;
    const at = 5 * block[k]!;
    means[at]! += w;
    means[at + 1]! += w * border.donor[3 * k + c]!;
    means[at + 2]! += w * border.picture[3 * k + c]!;
    means[at + 3]! += w * u[k]!;
    means[at + 4]! += w * v[k]!;
  }
  let weight = 0;
  const mean = [0, 0, 0, 0];
  for (let b = 0; b < blocks; b++) {
    const w = means[5 * b]!;
    if (w <= 0) continue;
    weight += w;
    for (let i = 0; i < 4; i++) {
      mean[i]! += means[5 * b + 1 + i]!;
      means[5 * b + 1 + i]! /= w;
    }
  }
  if (weight <= 0) return;
  for (let i = 0; i < 4; i++) mean[i]! /= weight;
  // Second moments of donor, picture, u and v about their means.
  const s = new Float64Array(16);
  for (let b = 0; b < blocks; b++) {
    const w = means[5 * b]! / weight;
    if (w <= 0) continue;
    for (let i = 0; i < 4; i++)
      for (let j = 0; j < 4; j++)
        s[4 * i + j]! +=
          w * (means[5 * b + 1 + i]! - mean[i]!) * (means[5 * b + 1 + j]! - mean[j]!);
  }
  const gain = gainOf(s[0]!, s[5]!, s[1]!, blocks);
  // With the gain settled, the slopes are least squares, held towards 0 where the place tells little.
  const hold = 0.01 + (spread * spread) / (USUAL_SLOPE * USUAL_SLOPE * Math.max(1, blocks));
  const slopes = solveSmall(
    [
      [s[10]! + hold, s[11]!],
      [s[14]!, s[15]! + hold],
    ],
    [s[6]! - gain * s[2]!, s[7]! - gain * s[3]!],
  );
  match.gain[c] = gain;
  match.slopeX[c] = slopes[0]!;
  match.slopeY[c] = slopes[1]!;
  match.bias[c] = mean[1]! - gain * mean[0]! - slopes[0]! * mean[2]! - slopes[1]! * mean[3]!;
}

/**
 * Ratio of the spreads of picture and donor, believed as far as the two go together, and the less the fewer places
 * tell of it: between what is measured and no change lies the mean weighted by certainty.
 */
function gainOf(donor: number, picture: number, both: number, places: number): number {
  if (donor < 1 || picture < 1 || both <= 0) return 1;
  const together = both / Math.sqrt(donor * picture);
  const t = Math.min(1, Math.max(0, (together - 0.5) / 0.35));
  const belief = t * t * (3 - 2 * t);
  const ratio = Math.sqrt(picture / donor);
  const doubt = (ratio * ratio * (1 - together * together)) / Math.max(1, places);
  const weight = (belief * USUAL_GAIN * USUAL_GAIN) / (USUAL_GAIN * USUAL_GAIN + doubt);
  return Math.min(GAIN_LIMITS.most, Math.max(GAIN_LIMITS.least, 1 + (ratio - 1) * weight));
}

/** The middle value, of evenly spread samples when there are very many. */
function medianOf(count: number, value: (k: number) => number): number {
  if (!count) return 0;
  const step = Math.max(1, Math.floor(count / MOST_SORTED));
  const values = new Float64Array(Math.ceil(count / step));
  for (let k = 0, i = 0; k < count; k += step) values[i++] = value(k);
  values.sort();
  const half = values.length >> 1;
  return values.length & 1 ? values[half]! : (values[half - 1]! + values[half]!) / 2;
}
