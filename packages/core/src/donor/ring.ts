import type { Affine } from '../raster/affine.js';
import { mapRect } from '../raster/affine.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect } from '../raster/rect.js';
import { maskBox } from '../shape/mask-box.js';

const USUAL_RING = 3;
const USUAL_SAMPLES = 600;
const MOST_BODY = 120;
/** By how many ring pixels' worth of misfit a place may be ahead of its share before it is given up. */
const DOUBT = 8;
/** Slopes of luma count this much beside colours. */
const SLOPES = 9;
/** What a ring pixel costs that meets something unknown, squared codes. */
const UNKNOWN = 400;
const VALUES = 5;
/** What a step of tone costs when the tone will be matched. */
const MATCHED_TONE = 0.12;

/** Options of {@link ringView}. */
export interface RingOptions {
  /** Whether the donor's tone will be matched: then a step of tone costs little. @default false */
  matched?: boolean;
  /** Width of the surroundings that are compared, px. @default 3: what stands next to the site says most about it */
  ring?: number;
  /** How many pixels of the ring are compared at most. @default 600 */
  samples?: number;
}

/** A site's ring and body, seen at other places of the window. */
export interface RingView {
  /** Whether nothing forbidden lies in the body and the ring's image lies in the window. */
  isFree(dx: number, dy: number): boolean;
  /** Mean squared difference of the rings, 8-bit codes; at least `limit` once that is reached. */
  difference(dx: number, dy: number, limit: number): number;
  /** Mean step between neighbouring pixels in the body's image, 8-bit codes. */
  roughness(dx: number, dy: number): number;
  /** The same in the site's own ring. */
  readonly ringRoughness: number;
  /** Share of the body's image that is marked. */
  shareOf(mask: Uint8Array, dx: number, dy: number): number;
}

/** A window, its site and what is forbidden, prepared once for any number of views. */
export interface Scene {
  readonly window: Raster;
  readonly site: Uint8Array;
  readonly banned: Uint8Array;
  readonly box: Rect;
  readonly tones: Float32Array;
  /** 1 where a pixel is site or forbidden. */
  readonly blocked: Uint8Array;
  readonly forbidden: { isEmpty(x: number, y: number, w: number, h: number): boolean };
}

/** @returns null when the site is empty */
export function sceneOf(window: Raster, site: Uint8Array, banned: Uint8Array): Scene | null {
  const box = maskBox(site, window.width);
  if (!box) return null;
  const blocked = site.map((v, p) => v | banned[p]!);
  const forbidden = emptiness(window.width, window.height, blocked);
  return { window, site, banned, box, tones: tonesOf(window), blocked, forbidden };
}

/**
 * @param map where the site's pixels would come from at shift 0
 * @returns null when the site has no ring to compare
 */
export function ringView(
  { window, site, banned, box, tones, blocked, forbidden }: Scene,
  map: Affine,
  { matched = false, ring: wide = USUAL_RING, samples = USUAL_SAMPLES }: RingOptions,
): RingView | null {
  const { width, height } = window;
  const ring = scattered(thin(ringOf(site, banned, width, height, wide), samples));
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
  const reach = mapRect(map, intersect(grow(box, wide), frame));
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

  return {
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
    difference: (dx, dy, limit) =>
      compare(tones, wanted, known, ringImage, blocked, map, dy * width + dx, limit, matched),
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

/** Answers whether a box holds no marked pixel, by a summed-area table (Crow, SIGGRAPH 1984). */
function emptiness(width: number, height: number, mask: Uint8Array) {
  const stride = width + 1;
  const sums = new Int32Array(stride * (height + 1));
  for (let y = 0, p = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++, p++) {
      row += mask[p]!;
      sums[(y + 1) * stride + x + 1] = sums[y * stride + x + 1]! + row;
    }
  }
  return {
    isEmpty(x: number, y: number, w: number, h: number): boolean {
      const x0 = Math.max(0, x);
      const y0 = Math.max(0, y);
      const x1 = Math.min(width, x + w);
      const y1 = Math.min(height, y + h);
      const at = (i: number, j: number): number => sums[j * stride + i]!;
      return at(x1, y1) - at(x0, y1) - at(x1, y0) + at(x0, y0) === 0;
    },
  };
}

/**
 * The comparison itself: mean squared difference of colours and slopes of luma. Slopes are turned with the donor.
 * @param blocked 1 where pixels must not be compared with
 */
function compare(
  tones: Float32Array,
  wanted: Float32Array,
  known: Float32Array,
  image: Int32Array,
  blocked: Uint8Array,
  map: Affine,
  shift: number,
  limit: number,
  matched: boolean,
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

/** Five values a pixel: colour 0..255, and the slope of luma across and down (differences about the pixel). */
function tonesOf({ width, height, channels, data }: Raster): Float32Array {
  const scale = 255 / whiteOf(data);
  const colours = colourChannels(channels);
  const n = width * height;
  const tones = new Float32Array(VALUES * n);
  const luma = new Float32Array(n);
  for (let p = 0; p < n; p++) {
    for (let c = 0; c < 3; c++)
      tones[VALUES * p + c] = data[p * channels + (c < colours ? c : 0)]! * scale;
    luma[p] =
      0.299 * tones[VALUES * p]! + 0.587 * tones[VALUES * p + 1]! + 0.114 * tones[VALUES * p + 2]!;
  }
  for (let p = 0; p < n; p++) {
    const x = p % width;
    if (x > 0 && x < width - 1) tones[VALUES * p + 3] = (luma[p + 1]! - luma[p - 1]!) / 2;
    if (p >= width && p + width < n)
      tones[VALUES * p + 4] = (luma[p + width]! - luma[p - width]!) / 2;
  }
  return tones;
}

function ringOf(
  site: Uint8Array,
  banned: Uint8Array,
  width: number,
  height: number,
  wide: number,
): number[] {
  const marked = new Uint8Array(site.length);
  for (let p = 0; p < site.length; p++) {
    if (!site[p]) continue;
    const x = p % width;
    const y = (p / width) | 0;
    const inner =
      x > 0 &&
      y > 0 &&
      x + 1 < width &&
      y + 1 < height &&
      site[p - 1] &&
      site[p + 1] &&
      site[p - width] &&
      site[p + width];
    if (inner) continue;
    for (let b = Math.max(0, y - wide); b <= Math.min(height - 1, y + wide); b++)
      for (let a = Math.max(0, x - wide); a <= Math.min(width - 1, x + wide); a++)
        marked[b * width + a] = 1;
  }
  const ring: number[] = [];
  for (let p = 0; p < site.length; p++) if (marked[p] && !site[p] && !banned[p]) ring.push(p);
  return ring;
}

function pixelsOf(site: Uint8Array): number[] {
  const pixels: number[] = [];
  site.forEach((v, p) => v && pixels.push(p));
  return pixels;
}

/** The pixels in an order whose beginnings are spread over the whole (multiples of a step that has no common factor). */
function scattered(pixels: number[]): number[] {
  const n = pixels.length;
  let step = Math.max(1, Math.floor(n * 0.382));
  const common = (a: number, b: number): number => (b ? common(b, a % b) : a);
  while (common(step, n) > 1) step++;
  return pixels.map((_, k) => pixels[(k * step) % n]!);
}

/** At most so many of the pixels, evenly spread. */
function thin(pixels: number[], most: number): number[] {
  const step = pixels.length / most;
  if (step <= 1) return pixels;
  return Array.from({ length: most }, (_, k) => pixels[Math.floor(k * step)]!);
}
