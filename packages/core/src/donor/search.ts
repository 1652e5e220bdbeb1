import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { Point } from '../shape/site.js';
import { disagreements } from './agreement.js';
import { glancesOver, MOST_RING, STRIDE } from './glance.js';
import type { DonorOffer } from './offer.js';
import { placementMap } from './placement.js';
import type { PlaceOptions } from './places.js';
import { lookAround, promisingPlaces } from './places.js';
import type { RingOptions } from './ring.js';
import { ringsAround } from './ring.js';
import { ringView } from './ring-view.js';
import type { SiteAt } from './scene.js';
import { sceneOf } from './scene.js';
import { settleBetween } from './settle.js';
import { shortList } from './short-list.js';
import type { WayOptions } from './ways.js';
import { isLaid, waysOf } from './ways.js';

/** Options of {@link findDonors}. */
export interface DonorSearchOptions extends RingOptions, WayOptions, PlaceOptions {
  /** Offers wanted at most, unlike each other. @default 5 */
  count?: number;
  /** Whether shifts stay whole pixels. @default false */
  whole?: boolean;
}

/** How many places get a good look after the glance for every offer wanted. */
const PROMISING = 10;
/** How many of the best places are held against one another, and how many are tried for each. */
const AGREEING = 16;
const TRIED = 6;
/** Offers closer together than this share of the site's size are one offer. */
const ALIKE = 0.3;

/**
 * Ranks places to copy from: their ring must look like the site's (colour, and colour steps so that edges and
 * courses go on in phase), their texture like the texture around the site, and what they hold like what the others
 * hold; near ones and ones that were not used yet come first in doubt. Along clear edges the best place is settled between pixels.
 * @param window the picture below, the site in it
 * @param site 1 = covered by the site
 * @param banned 1 = must not be copied or compared with (open findings, other sites)
 * @param box where the site lies in the window
 * @returns the best offers, best first; empty when every place in reach overlaps something forbidden
 */
export function findDonors(
  window: Raster,
  site: Uint8Array,
  banned: Uint8Array,
  box: Rect,
  options: DonorSearchOptions,
): DonorOffer[] {
  const pixels: number[] = [];
  for (let p = site.indexOf(1); p >= 0; p = site.indexOf(1, p + 1)) pixels.push(p);
  if (!pixels.length) return [];
  const blocked = site.map((v, p) => v | banned[p]!);
  return donorGround(window, blocked, options.reach).find(
    { pixels: Int32Array.from(pixels), box },
    options,
  );
}

/** A window made ready for searches, one after the other. */
export interface DonorGround {
  /** @see findDonors */
  find(site: SiteAt, options: DonorSearchOptions): DonorOffer[];
  /** Takes in pixels that were mended; marks may only have gone. */
  renew(rect: Rect): void;
}

/**
 * @param blocked 1 where a pixel must be neither copied nor compared with; every site's own must be
 * @param most the farthest any search may look, px
 * @returns good until the next ground is made
 */
export function donorGround(window: Raster, blocked: Uint8Array, most: number): DonorGround {
  const scene = sceneOf(window, blocked);
  const side = Math.floor((2 * most) / STRIDE) + 1;
  const glances = glancesOver(scene, { across: side, down: side });
  return {
    renew(rect) {
      scene.renew(rect);
      glances.renew(rect);
    },
    find(site, options) {
      const { count = 5 } = options;
      const { box } = site;
      const middle: Point = [box.x + (box.width - 1) / 2, box.y + (box.height - 1) / 2];
      const size = Math.max(box.width, box.height);
      const ringOf = ringsAround(scene, site, options);
      if (!ringOf) return [];
      const [few, many] = [ringOf(MOST_RING), ringOf()];
      const near = Math.max(3, ALIKE * size);
      const best = shortList<DonorOffer>(
        Math.max(count, AGREEING),
        (a, b) => Math.abs(a.dx - b.dx) < near && Math.abs(a.dy - b.dy) < near && isLaid(a, b),
      );
      const bodies = new Map<DonorOffer, Float32Array>();
      const most = Math.max(PROMISING * count, TRIED * AGREEING);
      for (const way of waysOf(options)) {
        const map = placementMap({ dx: 0, dy: 0, ...way }, middle);
        const glance = ringView(scene, site, few, map);
        const look = ringView(scene, site, many, map);
        // A glance at every place, then a good look at the most promising ones and around them.
        const promising = promisingPlaces(glances, glance, window, most, options);
        lookAround(look, promising, best, (place) => ({ ...way, ...place }), options);
        for (const offer of best.offers)
          if (isLaid(offer, way) && !bodies.has(offer))
            bodies.set(offer, look.body(offer.dx, offer.dy));
      }
      return agreeing(best.offers, bodies)
        .slice(0, count)
        .map((o) => (options.whole ? o : settleBetween(window, blocked, site, o)))
        .sort((a, b) => a.misfit - b.misfit);
    },
  };
}

/** Offers with what they disagree about added to their misfits, best first. */
function agreeing(
  offers: readonly DonorOffer[],
  bodies: ReadonlyMap<DonorOffer, Float32Array>,
): DonorOffer[] {
  if (offers.length < 3) return [...offers];
  const unlike = disagreements(
    offers.map((offer) => ({ misfit: offer.misfit, body: bodies.get(offer)! })),
  );
  return offers
    .map((offer, k) => ({ ...offer, misfit: offer.misfit + unlike[k]! }))
    .sort((a, b) => a.misfit - b.misfit);
}
