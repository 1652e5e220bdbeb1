import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { Point } from '../shape/site.js';
import { disagreements } from './agreement.js';
import type { Places } from './glance.js';
import { glancesOver, rowOf, STRIDE } from './glance.js';
import { placementMap, SCALE_LIMITS } from './placement.js';
import type { RingOptions, RingView } from './ring.js';
import { ringView } from './ring.js';
import { sceneOf } from './scene.js';
import type { DonorOffer } from './offer.js';
import { settleBetween } from './settle.js';

/** Options of {@link findDonors}. */
export interface DonorSearchOptions extends RingOptions {
  /** How far from the site to look, px. */
  reach: number;
  /** Places nearer than this both across and down are left out, px. @default 0 */
  least?: number;
  /** Offers wanted at most, unlike each other. @default 5 */
  count?: number;
  /** Greatest turn tried, degrees. @default 0 */
  turn?: number;
  /** Whether mirrored donors are tried as well. @default false */
  mirror?: boolean;
  /** Tries only donors that are turned over left-right ('x'), top-bottom ('y') or not at all. @default by `mirror` */
  ways?: 'x' | 'y' | 'none';
  /** Least and greatest scale tried. @default [1, 1] */
  scale?: readonly [least: number, most: number];
  /** Whether shifts stay whole pixels. @default false */
  whole?: boolean;
  /** 1 where pixels were copied from already: taking them again would show as a repeat. */
  used?: Uint8Array;
}

/** Ring pixels of a glance, and how many places get a good look after it for every offer wanted. */
const GLANCE = 64;
const PROMISING = 10;
/** How many of the best places are held against one another, and how many are tried for each. */
const AGREEING = 16;
const TRIED = 3;
/** What the farthest place in reach costs, squared codes: about the grain of a photograph. */
const FAR = 6;
/** What copying the same pixels again costs, squared codes. */
const REPEAT = 60;
/** What unlike texture costs, as a share of the squared difference of the deviations. */
const TEXTURE = 0.5;
/** Share by which roughness differs from place to place anyhow. */
const USUAL_UNLIKE = 0.25;
/** Offers closer together than this share of the site's size are one offer. */
const ALIKE = 0.3;
const TURN_STEPS = 4;

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
  const { reach, least = 0, count = 5, used } = options;
  const middle: Point = [box.x + (box.width - 1) / 2, box.y + (box.height - 1) / 2];
  const size = Math.max(box.width, box.height);
  const scene = sceneOf(window, site, banned);
  if (!scene) return [];
  const side = Math.floor((2 * reach) / STRIDE) + 1;
  const glances = glancesOver(scene, { ring: GLANCE, across: side, down: side });
  const best = shortList(Math.max(count, AGREEING), Math.max(3, ALIKE * size));
  const bodies = new Map<DonorOffer, Float32Array>();
  for (const way of waysOf(options)) {
    const map = placementMap({ dx: 0, dy: 0, ...way }, middle);
    const glance = ringView(scene, map, { ...options, samples: GLANCE });
    const look = ringView(scene, map, options);
    if (!glance || !look) continue;
    const farness = (dx: number, dy: number): number =>
      (FAR * (dx * dx + dy * dy)) / (reach * reach);
    // A glance at every place, then a good look at the most promising ones and around them.
    const promising = shortList(Math.max(PROMISING * count, TRIED * AGREEING), 1);
    const places = placesFor(glance.extent, window, reach);
    const misfits = glances(glance.ring, places);
    const row = rowOf(places.across);
    let limit = Infinity;
    for (let j = 0, dy = places.dy; j < places.down; j++, dy += STRIDE)
      for (let i = j * row, dx = places.dx; i < j * row + places.across; i++, dx += STRIDE) {
        if (misfits[i]! >= limit) continue;
        const sure = misfits[i]! + farness(dx, dy);
        if (sure >= limit || !glance.isFree(dx, dy)) continue;
        if (Math.abs(dx) < least && Math.abs(dy) < least) continue;
        const misfit = sure + besidesRing(glance, used, dx, dy);
        if (misfit >= limit) continue;
        promising.offer({ ...way, dx, dy, misfit });
        limit = promising.limit();
      }
    for (const { dx, dy } of promising.offers)
      for (let b = 1 - STRIDE; b < STRIDE; b++)
        for (let a = 1 - STRIDE; a < STRIDE; a++) {
          const limit = best.limit();
          const far = farness(dx + a, dy + b);
          if (far >= limit || !look.isFree(dx + a, dy + b)) continue;
          const sure = far + look.difference(dx + a, dy + b, limit - far);
          if (sure >= limit) continue;
          const misfit = sure + besidesRing(look, used, dx + a, dy + b);
          if (misfit < limit) best.offer({ ...way, dx: dx + a, dy: dy + b, misfit });
        }
    for (const offer of best.offers)
      if (isLaid(offer, way) && !bodies.has(offer))
        bodies.set(offer, look.body(offer.dx, offer.dy));
  }
  return agreeing(best.offers, bodies)
    .slice(0, count)
    .map((o) => (options.whole ? o : settleBetween(window, site, banned, o)))
    .sort((a, b) => a.misfit - b.misfit);
}

/** Places whose whole image lies in the window, no farther than `reach` px. */
function placesFor(extent: Rect, { width, height }: Raster, reach: number): Places {
  const along = (from: number, length: number, whole: number): [number, number] => {
    const first = Math.max(-reach, -from);
    const last = Math.min(reach, whole - from - length);
    return [first, Math.max(0, Math.floor((last - first) / STRIDE) + 1)];
  };
  const [dx, across] = along(extent.x, extent.width, width);
  const [dy, down] = along(extent.y, extent.height, height);
  return { dx, dy, across, down };
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

/** The best offers so far, best first, no two of them closer together than `near` px. */
function shortList(most: number, near: number) {
  const offers: DonorOffer[] = [];
  return {
    offers,
    limit: (): number => (offers.length < most ? Infinity : offers.at(-1)!.misfit),
    offer(found: DonorOffer): void {
      if (near > 1) {
        const twin = offers.findIndex(
          (o) =>
            Math.abs(o.dx - found.dx) < near &&
            Math.abs(o.dy - found.dy) < near &&
            isLaid(o, found),
        );
        if (twin >= 0) {
          if (offers[twin]!.misfit <= found.misfit) return;
          offers.splice(twin, 1);
        }
      }
      let at = offers.length;
      while (at > 0 && offers[at - 1]!.misfit > found.misfit) at--;
      offers.splice(at, 0, found);
      if (offers.length > most) offers.pop();
    },
  };
}

/** Whether two donors are turned, mirrored and scaled alike. */
function isLaid(a: Way, b: Way): boolean {
  return (
    a.turn === b.turn && a.mirrorX === b.mirrorX && a.mirrorY === b.mirrorY && a.scale === b.scale
  );
}

type Way = Omit<DonorOffer, 'dx' | 'dy' | 'misfit'>;

/** The turns, mirrors and scales to be tried; as it stands comes first. */
function waysOf({ turn = 0, mirror = false, ways, scale = [1, 1] }: DonorSearchOptions): Way[] {
  const turns = [0];
  for (let k = 1; k <= TURN_STEPS && turn > 0; k++)
    turns.push((turn * k) / TURN_STEPS, (-turn * k) / TURN_STEPS);
  const scales = [1];
  for (const s of scale) {
    const within = Math.min(SCALE_LIMITS.most, Math.max(SCALE_LIMITS.least, s));
    if (within !== 1) scales.push(within, Math.sqrt(within));
  }
  const overs = ways ? [ways] : mirror ? (['none', 'x'] as const) : (['none'] as const);
  return overs.flatMap((over) =>
    scales.flatMap((s) =>
      turns.map((t) => ({ turn: t, mirrorX: over === 'x', mirrorY: over === 'y', scale: s })),
    ),
  );
}

/** What a place costs beside its ring's misfit: unlike texture, and copying what was copied already. */
function besidesRing(view: RingView, used: Uint8Array | undefined, dx: number, dy: number): number {
  const unlike = Math.abs(view.roughness(dx, dy) - view.ringRoughness);
  const rough = Math.max(0, unlike - view.ringRoughness * USUAL_UNLIKE);
  const again = used ? REPEAT * view.shareOf(used, dx, dy) : 0;
  return TEXTURE * rough * rough + again;
}
