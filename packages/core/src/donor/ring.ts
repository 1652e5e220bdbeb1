import type { Affine } from '../raster/affine.js';
import { mapRect } from '../raster/affine.js';
import { frameOf, grow, intersect } from '../raster/rect.js';
import type { Rect } from '../raster/rect.js';
import { pixelsOf, ringOf, scattered, thin } from './ring-pixels.js';
import type { Scene } from './scene.js';
import { VALUES } from './scene.js';

const USUAL_RING = 3;
const USUAL_SAMPLES = 600;
const MOST_BODY = 120;
/** By how many ring pixels' worth of misfit a place may be ahead of its share before it is given up. */
const DOUBT = 8;
/** Slopes of luma count this much beside colours. */
const SLOPES = 9;
/** What a ring pixel costs that meets something unknown, squared codes. */
export const UNKNOWN = 400;
/** What a step of tone costs when the tone will be matched. */
export const MATCHED_TONE = 0.12;

/** Options of {@link ringView}. */
export interface RingOptions {
  /** Whether the donor's tone will be matched: then a step of tone costs little. @default false */
  matched?: boolean;
  /** Width of the surroundings that are compared, px. @default 3: what stands next to the site says most about it */
  ring?: number;
  /** How far beyond them every third pixel is compared as well, px: structure shows there. @default 0 */
  beyond?: number;
  /** How many pixels of the ring are compared at most. @default 600 */
  samples?: number;
}

/** What a ring holds, and where its image lies at shift 0. */
export interface RingData {
  readonly map: Affine;
  /** The window's pixel every ring pixel is held against. */
  readonly image: Int32Array;
  /** Five values a pixel, as {@link Scene.tones}. */
  readonly wanted: Float32Array;
  /** What the squared difference of either slope counts, two values a pixel; 0 where it is not known. */
  readonly known: Float32Array;
  readonly matched: boolean;
}

/** A site's ring and body, seen at other places of the window. */
export interface RingView {
  /** Whether nothing forbidden lies in the body and the ring's image lies in the window. */
  isFree(dx: number, dy: number): boolean;
  /** Mean squared difference of the rings, 8-bit codes; at least `limit` once that is reached. */
  difference(dx: number, dy: number, limit: number): number;
  /** Mean step between neighbouring pixels in the body's image, 8-bit codes. */
  roughness(dx: number, dy: number): number;
  readonly ring: RingData;
  /** What the ring and the body take up at shift 0. */
  readonly extent: Rect;
  /** The same in the site's own ring. */
  readonly ringRoughness: number;
  /** Colours of the body's image, three values 0..255 a pixel, at no more than {@link MOST_BODY} pixels; their tone matched if it will be. */
  body(dx: number, dy: number): Float32Array;
  /** Share of the body's image that is marked. */
  shareOf(mask: Uint8Array, dx: number, dy: number): number;
}

/**
 * @param map where the site's pixels would come from at shift 0
 * @returns null when the site has no ring to compare
 */
export function ringView(
  { window, site, banned, box, tones, blocked, forbidden }: Scene,
  map: Affine,
  { matched = false, ring: near = USUAL_RING, beyond = 0, samples = USUAL_SAMPLES }: RingOptions,
): RingView | null {
  const { width, height } = window;
  const ring = scattered(thin(ringOf(site, banned, width, near, beyond), samples));
  const body = pixelsOf(site);
  if (!ring.length) return null;
  const image = (pixels: readonly number[]): Int32Array =>
    Int32Array.from(pixels, (p) => {
      const x = p % width;
      const y = (p / width) | 0;
      const sx = Math.floor(map.a * x + map.b * y + map.c + 0.5);
      const sy = Math.floor(map.d * x + map.e * y + map.f + 0.5);
      return sy * width + sx;
    });
  const ringImage = image(ring);
  const bodyImage = image(thin(body, MOST_BODY));
  // Whether a donor overlaps something is told by every pixel, how it looks by some.
  const wholeBody = image(body);
  const frame = frameOf(window);
  const reach = mapRect(map, intersect(grow(box, near + beyond), frame));
  const bodyBox = mapRect(map, box);
  const n = ring.length;
  // What the ring holds: colour, slopes of luma, and which of the slopes are known.
  const wanted = new Float32Array(VALUES * n);
  const known = new Float32Array(2 * n);
  for (let k = 0; k < n; k++) {
    const p = ring[k]!;
    for (let v = 0; v < VALUES; v++) wanted[VALUES * k + v] = tones[VALUES * p + v]!;
    const x = p % width;
    known[2 * k] = x > 0 && x < width - 1 && isKnown(p - 1) && isKnown(p + 1) ? SLOPES : 0;
    const inner = p >= width && p + width < site.length;
    known[2 * k + 1] = inner && isKnown(p - width) && isKnown(p + width) ? SLOPES : 0;
  }

  const data: RingData = { map, image: ringImage, wanted, known, matched };
  return {
    ring: data,
    extent: reach,
    isFree(dx, dy) {
      const x = reach.x + dx;
      const y = reach.y + dy;
      if (x < 0 || y < 0 || x + reach.width > width || y + reach.height > height) return false;
      if (forbidden.isEmpty(bodyBox.x + dx, bodyBox.y + dy, bodyBox.width, bodyBox.height))
        return true;
      const shift = dy * width + dx;
      for (let k = 0; k < wholeBody.length; k++) {
        const p = wholeBody[k]! + shift;
        if (blocked[p]) return false;
      }
      return true;
    },
    difference: (dx, dy, limit) => compare(tones, blocked, data, dy * width + dx, limit),
    body(dx, dy) {
      const shift = dy * width + dx;
      const step = matched ? toneStep(tones, wanted, ringImage, blocked, shift) : [0, 0, 0];
      return Float32Array.from(
        { length: 3 * bodyImage.length },
        (_, i) => tones[VALUES * (bodyImage[(i / 3) | 0]! + shift) + (i % 3)]! + step[i % 3]!,
      );
    },
    roughness(dx, dy) {
      const shift = dy * width + dx;
      let sum = 0;
      for (const p of bodyImage) sum += stepAt(p + shift);
      return sum / bodyImage.length;
    },
    ringRoughness: roughnessOf(ring),
    shareOf(mask, dx, dy) {
      const shift = dy * width + dx;
      let sum = 0;
      for (const p of bodyImage) sum += mask[p + shift]!;
      return sum / bodyImage.length;
    },
  };

  function isKnown(p: number): boolean {
    return !site[p] && !banned[p];
  }
  function stepAt(p: number): number {
    return Math.abs(tones[VALUES * p + 3]!) + Math.abs(tones[VALUES * p + 4]!);
  }
  function roughnessOf(pixels: readonly number[]): number {
    let sum = 0;
    let count = 0;
    for (const p of pixels) {
      if (!isKnown(p + 1) || p + width >= site.length || !isKnown(p + width)) continue;
      sum += stepAt(p);
      count++;
    }
    return count ? sum / count : 0;
  }
}

/**
 * The comparison itself: mean squared difference of colours and slopes of luma. Slopes are turned with the donor.
 * @param blocked 1 where pixels must not be compared with
 */
function compare(
  tones: Float32Array,
  blocked: Uint8Array,
  { map, image, wanted, known, matched }: RingData,
  shift: number,
  limit: number,
): number {
  const n = image.length;
  const enough = limit * n;
  const { a: xx, b: xy, d: yx, e: yy } = map;
  let sum = 0;
  let squares = 0;
  let m0 = 0;
  let m1 = 0;
  let m2 = 0;
  for (let k = 0; k < n; k++) {
    const at = image[k]! + shift;
    if (blocked[at]) {
      sum += UNKNOWN;
      continue;
    }
    const q = VALUES * at;
    const w = VALUES * k;
    const a = wanted[w]! - tones[q]!;
    const b = wanted[w + 1]! - tones[q + 1]!;
    const c = wanted[w + 2]! - tones[q + 2]!;
    const gx = tones[q + 3]!;
    const gy = tones[q + 4]!;
    const u = wanted[w + 3]! - (xx * gx + yx * gy);
    const v = wanted[w + 4]! - (xy * gx + yy * gy);
    m0 += a;
    m1 += b;
    m2 += c;
    squares += a * a + b * b + c * c;
    sum += known[2 * k]! * u * u + known[2 * k + 1]! * v * v;
    if ((k & 15) === 15) {
      // A place that differs much more than it may so far is given up; the farther on, the less it takes.
      const now = sum + (matched ? 0 : squares);
      if (now > enough || now > limit * (k + DOUBT)) return Infinity;
    }
  }
  if (!matched) return (sum + squares) / n;
  const mean = (m0 * m0 + m1 * m1 + m2 * m2) / n;
  return (sum + squares - (1 - MATCHED_TONE) * mean) / n;
}

/** By how much the ring is lighter than its image, colour by colour. */
function toneStep(
  tones: Float32Array,
  wanted: Float32Array,
  image: Int32Array,
  blocked: Uint8Array,
  shift: number,
): number[] {
  const sums = [0, 0, 0];
  let n = 0;
  for (let k = 0; k < image.length; k++) {
    const at = image[k]! + shift;
    if (blocked[at]) continue;
    n++;
    for (let c = 0; c < 3; c++) sums[c]! += wanted[VALUES * k + c]! - tones[VALUES * at + c]!;
  }
  return sums.map((sum) => (n ? sum / n : 0));
}
