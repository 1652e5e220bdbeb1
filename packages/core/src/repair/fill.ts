import { atlasOf } from '../fill/atlas.js';
import type { DonorMap, FilledBand } from '../fill/donor-map.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { crop, frameOf, meets, paste, shift, unite } from '../raster/rect.js';
import { partBoxes } from '../shape/part-boxes.js';
import type { Crew } from '../task/crew.js';
import { alone } from '../task/crew.js';
import { evenTones } from './even-tones.js';
import { FILLED, towardsExpected } from './expected.js';
import { laySite } from './laid-site.js';

/** What replaying a fill works on. */
export interface FillInput {
  /** The picture below the repair: the site, one pixel around it, and every source of the map. */
  readonly below: Raster;
  /** Where that window lies in the original's coordinates. */
  readonly origin: Rect;
  readonly map: DonorMap;
  /** Coverage of the site, 0..1, one value a pixel of the window. */
  readonly coverage: Float32Array;
}

/** Options of {@link fill}. */
export interface FillBlendOptions {
  /**
   * Tone adaptation 0..1: 0 leaves the copied tone as it is, 1 follows the surroundings wholly.
   * @default 1
   */
  adapt?: number;
  /** Threads that share the work; the result does not depend on them. @default the calling thread alone */
  crew?: Crew;
}

/**
 * Replays a fill: copies every pixel from the source its donor map names and evens the tone across seams and
 * at the ring in the gradient domain (Perez et al. 2003; Agarwala et al., "Interactive Digital
 * Photomontage", SIGGRAPH 2004: gradients of the sources, averaged where two sources meet).
 * @param strength 0..1
 */
export function fill(input: FillInput, strength: number, options: FillBlendOptions = {}): Raster {
  const { below, map } = input;
  if (map.bands) return fillInBands(input, map.bands, strength, options);
  if (map.laid) return fillFromSheets(input, map.laid, strength, options);
  return copyAndEven(input, frameOf(below), strength, options);
}

/** @param frame of the picture itself: what lies beyond are sheets to copy from */
function copyAndEven(
  { below, origin, map, coverage }: FillInput,
  frame: Rect,
  strength: number,
  { adapt = 1, crew = alone }: FillBlendOptions,
): Raster {
  const { copies, mask, laidOver } = laySite(below, map, origin, coverage, crew);
  const groups = groupsOf(mask, below.width);
  evenTones(copies, groups, adapt);
  towardsExpected(copies, mask, frame, groups, adapt, FILLED);
  return laidOver(strength);
}

/** Fills part after part, so that what lies on one side of a joint is not evened with what lies on the other. */
function fillInBands(
  { below, origin, map, coverage }: FillInput,
  bands: readonly FilledBand[],
  strength: number,
  options: FillBlendOptions,
): Raster {
  let result = below;
  for (const { rect, room } of bands) {
    const at = shift(room, -origin.x, -origin.y);
    const covered = new Float32Array(room.width * room.height);
    for (let y = 0; y < at.height; y++) {
      const from = (at.y + y) * below.width + at.x;
      covered.set(coverage.subarray(from, from + at.width), y * at.width);
    }
    const part = { below: crop(result, at), origin: room, map: cut(map, rect), coverage: covered };
    result = paste(result, fill(part, strength, options), at);
  }
  return result;
}

/** The part of a map that lies in a rectangle within it. */
function cut(map: DonorMap, rect: Rect): DonorMap {
  const n = rect.width * rect.height;
  const [dx, dy, confidence] = [new Int16Array(n), new Int16Array(n), new Uint8Array(n)];
  for (let y = 0; y < rect.height; y++) {
    const from = (rect.y + y - map.rect.y) * map.rect.width + rect.x - map.rect.x;
    const to = y * rect.width;
    dx.set(map.dx.subarray(from, from + rect.width), to);
    dy.set(map.dy.subarray(from, from + rect.width), to);
    confidence.set(map.confidence.subarray(from, from + rect.width), to);
  }
  return { rect, dx, dy, confidence };
}

/** Lays the sheets out as the search did, fills in them, and takes the window out again. */
function fillFromSheets(
  { below, origin, map, coverage }: FillInput,
  { window, middle, sheets }: NonNullable<DonorMap['laid']>,
  strength: number,
  options: FillBlendOptions,
): Raster {
  const at = shift(window, -origin.x, -origin.y);
  const part = crop(below, at);
  const nothing = new Uint8Array(part.width * part.height);
  const { raster } = atlasOf(part, nothing, nothing, sheets, middle);
  const covered = new Float32Array(raster.width * raster.height);
  for (let y = 0; y < at.height; y++) {
    const from = (at.y + y) * below.width + at.x;
    covered.set(coverage.subarray(from, from + at.width), y * at.width);
  }
  const plain = { rect: map.rect, dx: map.dx, dy: map.dy, confidence: map.confidence };
  const input = { below: raster, origin: window, map: plain, coverage: covered };
  const done = copyAndEven(input, frameOf(part), strength, options);
  return paste(below, crop(done, frameOf(part)), at);
}

/** Groups of parts may cover so many px more than their boxes, and so many times as many. */
const GROUP = { px: 4096, times: 1.5 } as const;

/** Boxes that together hold the site: parts that lie apart are solved apart, small ones that lie close together. */
function groupsOf(mask: Uint8Array, width: number): Rect[] {
  const groups: { box: Rect; area: number }[] = [];
  for (const box of partBoxes(mask, width)) {
    const area = box.width * box.height;
    const last = groups[groups.length - 1];
    const both = last && unite(last.box, box);
    if (both && both.width * both.height <= GROUP.times * (last.area + area) + GROUP.px)
      groups[groups.length - 1] = { box: both, area: last.area + area };
    else groups.push({ box, area });
  }
  return apart(groups.map(({ box }) => box));
}

/** Boxes that meet become one, so that every site pixel is solved for once. */
function apart(boxes: readonly Rect[]): Rect[] {
  const done: Rect[] = [];
  for (let box of boxes) {
    for (let k = 0; k < done.length; k++) {
      if (!meets(done[k]!, box)) continue;
      box = unite(box, done[k]!);
      done.splice(k, 1);
      k = -1;
    }
    done.push(box);
  }
  return done;
}
