import type { Layer } from '../raster/layers.js';
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

/** Measures a spot against what lies round it. @param crowd other spots of its polarity near it
 * @param busy of the place, see {@link busyAround}
 * @param foreign to a print of one tone, see {@link foreignAt} */
export function spotTraits(
  { grey, colours }: Layer,
  spot: Spot,
  crowd: number,
  busy: number,
  foreign: ((pixel: number) => number) | null,
): SpotTraits {
  const { width, height, values } = grey;
  const { polarity, pixels } = spot;
  const inside = new Set(pixels);
  let [cx, cy, sum, squares] = [0, 0, 0, 0];
  for (const p of pixels) {
    cx += p % width;
    cy += (p / width) | 0;
    const v = values[p]!;
    sum += v;
    squares += v * v;
  }
  const n = pixels.length;
  cx /= n;
  cy /= n;
  const mean = sum / n;
  let [xx, yy, xy, far] = [1 / 12, 1 / 12, 0, 0];
  for (const p of pixels) {
    const [dx, dy] = [(p % width) - cx, ((p / width) | 0) - cy];
    xx += (dx * dx) / n;
    yy += (dy * dy) / n;
    xy += (dx * dy) / n;
    far = Math.max(far, dx * dx + dy * dy);
  }
  const root = Math.sqrt(((xx - yy) / 2) ** 2 + xy * xy);
  const middle = (xx + yy) / 2;
  const r = Math.sqrt(far) + 0.5;
  const sectors = Array.from({ length: SECTORS }, () => [0, 0] as [number, number]);
  const ring: number[] = [];
  const rest: number[] = [];
  const reach = Math.ceil(r + AROUND);
  const [mx, my] = [Math.round(cx), Math.round(cy)];
  const outer = (r + RING.to) ** 2;
  let [ringTint, ringForeign, restSum, restSquares, sharp] = [0, 0, 0, 0, 0];
  const tinted = (p: number): number => {
    if (!colours.length) return 0;
    const [a, b, c] = [colours[0]!.values[p]!, colours[1]!.values[p]!, colours[2]!.values[p]!];
    return Math.max(a, b, c) - Math.min(a, b, c);
  };
  for (let y = Math.max(0, my - reach); y <= Math.min(height - 1, my + reach); y++)
    for (let x = Math.max(0, mx - reach); x <= Math.min(width - 1, mx + reach); x++) {
      const p = y * width + x;
      const dx = x - cx;
      const dy = y - cy;
      const square = dx * dx + dy * dy;
      // The wider surroundings are told by every other row and column.
      if (square > outer && (x | y) & 1) continue;
      const d = Math.sqrt(square) - r;
      const v = values[p]!;
      if (d > RING.from && d <= RING.to) {
        ring.push(v);
        ringTint += tinted(p);
        if (foreign) ringForeign += foreign(p);
        const sector = Math.floor(((Math.atan2(dy, dx) / Math.PI + 1) / 2) * SECTORS) % SECTORS;
        sectors[sector]![0] += v;
        sectors[sector]![1]++;
      } else if (d > RING.to && d <= AROUND) {
        rest.push(v);
        restSum += v;
        restSquares += v * v;
      }
    }
  const ringMean = ring.reduce((s, v) => s + v, 0) / (ring.length || 1);
  const ringDeviation = Math.sqrt(
    Math.max(0, ring.reduce((s, v) => s + v * v, 0) / (ring.length || 1) - ringMean * ringMean),
  );
  const restMean = restSum / (rest.length || 1);
  for (const p of pixels)
    for (const step of [1, -1, width, -width]) {
      // Two px away, so that the blur of a lens and of sampling does not count.
      const q = p + 2 * step;
      if (q >= 0 && q < values.length && !inside.has(p + step))
        sharp = Math.max(sharp, polarity * (values[p]! - values[q]!));
    }
  const heartTint = pixels.reduce((s, p) => s + tinted(p), 0) / n;
  const sides = sectors.filter(([, k]) => k > 0).map(([s, k]) => s / k);
  const signedHigh = (list: number[], share: number): number => {
    if (!list.length) return ringMean;
    const sorted = Float32Array.from(list).sort();
    const k = Math.floor(share * (sorted.length - 1));
    return polarity > 0 ? sorted[k]! : sorted[sorted.length - 1 - k]!;
  };
  const tone = values[spot.summit]!;
  const heightOver = Math.max(1, polarity * (mean - ringMean));
  return {
    area: n,
    height: heightOver,
    clear: polarity * (mean - signedHigh(ring, 0.95)),
    rare: polarity * (mean - signedHigh(rest, 0.97)),
    ring: ringDeviation,
    around: Math.sqrt(Math.max(0, restSquares / (rest.length || 1) - restMean * restMean)),
    extreme: polarity > 0 ? tone / 255 : 1 - tone / 255,
    tone,
    tint: heartTint,
    ringTint: ringTint / (ring.length || 1),
    compact: n / (Math.PI * r * r),
    long: Math.sqrt((middle + root) / Math.max(1 / 24, middle - root)),
    sharp: sharp / heightOver,
    rough: Math.sqrt(Math.max(0, squares / n - mean * mean)) / heightOver,
    mixed: sides.length ? Math.max(...sides) - Math.min(...sides) : 0,
    busy,
    crowd,
    foreign: foreign
      ? Math.max(
          0,
          pixels.reduce((s, p) => s + foreign(p), 0) / n - ringForeign / (ring.length || 1),
        )
      : 0,
  };
}

/** Half the side of the square that says how busy a place is, and of the means it is compared with; px. */
const BUSY = { reach: 12, mean: 2, every: 3 } as const;

/** Mean deviation from the local mean around a place, on a grid of samples. */
export function busyAround({ width, height, values }: Layer['grey'], place: number): number {
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
