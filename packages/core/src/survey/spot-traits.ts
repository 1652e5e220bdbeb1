import type { Reading } from '../raster/layers.js';
import type { Plane } from '../raster/plane.js';
import type { Spot } from './spots.js';

/** What a spot is judged by. Grey levels are 0..255; lengths in px of its level. */
export interface SpotTraits {
  /** px of its level. */
  readonly area: number;
  /** Its mean over the mean of the ring round it, in the sense of its polarity. */
  readonly height: number;
  /** Over the highest sides of that ring, the same way. */
  readonly clear: number;
  /** Over the highest of the wider surroundings. */
  readonly rare: number;
  /** Deviation within the ring, and in the wider surroundings. */
  readonly ring: number;
  readonly around: number;
  /** How near its grey comes to white or black, 0..1. */
  readonly extreme: number;
  /** Grey at its heart, 0..255. */
  readonly tone: number;
  /** Saturation (largest less smallest channel) of the heart, and of the ring. */
  readonly tint: number;
  readonly ringTint: number;
  /** Area over that of the circle round it. */
  readonly compact: number;
  /** Long over short axis, by moments. */
  readonly long: number;
  /** Steepest step at its border over its height. */
  readonly sharp: number;
  /** Deviation within it over its height. */
  readonly rough: number;
  /** Difference between the sides of its ring. */
  readonly mixed: number;
  /** How much sharper the steps of the place around are than even ground: mean step between neighbours. */
  readonly busy: number;
  /** Other spots of its polarity near it. */
  readonly crowd: number;
  /** How much more foreign to a print of one tone its colour is than that of the ring, 0..60; 0 for pictures in colour. */
  readonly foreign: number;
}

const RING = { from: 1.5, to: 4.5 } as const;
const AROUND = 14;
const SECTORS = 8;

/**
 * Measures a spot against what lies round it.
 * @param crowd other spots of its polarity near it
 * @param busy of the place, see {@link busyAround}
 * @param foreign to a print of one tone, see {@link foreignAt}
 */
export function spotTraits(
  reading: Reading,
  spot: Spot,
  crowd: number,
  busy: number,
  foreign: ((pixel: number) => number) | null,
): SpotTraits {
  const { grey, colourOf } = reading;
  const { polarity, pixels } = spot;
  const n = pixels.length;
  const shape = shapeOf(grey, pixels);
  const round = roundOf(grey, shape);
  const { ring, rest } = round;
  const mean = shape.sum / n;
  const ringMean = sumOf(ring) / (ring.length || 1);
  const ringDeviation = Math.sqrt(
    Math.max(0, squaresOf(ring) / (ring.length || 1) - ringMean * ringMean),
  );
  const restMean = sumOf(rest) / (rest.length || 1);
  const restDeviation = Math.sqrt(
    Math.max(0, squaresOf(rest) / (rest.length || 1) - restMean * restMean),
  );
  const heightOver = Math.max(1, polarity * (mean - ringMean));
  const tone = grey.values[spot.summit]!;
  const highest = (sorted: Float32Array, share: number): number => {
    if (!sorted.length) return ringMean;
    const k = Math.floor(share * (sorted.length - 1));
    return polarity > 0 ? sorted[k]! : sorted[sorted.length - 1 - k]!;
  };
  return {
    area: n,
    height: heightOver,
    clear: polarity * (mean - highest(ring.sort(), 0.95)),
    rare: polarity * (mean - highest(rest.sort(), 0.97)),
    ring: ringDeviation,
    around: restDeviation,
    extreme: polarity > 0 ? tone / 255 : 1 - tone / 255,
    tone,
    tint: colourOf ? tintOf(pixels, colourOf) : 0,
    ringTint: colourOf ? tintOf(round.pixels, colourOf) : 0,
    compact: n / (Math.PI * shape.radius * shape.radius),
    long: shape.long,
    sharp: steepest(grey, spot) / heightOver,
    rough: Math.sqrt(Math.max(0, shape.squares / n - mean * mean)) / heightOver,
    mixed: round.mixed,
    busy,
    crowd,
    foreign: foreign ? Math.max(0, meanOf(pixels, foreign) - meanOf(round.pixels, foreign)) : 0,
  };
}

interface Shape {
  readonly x: number;
  readonly y: number;
  /** Of the circle round it, px. */
  readonly radius: number;
  /** Its longer axis over the shorter. */
  readonly long: number;
  readonly sum: number;
  readonly squares: number;
}

function shapeOf({ width, values }: Plane, pixels: Int32Array): Shape {
  const n = pixels.length;
  let [cx, cy, sum, squares] = [0, 0, 0, 0];
  for (const p of pixels) {
    cx += p % width;
    cy += (p / width) | 0;
    const v = values[p]!;
    sum += v;
    squares += v * v;
  }
  cx /= n;
  cy /= n;
  let [xx, yy, xy, far] = [1 / 12, 1 / 12, 0, 0];
  for (const p of pixels) {
    const dx = (p % width) - cx;
    const dy = ((p / width) | 0) - cy;
    xx += (dx * dx) / n;
    yy += (dy * dy) / n;
    xy += (dx * dy) / n;
    far = Math.max(far, dx * dx + dy * dy);
  }
  const root = Math.sqrt(((xx - yy) / 2) ** 2 + xy * xy);
  const middle = (xx + yy) / 2;
  const long = Math.sqrt((middle + root) / Math.max(1 / 24, middle - root));
  return { x: cx, y: cy, radius: Math.sqrt(far) + 0.5, long, sum, squares };
}

/** What lies round a spot: grey close to it and in its wider surroundings. */
interface Round {
  readonly ring: Float32Array;
  readonly rest: Float32Array;
  /** Of the ring. */
  readonly pixels: Int32Array;
  /** Difference between the sides of the ring. */
  readonly mixed: number;
}

function roundOf({ width, height, values }: Plane, { x: cx, y: cy, radius: r }: Shape): Round {
  const reach = Math.ceil(r + AROUND);
  const room = (2 * reach + 1) ** 2;
  const [ring, rest, pixels] = [
    new Float32Array(room),
    new Float32Array(room),
    new Int32Array(room),
  ];
  const sums = new Float64Array(SECTORS);
  const counts = new Int32Array(SECTORS);
  let [near, wide] = [0, 0];
  const [mx, my] = [Math.round(cx), Math.round(cy)];
  const [inner, outer, end] = [(r + RING.from) ** 2, (r + RING.to) ** 2, (r + AROUND) ** 2];
  const [left, right] = [Math.max(0, mx - reach), Math.min(width - 1, mx + reach)];
  for (let y = Math.max(0, my - reach); y <= Math.min(height - 1, my + reach); y++)
    for (let x = left, p = y * width + left; x <= right; x++, p++) {
      const dx = x - cx;
      const dy = y - cy;
      const square = dx * dx + dy * dy;
      if (square <= inner || square > end) continue;
      const v = values[p]!;
      if (square <= outer) {
        ring[near] = v;
        pixels[near++] = p;
        const sector = Math.floor(((Math.atan2(dy, dx) / Math.PI + 1) / 2) * SECTORS) % SECTORS;
        sums[sector]! += v;
        counts[sector]!++;
      }
      // The wider surroundings are told by every other row and column.
      else if (((x | y) & 1) === 0) rest[wide++] = v;
    }
  let [most, least] = [-Infinity, Infinity];
  for (let k = 0; k < SECTORS; k++)
    if (counts[k]! > 0) {
      most = Math.max(most, sums[k]! / counts[k]!);
      least = Math.min(least, sums[k]! / counts[k]!);
    }
  return {
    ring: ring.subarray(0, near),
    rest: rest.subarray(0, wide),
    pixels: pixels.subarray(0, near),
    mixed: near ? most - least : 0,
  };
}

/** Steepest step at a spot's border, two px across it, so that the blur of a lens and of sampling does not count. */
function steepest({ width, values }: Plane, { pixels, polarity }: Spot): number {
  const inside = new Set(pixels);
  let most = 0;
  for (const p of pixels)
    for (const step of [1, -1, width, -width]) {
      const q = p + 2 * step;
      if (q >= 0 && q < values.length && !inside.has(p + step))
        most = Math.max(most, polarity * (values[p]! - values[q]!));
    }
  return most;
}

function sumOf(values: Float32Array): number {
  let sum = 0;
  for (let k = 0; k < values.length; k++) sum += values[k]!;
  return sum;
}

function squaresOf(values: Float32Array): number {
  let sum = 0;
  for (let k = 0; k < values.length; k++) sum += values[k]! * values[k]!;
  return sum;
}

/** Mean of something over some pixels; 0 over none. */
function meanOf(pixels: Int32Array, of: (pixel: number) => number): number {
  let sum = 0;
  for (let k = 0; k < pixels.length; k++) sum += of(pixels[k]!);
  return sum / (pixels.length || 1);
}

/** Mean saturation of some pixels: largest less smallest channel. */
function tintOf(pixels: Int32Array, colourOf: NonNullable<Reading['colourOf']>): number {
  return meanOf(pixels, (p) => {
    const [a, b, c] = [colourOf(p, 0), colourOf(p, 1), colourOf(p, 2)];
    return Math.max(a, b, c) - Math.min(a, b, c);
  });
}

/** Half the side of the square that says how busy a place is, and of the means it is compared with; px. */
const BUSY = { reach: 12, mean: 2, every: 3 } as const;

/** Mean deviation from the local mean around a place, on a grid of samples. */
export function busyAround({ width, height, values }: Plane, place: number): number {
  const [cx, cy] = [place % width, (place / width) | 0];
  const { reach, mean, every } = BUSY;
  let [sum, count] = [0, 0];
  for (let y = Math.max(mean, cy - reach); y <= Math.min(height - 1 - mean, cy + reach); y += every)
    for (
      let x = Math.max(mean, cx - reach);
      x <= Math.min(width - 1 - mean, cx + reach);
      x += every
    ) {
      let local = 0;
      for (let v = y - mean; v <= y + mean; v++)
        for (let p = v * width + x - mean, last = p + 2 * mean; p <= last; p++) local += values[p]!;
      sum += Math.abs(values[y * width + x]! - local / (2 * mean + 1) ** 2);
      count++;
    }
  return count ? sum / count : 0;
}
