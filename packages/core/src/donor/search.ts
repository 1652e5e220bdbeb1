import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';

/**
 * A place to copy from, as donor minus site in px, and how badly it fits: mean squared difference of the rings in
 * 8-bit codes, plus a little for distance (0 = perfectly).
 */
export interface DonorOffer {
  readonly dx: number;
  readonly dy: number;
  readonly misfit: number;
}

const RING = 3;
const MOST_SAMPLES = 400;
const COARSE_STEP = 4;
/** What the farthest place in reach counts beside a perfect fit, squared codes: about the grain of a photograph. */
const FAR = 6;

/**
 * Looks for donors whose ring looks like the site's own ring, near ones first in doubt.
 * @param window the picture below, the site in it
 * @param site 1 = covered by the site
 * @param banned 1 = must not be copied (other open sites)
 * @param reach how far from the site to look, px
 * @returns the best offer, or null when every place in reach overlaps something forbidden
 */
export function findDonor(
  window: Raster,
  site: Uint8Array,
  banned: Uint8Array,
  box: Rect,
  reach: number,
): DonorOffer | null {
  const { width, height, channels, data } = window;
  const ring = thin(ringOf(site, width, height));
  const body = thin(pixelsOf(site));
  const colours = colourChannels(channels);
  const scale = 255 / whiteOf(data);

  const misfit = (dx: number, dy: number, limit: number): number => {
    const shift = dy * width + dx;
    if (
      box.x + dx < RING ||
      box.y + dy < RING ||
      box.x + box.width + dx > width - RING ||
      box.y + box.height + dy > height - RING
    )
      return Infinity;
    for (const p of body) if (site[p + shift] || banned[p + shift]) return Infinity;
    const away = dx * dx + dy * dy;
    let sum = 0;
    const far = (FAR * away) / (reach * reach);
    const enough = (limit - far) * ring.length;
    for (const p of ring) {
      for (let c = 0; c < colours; c++) {
        const d = (data[p * channels + c]! - data[(p + shift) * channels + c]!) * scale;
        sum += d * d;
      }
      if (sum > enough) return Infinity;
    }
    return far + (ring.length ? sum / ring.length : 0);
  };

  let best: DonorOffer | null = null;
  const consider = (dx: number, dy: number): void => {
    const m = misfit(dx, dy, best ? best.misfit : Infinity);
    if (m < (best ? best.misfit : Infinity)) best = { dx, dy, misfit: m };
  };
  for (let dy = -reach; dy <= reach; dy += COARSE_STEP)
    for (let dx = -reach; dx <= reach; dx += COARSE_STEP) consider(dx, dy);
  const around: DonorOffer | null = best;
  if (around) {
    const { dx, dy } = around as DonorOffer;
    for (let b = -COARSE_STEP; b <= COARSE_STEP; b++)
      for (let a = -COARSE_STEP; a <= COARSE_STEP; a++) consider(dx + a, dy + b);
  }
  return best;
}

function ringOf(site: Uint8Array, width: number, height: number): number[] {
  const ring: number[] = [];
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++)
      if (!site[p] && touches(site, x, y, width, height)) ring.push(p);
  return ring;
}

function touches(site: Uint8Array, x: number, y: number, width: number, height: number): boolean {
  for (let dy = -RING; dy <= RING; dy++)
    for (let dx = -RING; dx <= RING; dx++) {
      const a = x + dx;
      const b = y + dy;
      if (a >= 0 && b >= 0 && a < width && b < height && site[b * width + a]) return true;
    }
  return false;
}

function pixelsOf(site: Uint8Array): number[] {
  const pixels: number[] = [];
  site.forEach((v, p) => v && pixels.push(p));
  return pixels;
}

/** At most {@link MOST_SAMPLES} of the pixels, evenly spread. */
function thin(pixels: number[]): number[] {
  const step = Math.max(1, Math.ceil(pixels.length / MOST_SAMPLES));
  return pixels.filter((_, i) => i % step === 0);
}
