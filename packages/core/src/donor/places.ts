import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { Glances, Places } from './glance.js';
import { rowOf, STRIDE } from './glance.js';
import type { RingView } from './ring-view.js';
import type { ShortList } from './short-list.js';
import { shortList } from './short-list.js';

/** Which places are looked at. */
export interface PlaceOptions {
  /** How far from the site to look, px. */
  reach: number;
  /** Places nearer than this both across and down are left out, px. @default 0 */
  least?: number;
  /** 1 where pixels were copied from already: taking them again would show as a repeat. */
  used?: Uint8Array;
}

/** A shift and what it costs, squared codes. */
export interface Place {
  readonly dx: number;
  readonly dy: number;
  readonly misfit: number;
}

/** Twice as many places as are wanted settle what the rest must stay below. */
const LIKELY = 2;
/** Where a good look is taken for every promising place: there first, then all round it. */
const BESIDE = [
  [0, 0],
  [-1, 0],
  [1, 0],
  [0, -1],
  [0, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
  [1, 1],
] as const;
/** More than any shift. */
const ROW = 65536;
/** What the farthest place in reach costs, squared codes: about the grain of a photograph. */
const FAR = 6;
/** What copying the same pixels again costs, squared codes. */
const REPEAT = 60;
/** What unlike texture costs, as a share of the squared difference of the steps. */
const TEXTURE = 2;
/** Share by which roughness differs from place to place anyhow. */
const USUAL_UNLIKE = 0.2;

/** Glances at every second place in reach both ways. @returns at most so many free ones that look likeliest, best first */
export function promisingPlaces(
  glances: Glances,
  view: RingView,
  window: Raster,
  most: number,
  options: PlaceOptions,
): readonly Place[] {
  const { reach, least = 0, used } = options;
  const places = placesFor(view.extent, window, reach);
  const { across, down } = places;
  const row = rowOf(across);
  const misfits = glances.at(view, places);
  const sure = new Float32Array(across * down);
  for (let j = 0, k = 0; j < down; j++)
    for (let i = 0; i < across; i++, k++)
      sure[k] =
        misfits[j * row + i]! + farness(places.dx + STRIDE * i, places.dy + STRIDE * j, reach);
  const list = shortList<Place>(most);
  // The likeliest ones first: they settle what the others must stay below.
  const likely = smallest(sure, LIKELY * most);
  take(-Infinity, likely);
  take(likely, Infinity);
  return list.offers;

  function take(from: number, to: number): void {
    let limit = list.limit();
    for (let k = 0; k < sure.length; k++) {
      if (!(sure[k]! < limit) || sure[k]! < from || sure[k]! >= to) continue;
      const dx = places.dx + STRIDE * (k % across);
      const dy = places.dy + STRIDE * ((k / across) | 0);
      if (!view.isFree(dx, dy) || (Math.abs(dx) < least && Math.abs(dy) < least)) continue;
      const misfit = sure[k]! + besidesRing(view, used, dx, dy);
      if (misfit >= limit) continue;
      list.offer({ dx, dy, misfit });
      limit = list.limit();
    }
  }
}

/** Takes a good look at places and all round them, and offers what is better than what the list holds. */
export function lookAround<T extends Place>(
  view: RingView,
  places: readonly Place[],
  list: ShortList<T>,
  offerOf: (place: Place) => T,
  { reach, used }: PlaceOptions,
): void {
  const tried = new Set<number>();
  for (const [right, down] of BESIDE)
    for (const place of places) {
      const [dx, dy] = [place.dx + right, place.dy + down];
      const told = dy * ROW + dx;
      if (tried.has(told)) continue;
      tried.add(told);
      const limit = list.limit();
      const far = farness(dx, dy, reach);
      if (far >= limit || !view.isFree(dx, dy)) continue;
      const sure = far + view.difference(dx, dy, limit - far);
      if (sure >= limit) continue;
      const misfit = sure + besidesRing(view, used, dx, dy);
      if (misfit < limit) list.offer(offerOf({ dx, dy, misfit }));
    }
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

function farness(dx: number, dy: number, reach: number): number {
  return (FAR * (dx * dx + dy * dy)) / (reach * reach);
}

/** What a place costs beside its ring's misfit: unlike texture, and copying what was copied already. */
function besidesRing(view: RingView, used: Uint8Array | undefined, dx: number, dy: number): number {
  const usual = view.ring.roughness;
  const rough = Math.max(0, Math.abs(view.roughness(dx, dy) - usual) - usual * USUAL_UNLIKE);
  const again = used ? REPEAT * view.shareOf(used, dx, dy) : 0;
  return TEXTURE * rough * rough + again;
}

/** The value that exactly so many values stay below, ties apart (Hoare's selection, CACM 1961); Infinity when there are no more than so many. */
function smallest(values: Float32Array, rank: number): number {
  if (rank >= values.length) return Infinity;
  const v = values.slice();
  let [from, to] = [0, v.length - 1];
  while (from < to) {
    const pivot = v[(from + to) >> 1]!;
    let [i, j] = [from, to];
    while (i <= j) {
      while (v[i]! < pivot) i++;
      while (v[j]! > pivot) j--;
      if (i > j) continue;
      [v[i], v[j]] = [v[j]!, v[i]!];
      i++;
      j--;
    }
    if (rank <= j) to = j;
    else if (rank >= i) from = i;
    else break;
  }
  return v[rank]!;
}
