import { grow, intersect } from '../raster/rect.js';
import type { SiteAt } from './scene.js';

/**
 * Pixels round a site, in reading order: all that are no farther than `near` px from it, and every third of those up to `beyond` px
 * farther off; none that is blocked, as the site's own must be.
 */
export function ringOf(
  { pixels, box }: SiteAt,
  blocked: Uint8Array,
  width: number,
  near: number,
  beyond: number,
): number[] {
  const frame = { x: 0, y: 0, width, height: blocked.length / width };
  const rect = intersect(grow(box, near + beyond), frame);
  const site = new Uint8Array(rect.width * rect.height);
  for (const p of pixels)
    site[(((p / width) | 0) - rect.y) * rect.width + (p % width) - rect.x] = 1;
  const inner = around(site, rect.width, near);
  const outer = beyond > 0 ? around(site, rect.width, near + beyond) : inner;
  const ring: number[] = [];
  for (let y = rect.y, k = 0; y < rect.y + rect.height; y++)
    for (let x = rect.x; x < rect.x + rect.width; x++, k++) {
      const p = y * width + x;
      if (!outer[k] || blocked[p]) continue;
      if (inner[k] || (x + y) % 3 === 0) ring.push(p);
    }
  return ring;
}

/** 1 where a pixel is no farther than `wide` px from the site's border. */
function around(site: Uint8Array, width: number, wide: number): Uint8Array {
  const height = site.length / width;
  const marked = new Uint8Array(site.length);
  for (let p = site.indexOf(1); p >= 0; p = site.indexOf(1, p + 1)) {
    const x = p % width;
    const y = (p / width) | 0;
    const inside =
      x > 0 &&
      y > 0 &&
      x + 1 < width &&
      y + 1 < height &&
      site[p - 1] &&
      site[p + 1] &&
      site[p - width] &&
      site[p + width];
    if (inside) continue;
    for (let b = Math.max(0, y - wide); b <= Math.min(height - 1, y + wide); b++)
      marked.fill(
        1,
        b * width + Math.max(0, x - wide),
        b * width + Math.min(width - 1, x + wide) + 1,
      );
  }
  return marked;
}

/** The pixels in an order whose beginnings are spread over the whole (multiples of a step that has no common factor). */
export function scattered(pixels: ArrayLike<number>): Int32Array {
  const n = pixels.length;
  let step = Math.max(1, Math.floor(n * 0.382));
  const common = (a: number, b: number): number => (b ? common(b, a % b) : a);
  while (common(step, n) > 1) step++;
  return Int32Array.from({ length: n }, (_, k) => pixels[(k * step) % n]!);
}

/** At most so many of the pixels, evenly spread. */
export function thin(pixels: ArrayLike<number>, most: number): ArrayLike<number> {
  const step = pixels.length / most;
  if (step <= 1) return pixels;
  return Int32Array.from({ length: most }, (_, k) => pixels[Math.floor(k * step)]!);
}
