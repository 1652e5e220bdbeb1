import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect } from '../raster/rect.js';
import { resampleBy } from '../raster/resample.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import { maskBox } from '../shape/mask-box.js';
import type { DonorOffer } from './offer.js';

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
 */
export function settleBetween(
  window: Raster,
  site: Uint8Array,
  banned: Uint8Array,
  offer: DonorOffer,
): DonorOffer {
  if (offer.turn || offer.mirrorX || offer.mirrorY || offer.scale !== 1) return offer;
  if (offer.misfit < SHOWS) return offer;
  const frame = frameOf(window);
  const target = intersect(grow(maskBox(site, window.width)!, RING), frame);
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
    const at = (x: number, y: number): boolean =>
      x >= 0 && y >= 0 && x < window.width && y < window.height && site[y * window.width + x] === 1;
    for (let y = 0, k = 0; y < rect.height; y++)
      for (let x = 0; x < rect.width; x++, k++) {
        const [px, py] = [rect.x + x, rect.y + y];
        const p = py * window.width + px;
        if (site[p] || banned[p]) continue;
        if (
          at(px - RING, py) ||
          at(px + RING, py) ||
          at(px, py - RING) ||
          at(px, py + RING) ||
          at(px - 1, py) ||
          at(px + 1, py) ||
          at(px, py - 1) ||
          at(px, py + 1)
        )
          marked[k] = 1;
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
