import type { Raster } from '../raster/raster.js';
import { colourChannels } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect } from '../raster/rect.js';
import { weigh } from '../raster/resample.js';
import type { DonorOffer } from './offer.js';
import type { SiteAt } from './scene.js';

/** Shares of a pixel that are tried, both ways. */
const SHARES = [-0.5, -0.25, 0, 0.25, 0.5];
const WHOLE = SHARES.length * SHARES.indexOf(0) + SHARES.indexOf(0);
/** Interpolation smooths grain, which alone takes away up to 0.3 of the difference: it must leave less than this share. */
const WORTH = 0.5;
/** Below this difference nothing shows that could be bettered, squared codes. */
const SHOWS = 30;
const RING = 4;
/** Pixels to either side that a value between pixels is made of, and all of them. */
const AROUND = 2;
const SPAN = 2 * AROUND + 1;
/** What each of those counts, share by share. */
const WEIGHTS = Float64Array.from(SHARES.flatMap(weightsOf));

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
  const ring = besides(site, blocked, window, offer);
  const sums = differences(window, ring, offer.dy * window.width + offer.dx);
  let [best, least] = [WHOLE, sums[WHOLE]! * WORTH];
  for (let k = 0; k < sums.length; k++) if (sums[k]! < least) [best, least] = [k, sums[k]!];
  if (best === WHOLE) return offer;
  return {
    ...offer,
    dx: offer.dx + SHARES[best % SHARES.length]!,
    dy: offer.dy + SHARES[Math.floor(best / SHARES.length)]!,
    misfit: offer.misfit * (least / sums[WHOLE]!),
  };
}

function weightsOf(share: number): number[] {
  const taps = new Float64Array(2 * AROUND);
  const first = weigh(share, 1, taps.length, taps) + AROUND;
  return Array.from({ length: SPAN }, (_, k) => taps[k - first] ?? 0);
}

/** Pixels beside the site that are held against their images. */
function besides(
  { pixels, box }: SiteAt,
  blocked: Uint8Array,
  { width, height }: Raster,
  { dx, dy }: DonorOffer,
): Int32Array {
  const frame = frameOf({ width, height });
  // What a value between pixels is made of must lie in the window.
  const images: Rect = {
    x: AROUND - dx,
    y: AROUND - dy,
    width: width - 2 * AROUND,
    height: height - 2 * AROUND,
  };
  const room = intersect(intersect(grow(box, RING), frame), images);
  const marked = new Uint8Array(Math.max(0, room.width * room.height));
  const mark = (x: number, y: number): void => {
    const [i, j] = [x - room.x, y - room.y];
    if (i < 0 || j < 0 || i >= room.width || j >= room.height) return;
    if (!blocked[y * width + x]) marked[j * room.width + i] = 1;
  };
  for (const p of pixels) {
    const x = p % width;
    const y = (p / width) | 0;
    for (const by of [-RING, -1, 1, RING]) {
      mark(x + by, y);
      mark(x, y + by);
    }
  }
  const ring: number[] = [];
  for (let k = marked.indexOf(1); k >= 0; k = marked.indexOf(1, k + 1))
    ring.push((room.y + ((k / room.width) | 0)) * width + room.x + (k % room.width));
  return Int32Array.from(ring);
}

/** Sums of squared differences between pixels and what lies a shift and shares of a pixel beside them: rows of shares across. */
function differences(
  { width, channels, data }: Raster,
  ring: Int32Array,
  shift: number,
): Float64Array {
  const tried = SHARES.length;
  const sums = new Float64Array(tried * tried);
  const across = new Float64Array(SPAN * tried);
  for (let c = 0; c < colourChannels(channels); c++)
    for (const p of ring) {
      const own = data[p * channels + c]!;
      interpolate(data, (p + shift) * channels + c, channels, width * channels, across);
      addUp(across, own, sums);
    }
  return sums;
}

/** Values between the pixels of every row about a place, row by row. */
function interpolate(
  data: Raster['data'],
  at: number,
  step: number,
  stride: number,
  across: Float64Array,
): void {
  for (let j = 0, k = 0; j < SPAN; j++) {
    const from = at + (j - AROUND) * stride - AROUND * step;
    for (let w = 0; w < WEIGHTS.length; k++) {
      let sum = 0;
      for (let i = 0; i < SPAN; i++, w++) sum += WEIGHTS[w]! * data[from + i * step]!;
      across[k] = sum;
    }
  }
}

/** Goes on between the rows, and adds the squared differences up. */
function addUp(across: Float64Array, own: number, sums: Float64Array): void {
  const tried = SHARES.length;
  for (let b = 0; b < tried; b++)
    for (let a = 0; a < tried; a++) {
      let sum = -own;
      for (let j = 0; j < SPAN; j++) sum += WEIGHTS[b * SPAN + j]! * across[j * tried + a]!;
      sums[b * tried + a]! += sum * sum;
    }
}
