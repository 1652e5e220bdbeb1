import type { DonorOffer } from '../donor/offer.js';
import type { DonorSearchOptions } from '../donor/search.js';
import { findDonors } from '../donor/search.js';
import { settleBetween } from '../donor/settle.js';
import { placementMap } from '../donor/placement.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { crop, frameOf, grow, intersect } from '../raster/rect.js';
import { resample, resampleReads } from '../raster/resample.js';
import { deepestOf } from '../shape/depth.js';
import { partsOf } from '../shape/parts.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import type { DonorInput } from './clone.js';

/** Options of {@link copyByPortions}. */
export interface PortionOptions extends Partial<Omit<DonorSearchOptions, 'count' | 'used'>> {
  /** A portion of no more than this side is not cut any more, px. @default from the site's depth */
  side?: number;
}

/** One portion and the donor it got; null when there was none in reach. */
export interface Portion {
  readonly box: Rect;
  readonly donor: DonorOffer | null;
}

/**
 * Mends a mask portion by portion, each with the donor that suits it best: parts apart, and a part in halves where
 * that fits better, over and over.
 * What is not mended yet is neither copied nor compared with; what was copied once is not copied again nearby
 * if anything else will do.
 * @param mask 1 = to be mended, one value a pixel of the picture
 * @param copy clone or graft
 * @returns the mended picture and what was done
 */
export function copyByPortions(
  picture: Raster,
  mask: Uint8Array,
  copy: (input: DonorInput) => Raster,
  options: PortionOptions = {},
  task?: Task,
): { picture: Raster; portions: Portion[] } {
  const { width } = picture;
  const frame = frameOf(picture);
  const side = options.side ?? sideFor(deepestOf(mask, width, picture.height));
  const out: Raster = { ...picture, data: picture.data.slice() };
  const open = mask.slice();
  const used = new Uint8Array(mask.length);
  const portions: Portion[] = [];
  const parts = partsOf(mask, width);
  let done = 0;
  const all = parts.reduce((sum, part) => sum + part.length, 0);
  for (const part of parts)
    for (const stretch of stretchesOf(part, MOST_SIDES * side, width)) mend(stretch, look(stretch));
  checkpoint(task, 1);
  return { picture: out, portions };

  /** Mends pixels with one donor, or in halves where each half has a clearly better one of its own. */
  function mend(pixels: Int32Array, whole: Look): void {
    const halves =
      whole.size > side ? halve(pixels, whole.box, width).map((half) => look(half)) : [];
    const apart = halves.reduce((sum, h) => sum + h.pixels.length * h.misfit, 0) / pixels.length;
    if (halves.length === 2 && whole.misfit > WORTH * apart + SLIGHT) {
      mend(halves[0]!.pixels, halves[0]!);
      // The first half is known by now.
      mend(halves[1]!.pixels, look(halves[1]!.pixels));
      return;
    }
    checkpoint(task, done / all);
    done += pixels.length;
    const donor = whole.donor && settled(whole, whole.donor);
    portions.push({ box: whole.box, donor });
    if (!donor) return;
    lay(whole, donor);
    for (const p of pixels) open[p] = 0;
  }

  /** Looks for the donor that suits pixels best as everything stands now. */
  function look(pixels: Int32Array): Look {
    const box = boxOf(pixels, width);
    const size = Math.max(box.width, box.height);
    const reach = options.reach ?? reachFor(size);
    const window = intersect(grow(box, reach + 8), frame);
    const below = crop(out, window);
    const site = new Uint8Array(window.width * window.height);
    for (const p of pixels)
      site[(((p / width) | 0) - window.y) * window.width + (p % width) - window.x] = 1;
    const banned = cut(open, window);
    for (let i = 0; i < site.length; i++) if (site[i]) banned[i] = 0;
    const local = { ...box, x: box.x - window.x, y: box.y - window.y };
    const wishes = {
      samples: RING_SAMPLES,
      ...RING,
      ...options,
      reach,
      count: 1,
      whole: true,
      used: cut(used, window),
    };
    const [donor] = findDonors(below, site, banned, local, wishes);
    const misfit = donor ? donor.misfit : Infinity;
    return { pixels, box, size, window, site, banned, donor: donor ?? null, misfit };
  }

  function settled({ window, site, banned }: Look, donor: DonorOffer): DonorOffer {
    return settleBetween(crop(out, window), site, banned, donor);
  }

  function lay({ site, banned, box: whole, window }: Look, donor: DonorOffer): void {
    const box = { ...whole, x: whole.x - window.x, y: whole.y - window.y };
    const below = crop(out, window);
    const at = intersect(grow(box, 2), frameOf(below));
    const middle = [box.x + (box.width - 1) / 2, box.y + (box.height - 1) / 2] as const;
    const map = placementMap(donor, middle);
    const reads = resampleReads(map, at, frameOf(below));
    const fetched = resample(crop(below, reads), reads, map, at, frameOf(below));
    const coverage = Float32Array.from(cut(site, at, window.width));
    // Ring pixels that are still open hold damage: the donor stands in for them.
    const openAt = cut(banned, at, window.width);
    const base = crop(below, at);
    for (let i = 0; i < openAt.length; i++) {
      if (!openAt[i]) continue;
      for (let c = 0; c < base.channels; c++)
        base.data[i * base.channels + c] = fetched.raster.data[i * base.channels + c]!;
    }
    const done = copy({ below: base, donor: fetched.raster, valid: fetched.valid, coverage });
    for (let i = 0; i < coverage.length; i++) {
      if (!(coverage[i]! > 0)) continue;
      const x = window.x + at.x + (i % at.width);
      const y = window.y + at.y + ((i / at.width) | 0);
      for (let c = 0; c < done.channels; c++)
        out.data[(y * width + x) * done.channels + c] = done.data[i * done.channels + c]!;
      const from = Math.round(map.d * (x - window.x) + map.e * (y - window.y) + map.f) + window.y;
      const to = Math.round(map.a * (x - window.x) + map.b * (y - window.y) + map.c) + window.x;
      used[from * width + to] = 1;
    }
  }

  function cut(mask: Uint8Array, rect: Rect, stride: number = width): Uint8Array {
    const part = new Uint8Array(rect.width * rect.height);
    for (let y = 0; y < rect.height; y++) {
      const from = (rect.y + y) * stride + rect.x;
      part.set(mask.subarray(from, from + rect.width), y * rect.width);
    }
    return part;
  }
}

/** What was found for some pixels of the mask. */
interface Look {
  readonly pixels: Int32Array;
  readonly box: Rect;
  /** Longer side of the box, px. */
  readonly size: number;
  readonly window: Rect;
  /** The pixels, and what must not be copied or compared with, over the window. */
  readonly site: Uint8Array;
  readonly banned: Uint8Array;
  readonly donor: DonorOffer | null;
  readonly misfit: number;
}

/** Portions are small and many: fewer ring pixels than usual will do. */
const RING_SAMPLES = 180;
/** What stands right beside a portion says most about it, px. */
const RING = { ring: 2, beyond: 1 };
/** Halves must fit so much better, and by so many squared codes, to be worth a joint. */
const WORTH = 1.08;
const SLIGHT = 1;
/** Stretches of more than so many least sides are cut without a look. */
const MOST_SIDES = 6;

/** Cuts pixels until no stretch is longer than `most` px. */
function stretchesOf(pixels: Int32Array, most: number, width: number): Int32Array[] {
  const box = boxOf(pixels, width);
  if (Math.max(box.width, box.height) <= most) return [pixels];
  return halve(pixels, box, width).flatMap((half) => stretchesOf(half, most, width));
}

/** Cuts pixels across the longer side of their box. */
function halve(pixels: Int32Array, box: Rect, width: number): Int32Array[] {
  const across = box.width >= box.height;
  const middle = across ? box.x + box.width / 2 : box.y + box.height / 2;
  const first = (p: number): boolean => (across ? p % width : (p / width) | 0) < middle;
  return [pixels.filter(first), pixels.filter((p) => !first(p))].filter((half) => half.length);
}

/** Least side of a portion for a site so deep, px: long enough for a texture, short enough to find its like. */
function sideFor(depth: number): number {
  return Math.round(Math.max(6, 2 * depth));
}

/** How far donors are looked for around a portion of this size, px. */
export function reachFor(size: number): number {
  return Math.round(Math.min(240, Math.max(64, 2 * size)));
}

function boxOf(pixels: Int32Array, width: number): Rect {
  let x0 = Infinity;
  let x1 = 0;
  for (const p of pixels) {
    x0 = Math.min(x0, p % width);
    x1 = Math.max(x1, p % width);
  }
  const y0 = (pixels[0]! / width) | 0;
  const y1 = (pixels.at(-1)! / width) | 0;
  return { x: x0, y: y0, width: x1 - x0 + 1, height: y1 - y0 + 1 };
}
