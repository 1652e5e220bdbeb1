import type { DonorOffer } from '../donor/offer.js';
import { placementMap } from '../donor/placement.js';
import type { SiteAt } from '../donor/scene.js';
import type { DonorGround, DonorSearchOptions } from '../donor/search.js';
import { donorGround } from '../donor/search.js';
import { settleBetween } from '../donor/settle.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { crop, frameOf, grow, intersect, shift } from '../raster/rect.js';
import { resample, resampleReads } from '../raster/resample.js';
import { cropMask } from '../shape/crop-mask.js';
import { deepestOf } from '../shape/depth.js';
import { partBoxes } from '../shape/part-boxes.js';
import { partsOf } from '../shape/parts.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import type { DonorInput } from './clone.js';
import { COPIED, towardsExpected } from './expected.js';
import { layCopies } from './laid-copies.js';
import { maskWhere } from '../shape/mask-where.js';

/** Options of {@link copyByPortions}. */
export interface PortionOptions extends Partial<Omit<DonorSearchOptions, 'count' | 'used'>> {
  /** A portion of no more than this side is not cut any more, px. @default from the site's depth */
  side?: number;
  /** Whether what was copied is at last brought towards what its surroundings make likely. @default false */
  expected?: boolean;
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
  const copiedFrom = new Int32Array(mask.length).fill(-1);
  const parts = partsOf(mask, width);
  let done = 0;
  const all = parts.reduce((sum, part) => sum + part.length, 0);
  for (const part of parts)
    for (const stretch of stretchesOf(part, MOST_SIDES * side, width)) {
      const at = stageFor(boxOf(stretch, width));
      mend(at, stretch, look(at, stretch));
    }
  if (options.expected) settleCopies(picture, out, copiedFrom);
  checkpoint(task, 1);
  return { picture: out, portions };

  /** Lays out what the portions of a stretch may be copied from. */
  function stageFor(box: Rect): Stage {
    const reach = options.reach ?? reachFor(longer(box));
    const window = intersect(grow(box, reach + 8), frame);
    const below = crop(out, window);
    const blocked = cropMask(open, width, window);
    const ground = donorGround(below, blocked, reach);
    return { window, below, blocked, used: cropMask(used, width, window), ground };
  }

  /** Mends pixels with one donor, or in halves where each half has a clearly better one of its own. */
  function mend(at: Stage, pixels: Int32Array, whole: Look): void {
    const halves =
      longer(whole.box) > side ? halve(pixels, whole.box, width).map((half) => look(at, half)) : [];
    const apart = halves.reduce((sum, h) => sum + h.pixels.length * h.misfit, 0) / pixels.length;
    if (halves.length === 2 && whole.misfit > WORTH * apart + SLIGHT) {
      mend(at, halves[0]!.pixels, halves[0]!);
      // The first half is known by now.
      mend(at, halves[1]!.pixels, look(at, halves[1]!.pixels));
      return;
    }
    checkpoint(task, done / all);
    done += pixels.length;
    const donor =
      whole.donor && settleBetween(at.below, at.blocked, siteIn(at.window, whole), whole.donor);
    portions.push({ box: whole.box, donor });
    if (donor) lay(at, whole, donor);
  }

  /** Looks for the donor that suits pixels best as everything stands now. */
  function look({ window, ground, used }: Stage, pixels: Int32Array): Look {
    const box = boxOf(pixels, width);
    const [donor] = ground.find(siteIn(window, { pixels, box }), {
      samples: RING_SAMPLES,
      ...RING,
      ...options,
      reach: options.reach ?? reachFor(longer(box)),
      count: 1,
      whole: true,
      used,
    });
    return { pixels, box, donor: donor ?? null, misfit: donor?.misfit ?? Infinity };
  }

  /** The same pixels told in a window's places. */
  function siteIn({ x, y, width: across }: Rect, { pixels, box }: Whole): SiteAt {
    const places = pixels.map((p) => (((p / width) | 0) - y) * across + (p % width) - x);
    return { pixels: places, box: shift(box, -x, -y) };
  }

  function lay(
    { window, below, blocked, used: usedHere, ground }: Stage,
    whole: Look,
    donor: DonorOffer,
  ): void {
    const { box, pixels } = whole;
    const at = intersect(grow(box, 2), frame);
    const middle = [box.x + (box.width - 1) / 2, box.y + (box.height - 1) / 2] as const;
    const map = placementMap(donor, middle);
    const reads = resampleReads(map, at, frame);
    const fetched = resample(crop(out, reads), reads, map, at, frame);
    const coverage = new Float32Array(at.width * at.height);
    for (const p of pixels)
      coverage[(((p / width) | 0) - at.y) * at.width + (p % width) - at.x] = 1;
    // Ring pixels that are still open hold damage: the donor stands in for them.
    const openAt = cropMask(open, width, at);
    const base = crop(out, at);
    const { channels } = base;
    for (let i = 0; i < openAt.length; i++) {
      if (!openAt[i] || coverage[i]) continue;
      for (let c = i * channels; c < (i + 1) * channels; c++)
        base.data[c] = fetched.raster.data[c]!;
    }
    const done = copy({ below: base, donor: fetched.raster, valid: fetched.valid, coverage });
    for (const p of pixels) {
      const x = p % width;
      const y = (p / width) | 0;
      const here = (y - window.y) * window.width + x - window.x;
      const from = (y - at.y) * at.width + x - at.x;
      for (let c = 0; c < channels; c++)
        out.data[p * channels + c] = below.data[here * channels + c] =
          done.data[from * channels + c]!;
      open[p] = blocked[here] = 0;
      const sx = Math.round(map.a * x + map.b * y + map.c);
      const sy = Math.round(map.d * x + map.e * y + map.f);
      used[sy * width + sx] = 1;
      copiedFrom[p] = sy * width + sx;
      usedHere[(sy - window.y) * window.width + sx - window.x] = 1;
    }
    ground.renew(shift(box, -window.x, -window.y));
  }
}

/** Brings what was copied into a picture, changed in place, towards what its surroundings make likely. */
function settleCopies(below: Raster, out: Raster, from: Int32Array): void {
  const { channels, data } = out;
  const mask = maskWhere(from.length, (p) => from[p]! >= 0);
  const boxes = partBoxes(mask, out.width);
  const copies = layCopies(below, from);
  const { colour } = copies;
  colour.set(data);
  towardsExpected(copies, mask, frameOf(below), boxes, 1, COPIED);
  const [colours, white] = [colourChannels(channels), whiteOf(data)];
  for (let p = mask.indexOf(1); p >= 0; p = mask.indexOf(1, p + 1))
    for (let i = p * channels; i < p * channels + colours; i++) {
      const v = Math.min(white, Math.max(0, colour[i]!));
      data[i] = white > 1 ? Math.floor(v + 0.5) : v;
    }
}

/** A window over the picture that portions are mended in, as everything stands now. */
interface Stage {
  readonly window: Rect;
  readonly below: Raster;
  /** 1 where a pixel is still to be mended, and where one was copied from. */
  readonly blocked: Uint8Array;
  readonly used: Uint8Array;
  readonly ground: DonorGround;
}

/** Some pixels of the mask, in reading order. */
interface Whole {
  readonly pixels: Int32Array;
  readonly box: Rect;
}

/** What was found for them. */
interface Look extends Whole {
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
  return Math.round(Math.min(240, Math.max(150, 2 * size)));
}

function longer({ width, height }: Rect): number {
  return Math.max(width, height);
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
