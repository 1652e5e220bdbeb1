import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { Point } from '../shape/site.js';
import { placementMap, SCALE_LIMITS } from './placement.js';
import type { RingOptions, RingView } from './ring.js';
import { ringView, sceneOf } from './ring.js';
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

const STEP = 2;
/** Ring pixels of a glance, and how many places get a good look after it for every offer wanted. */
const GLANCE = 64;
const PROMISING = 10;
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
 * courses go on in phase), their texture like the texture around the site; near ones and ones that were not used
 * yet come first in doubt. Along clear edges the best place is settled between pixels.
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
  const best = shortList(count, Math.max(3, ALIKE * size));
  for (const way of waysOf(options)) {
    const map = placementMap({ dx: 0, dy: 0, ...way }, middle);
    const glance = ringView(scene, map, { ...options, samples: GLANCE });
    const look = ringView(scene, map, options);
    if (!glance || !look) continue;
    const step = way.turn || way.scale !== 1 ? 2 * STEP : STEP;
    // A glance at every place, then a good look at the most promising ones and around them.
    const promising = shortList(PROMISING * count, 1);
    const price = (view: RingView, dx: number, dy: number, limit: number): number => {
      const far = (FAR * (dx * dx + dy * dy)) / (reach * reach);
      return priceOf(view, used, dx, dy, far, limit);
    };
    for (let dy = -reach; dy <= reach; dy += step)
      for (let dx = -reach; dx <= reach; dx += step) {
        if (Math.abs(dx) < least && Math.abs(dy) < least) continue;
        const limit = promising.limit();
        const misfit = price(glance, dx, dy, limit);
        if (misfit < limit) promising.offer({ ...way, dx, dy, misfit });
      }
    for (const { dx, dy } of promising.offers)
      for (let b = -step + 1; b < step; b++)
        for (let a = -step + 1; a < step; a++) {
          const limit = best.limit();
          const misfit = price(look, dx + a, dy + b, limit);
          if (misfit < limit) best.offer({ ...way, dx: dx + a, dy: dy + b, misfit });
        }
  }
  return best.offers
    .map((o) => (options.whole ? o : settleBetween(window, site, banned, o)))
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

function priceOf(
  view: RingView,
  used: Uint8Array | undefined,
  dx: number,
  dy: number,
  far: number,
  limit: number,
): number {
  if (far >= limit || !view.isFree(dx, dy)) return Infinity;
  const ring = view.difference(dx, dy, limit - far);
  if (far + ring >= limit) return Infinity;
  const unlike = Math.abs(view.roughness(dx, dy) - view.ringRoughness);
  const rough = Math.max(0, unlike - view.ringRoughness * USUAL_UNLIKE);
  const again = used ? REPEAT * view.shareOf(used, dx, dy) : 0;
  return far + ring + TEXTURE * rough * rough + again;
}
