import { grow, intersect, frameOf } from '../raster/rect.js';
import type { Rect } from '../raster/rect.js';
import { ringOf, scattered, thin } from './ring-pixels.js';
import type { Scene, SiteAt } from './scene.js';
import { VALUES } from './scene.js';

const USUAL_RING = 3;
const USUAL_SAMPLES = 600;
/** Slopes of luma count this much beside colours. */
export const SLOPES = 9;

/** Options of {@link ringsAround}. */
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

/** What stands around a site. */
export interface Ring {
  /** Pixels of the window, in an order whose beginnings are spread over the whole. */
  readonly pixels: Int32Array;
  /** Five values a pixel, as {@link Scene.tones}. */
  readonly wanted: Float32Array;
  /** What the squared difference of either slope counts, two values a pixel; 0 where it is not known. */
  readonly known: Float32Array;
  readonly matched: boolean;
  /** Mean step between neighbouring pixels, 8-bit codes. */
  readonly roughness: number;
  /** What the whole ring and the site in it take up. */
  readonly extent: Rect;
}

/**
 * @returns the ring seen at no more than so many pixels, as often as asked; null when the site has no ring to compare
 */
export function ringsAround(
  { window, blocked, tones }: Scene,
  site: SiteAt,
  { matched = false, ring: near = USUAL_RING, beyond = 0, samples = USUAL_SAMPLES }: RingOptions,
): ((most?: number) => Ring) | null {
  const { width, height } = window;
  const all = ringOf(site, blocked, width, near, beyond);
  if (!all.length) return null;
  const extent = intersect(grow(site.box, near + beyond), frameOf({ width, height }));
  return (most = samples) => {
    const pixels = scattered(thin(all, most));
    const n = pixels.length;
    const wanted = new Float32Array(VALUES * n);
    const known = new Float32Array(2 * n);
    const steps = [0, 0];
    const counts = [0, 0];
    for (let k = 0; k < n; k++) {
      const p = pixels[k]!;
      for (let v = 0; v < VALUES; v++) wanted[VALUES * k + v] = tones[VALUES * p + v]!;
      const x = p % width;
      const sides = [
        x > 0 && x < width - 1 && !blocked[p - 1] && !blocked[p + 1],
        p >= width && p + width < blocked.length && !blocked[p - width] && !blocked[p + width],
      ];
      for (let way = 0; way < 2; way++) {
        if (!sides[way]) continue;
        known[2 * k + way] = SLOPES;
        steps[way]! += Math.abs(tones[VALUES * p + 3 + way]!);
        counts[way]!++;
      }
    }
    const roughness = steps.reduce((sum, step, way) => sum + step / Math.max(1, counts[way]!), 0);
    return { pixels, wanted, known, matched, roughness, extent };
  };
}
