import { atlasOf } from '../fill/atlas.js';
import type { DonorMap, FilledBand } from '../fill/donor-map.js';
import { NOT_FILLED } from '../fill/donor-map.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { crop, frameOf, meets, paste, shift, unite } from '../raster/rect.js';
import { partBoxes } from '../shape/part-boxes.js';
import type { Crew } from '../task/crew.js';
import { alone } from '../task/crew.js';
import { layOver } from './blend.js';
import type { Copies } from './copies.js';
import { evenTones } from './even-tones.js';
import { FILLED, towardsExpected } from './expected.js';
import { layCopies } from './laid-copies.js';

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
  const site = siteOf(map, origin, below, coverage);
  const groups = groupsOf(site.mask, below.width);
  const copies = layCopies(below, site, crew);
  evenTones(copies, groups, adapt);
  towardsExpected(copies, frame, groups, adapt, FILLED);
  return layOver(below, { data: copies.colour }, site.covered, strength, groups);
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

/** A fill's site, a value a pixel of its window. */
interface Site extends Copies {
  /** Coverage, 0 outside. */
  readonly covered: Float32Array;
  /** How many pixels it has. */
  readonly size: number;
}

function siteOf(
  { rect, dx, dy }: DonorMap,
  origin: Rect,
  { width, height }: Raster,
  coverage: Float32Array,
): Site {
  const from = new Int32Array(width * height).fill(-1);
  const mask = new Uint8Array(from.length);
  const covered = new Float32Array(from.length);
  let size = 0;
  for (let y = 0, i = 0; y < rect.height; y++) {
    const py = rect.y + y - origin.y;
    for (let x = 0, px = rect.x - origin.x; x < rect.width; x++, i++, px++) {
      if (dx[i] === NOT_FILLED || px < 0 || py < 0 || px >= width || py >= height) continue;
      const sx = px + dx[i]!;
      const sy = py + dy[i]!;
      if (sx < 0 || sy < 0 || sx >= width || sy >= height)
        throw new RangeError('donor map reaches outside its window');
      const p = py * width + px;
      from[p] = sy * width + sx;
      mask[p] = 1;
      size++;
      covered[p] = coverage[p]!;
    }
  }
  return { from, mask, covered, size };
}
