import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect } from '../raster/rect.js';
import { resampleBy } from '../raster/resample.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { DonorOffer } from './offer.js';
import type { SiteAt } from './scene.js';

/** Shares of a pixel that are tried. */
const SHARES = [-0.5, -0.25, 0, 0.25, 0.5];
/** Interpolation smooths grain, which alone takes away up to 0.3 of the difference: it must leave less than this share. */
const WORTH = 0.5;
/** Below this difference nothing shows that could be bettered, squared codes. */
const SHOWS = 30;
const RING = 4;

/**
 * Settles a shift between pixels where that brings edges much better into register. Turned or scaled offers are
 * interpolated anyhow and stay.
 * @param blocked 1 where pixels are not compared with, the site's among them
 */
export function settleBetween(
  window: Raster,
  blocked: Uint8Array,
  site: SiteAt,
  offer: DonorOffer,
): DonorOffer {
  if (offer.turn || offer.mirrorX || offer.mirrorY || offer.scale !== 1) return offer;
  if (offer.misfit < SHOWS) return offer;
  const frame = frameOf(window);
  const target = intersect(grow(site.box, RING), frame);
  const ring = ringIn(target);
  const whole = differenceAt(0, 0);
  let best = { ...offer };
  let least = whole * WORTH;
  for (const b of SHARES)
    for (const a of SHARES) {
      if (a === 0 && b === 0) continue;
      const d = differenceAt(a, b);
      if (d >= least) continue;
      least = d;
      best = { ...offer, dx: offer.dx + a, dy: offer.dy + b, misfit: offer.misfit * (d / whole) };
    }
  return best;

  /** Pixels beside the site, 1 each. */
  function ringIn(rect: Rect): Uint8Array {
    const marked = new Uint8Array(rect.width * rect.height);
    const mark = (x: number, y: number): void => {
      const [i, j] = [x - rect.x, y - rect.y];
      if (i < 0 || j < 0 || i >= rect.width || j >= rect.height) return;
      if (!blocked[y * window.width + x]) marked[j * rect.width + i] = 1;
    };
    for (const p of site.pixels) {
      const x = p % window.width;
      const y = (p / window.width) | 0;
      for (const by of [-RING, -1, 1, RING]) {
        mark(x + by, y);
        mark(x, y + by);
      }
    }
    return marked;
  }

  function differenceAt(a: number, b: number): number {
    const { raster, valid } = resampleBy(
      window,
      frame,
      (x, y, to) => {
        to[0] = x + offer.dx + a;
        to[1] = y + offer.dy + b;
      },
      1,
      target,
      frame,
      (k) => ring[k] === 1,
    );
    const { channels, data } = window;
    const colours = colourChannels(channels);
    const scale = 255 / whiteOf(data);
    let sum = 0;
    let count = 0;
    for (let y = 0, k = 0; y < target.height; y++) {
      for (let x = 0; x < target.width; x++, k++) {
        const p = (target.y + y) * window.width + target.x + x;
        if (!valid[k] || !ring[k]) continue;
        count++;
        for (let c = 0; c < colours; c++) {
          const d = (data[p * channels + c]! - raster.data[k * channels + c]!) * scale;
          sum += d * d;
        }
      }
    }
    return count ? sum / count : Infinity;
  }
}
