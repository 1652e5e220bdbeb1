import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { DonorOffer } from './offer.js';
import { findDonors } from './search.js';

/** The counterpart of a half-lost symmetric thing. */
export interface Twin extends DonorOffer {
  /** How the twin has to be turned over: 'x' left-right, 'y' top-bottom, 'none' when it merely stands elsewhere. */
  readonly over: 'x' | 'y' | 'none';
  /** The line of symmetry as two points, px of the window; null where nothing is mirrored. */
  readonly axis: readonly [readonly [number, number], readonly [number, number]] | null;
}

/** A place that is merely like the site must fit so many times better than a mirrored one. */
const PLAIN = 1.6;
/** Turns that are tried, degrees. */
const TURN = 12;
/** How much of what still stands is compared, px. */
const CONTEXT = 10;

/**
 * Looks for the counterpart of what is left around a lost area: the other eye or window, the opposite corner.
 * What still stands around the site is compared with mirrored, turned and plain places of the window.
 * @param box where the site lies in the window
 * @returns the best twins, best first, at most one of each kind
 */
export function findTwins(
  window: Raster,
  site: Uint8Array,
  banned: Uint8Array,
  box: Rect,
  reach: number,
): Twin[] {
  const twins: Twin[] = [];
  for (const over of ['x', 'y', 'none'] as const) {
    const [found] = findDonors(window, site, banned, box, {
      reach,
      count: 1,
      ways: over,
      turn: over === 'none' ? 0 : TURN,
      ring: CONTEXT,
    });
    if (found) twins.push({ ...found, over, axis: axisOf(found, over, box) });
  }
  const price = (twin: Twin): number => twin.misfit * (twin.over === 'none' ? PLAIN : 1);
  return twins.sort((a, b) => price(a) - price(b));
}

function axisOf(offer: DonorOffer, over: Twin['over'], box: Rect): Twin['axis'] {
  const x = box.x + (box.width - 1) / 2 + offer.dx / 2;
  const y = box.y + (box.height - 1) / 2 + offer.dy / 2;
  const half = Math.max(box.width, box.height);
  if (over === 'x')
    return [
      [x, y - half],
      [x, y + half],
    ];
  if (over === 'y')
    return [
      [x - half, y],
      [x + half, y],
    ];
  return null;
}
