import { halvesOf, layersOf } from '../raster/halves.js';
import { readingIn } from '../raster/layers.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { crop, frameOf, grow, intersect, unite } from '../raster/rect.js';
import { scoreOf } from '../survey/judge.js';
import { scratchesOf } from '../survey/scratches.js';
import { specksAt } from '../survey/specks.js';
import { strandsAt } from '../survey/strands.js';
import { strokePixels } from '../survey/stroke-mask.js';
import { boxOf } from './site-window.js';
import type { Tell, TellLimits } from './tell.js';
import { isBeyond, TELL_LIMITS } from './tell.js';

/** px round a site that are looked at with it: ground enough to tell what stands out. */
const ROUND = 24;
/** Sides of what is looked at at once, px, about: sites close to each other go together. */
const MOST_SIDE = 480;
/** Halvings at which specks and lines are looked for. */
const LEVELS = { specks: 3, lines: 2 } as const;
/** Log odds that a speck in a site needs by itself, and more with each halving; as untouched photographs ask for. */
const NEEDED = 0.5;
const BROAD = 0.5;
/** Share of what was found that lies in a site when it is the site's. */
const OWN = 0.5;

/** Damage that is still found in sites: the survey's specks and lines, looked for only around each. */
export function leftoversOf(
  picture: Raster,
  sites: readonly Int32Array[],
  limits: TellLimits = TELL_LIMITS,
): Tell[] {
  const owner = new Map<number, number>();
  sites.forEach((site, k) => {
    for (const p of site) owner.set(p, k);
  });
  const tells = new Map<string, Tell>();
  for (const rect of windowsOf(picture, sites)) {
    const place = (p: number): number =>
      (rect.y + Math.floor(p / rect.width)) * picture.width + rect.x + (p % rect.width);
    const isOwn = (p: number): boolean => owner.has(place(p));
    for (const { pixels, odds } of damageIn(crop(picture, rect), isOwn)) {
      const value = scoreOf(odds);
      if (!isBeyond('leftover', value, limits.leftover)) continue;
      const own = pixels.filter(isOwn);
      if (own.length < OWN * pixels.length) continue;
      const box = boxOf(pixels.map(place), picture.width);
      // Windows overlap: what two of them find is told once.
      tells.set(`${box.x} ${box.y}`, {
        kind: 'leftover',
        value,
        limit: limits.leftover,
        box,
        site: owner.get(place(own[0]!))!,
      });
    }
  }
  return [...tells.values()];
}

/** Specks and lines of a small picture. @param isOwn whether a pixel belongs to what is asked about */
function damageIn(
  picture: Raster,
  isOwn: (p: number) => boolean,
): { readonly pixels: Int32Array; readonly odds: number }[] {
  const layers = layersOf(halvesOf(picture), 0, LEVELS.specks);
  const specks = layers.flatMap((layer, level) => {
    const side = 2 ** level;
    const within = (p: number): boolean =>
      isOwn(
        Math.floor(p / layer.grey.width) * side * picture.width + (p % layer.grey.width) * side,
      );
    return specksAt(readingIn(layer), level, picture, { within });
  });
  const strands = layers
    .slice(0, LEVELS.lines)
    .flatMap(({ grey }, level) => strandsAt(grey, level));
  // A part does not tell the tone of the whole print.
  const lines = scratchesOf(strands, layers[0]!.grey, null);
  const found = [
    ...specks.map(({ site, odds, level }) => ({
      pixels: site,
      odds: odds - NEEDED - BROAD * level,
    })),
    ...lines.map((line) => ({ pixels: strokePixels(line, picture, 0.5), odds: line.odds })),
  ].sort((a, b) => b.odds - a.odds);
  // What a likelier one tells is told once.
  const taken = new Uint8Array(picture.width * picture.height);
  return found.filter(({ pixels }) => {
    if (pixels.some((p) => taken[p])) return false;
    for (const p of pixels) taken[p] = 1;
    return true;
  });
}

/** Rectangles that hold every site with its surroundings. */
function windowsOf(picture: Raster, sites: readonly Int32Array[]): Rect[] {
  const windows: Rect[] = [];
  for (const site of sites) {
    const rect = intersect(grow(boxOf(site, picture.width), ROUND), frameOf(picture));
    const near = windows.findIndex((w) => isWorthwhile(unite(w, rect), w, rect));
    if (near < 0) windows.push(rect);
    else windows[near] = unite(windows[near]!, rect);
  }
  return windows;
}

/** Whether two rectangles are looked at together at no more pixels than one after the other. */
function isWorthwhile(both: Rect, one: Rect, other: Rect): boolean {
  const area = ({ width, height }: Rect): number => width * height;
  return Math.max(both.width, both.height) <= MOST_SIDE && area(both) <= area(one) + area(other);
}
