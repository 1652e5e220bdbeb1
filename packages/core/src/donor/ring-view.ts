import type { Affine } from '../raster/affine.js';
import { mapRect } from '../raster/affine.js';
import type { Rect } from '../raster/rect.js';
import type { Ring } from './ring.js';
import { thin } from './ring-pixels.js';
import type { Scene, SiteAt } from './scene.js';
import { VALUES } from './scene.js';

const MOST_BODY = 120;
/** By how many ring pixels' worth of misfit a place may be ahead of its share before it is given up. */
const DOUBT = 8;
/** What a ring pixel costs that meets something unknown, squared codes. */
export const UNKNOWN = 400;
/** What a step of tone costs when the tone will be matched. */
export const MATCHED_TONE = 0.12;

/** A site's ring and body, seen at other places of the window. */
export interface RingView {
  readonly ring: Ring;
  readonly map: Affine;
  /** The window's pixel every ring pixel is held against at shift 0. */
  readonly image: Int32Array;
  /** What the ring and the body take up at shift 0. */
  readonly extent: Rect;
  /** Whether nothing blocked lies in the body and the ring's image lies in the window. */
  isFree(dx: number, dy: number): boolean;
  /** Mean squared difference of the rings, 8-bit codes; at least `limit` once that is reached. */
  difference(dx: number, dy: number, limit: number): number;
  /** Mean step between neighbouring pixels in the body's image, 8-bit codes. */
  roughness(dx: number, dy: number): number;
  /** Colours of the body's image, three values 0..255 a pixel, at no more than {@link MOST_BODY} pixels; their tone matched if it will be. */
  body(dx: number, dy: number): Float32Array;
  /** Share of the body's image that is marked. */
  shareOf(mask: Uint8Array, dx: number, dy: number): number;
}

/** @param map where the site's pixels would come from at shift 0 */
export function ringView(scene: Scene, site: SiteAt, ring: Ring, map: Affine): RingView {
  const { window, tones, blocked } = scene;
  const { width, height } = window;
  const imageOf = (pixels: ArrayLike<number>): Int32Array =>
    Int32Array.from(pixels, (p) => {
      const x = p % width;
      const y = (p / width) | 0;
      const sx = Math.floor(map.a * x + map.b * y + map.c + 0.5);
      const sy = Math.floor(map.d * x + map.e * y + map.f + 0.5);
      return sy * width + sx;
    });
  const image = imageOf(ring.pixels);
  // Whether a donor overlaps something is told by every pixel, how it looks by some.
  const whole = imageOf(site.pixels);
  const some = thin(whole, MOST_BODY);
  const extent = mapRect(map, ring.extent);
  const box = mapRect(map, site.box);
  return {
    ring,
    map,
    image,
    extent,
    isFree(dx, dy) {
      const x = extent.x + dx;
      const y = extent.y + dy;
      if (x < 0 || y < 0 || x + extent.width > width || y + extent.height > height) return false;
      if (scene.isClear(box.x + dx, box.y + dy, box.width, box.height)) return true;
      const shift = dy * width + dx;
      for (let k = 0; k < whole.length; k++) if (blocked[whole[k]! + shift]) return false;
      return true;
    },
    difference: (dx, dy, limit) => compare(scene, ring, map, image, dy * width + dx, limit),
    body(dx, dy) {
      const shift = dy * width + dx;
      const step = ring.matched ? toneStep(scene, ring, image, shift) : [0, 0, 0];
      const colours = new Float32Array(3 * some.length);
      for (let k = 0, i = 0; k < some.length; k++)
        for (let c = 0; c < 3; c++, i++)
          colours[i] = tones[VALUES * (some[k]! + shift) + c]! + step[c]!;
      return colours;
    },
    roughness(dx, dy) {
      const shift = dy * width + dx;
      let sum = 0;
      for (let k = 0; k < some.length; k++) {
        const q = VALUES * (some[k]! + shift);
        sum += Math.abs(tones[q + 3]!) + Math.abs(tones[q + 4]!);
      }
      return sum / some.length;
    },
    shareOf(mask, dx, dy) {
      const shift = dy * width + dx;
      let sum = 0;
      for (let k = 0; k < some.length; k++) sum += mask[some[k]! + shift]!;
      return sum / some.length;
    },
  };
}

/** The comparison itself: mean squared difference of colours and slopes of luma. Slopes are turned with the donor. */
function compare(
  { tones, blocked }: Scene,
  { wanted, known, matched }: Ring,
  { a: xx, b: xy, d: yx, e: yy }: Affine,
  image: Int32Array,
  shift: number,
  limit: number,
): number {
  const n = image.length;
  const enough = limit * n;
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
  { tones, blocked }: Scene,
  { wanted }: Ring,
  image: Int32Array,
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
