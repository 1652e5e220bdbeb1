import type { FillOptions } from '../fill/search.js';
import { NothingToCopy, searchFill, searchMargin } from '../fill/search.js';
import { findGuides } from '../find/structure.js';
import type { Raster } from '../raster/raster.js';
import { createRaster, depthOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { crop, frameOf, grow, intersect, paste } from '../raster/rect.js';
import { fill } from '../repair/fill.js';
import { deepestOf } from '../shape/depth.js';
import { maskBox } from '../shape/mask-box.js';
import type { Task } from '../task/task.js';
import { portionOf } from '../task/task.js';
import type { Band } from './bands.js';
import { bandsFor } from './bands.js';
import type { Sides } from './canvas.js';
import { canvasOf } from './canvas.js';

/**
 * Fills a hole from what stands around it, lines of structure continued.
 * @param banned 1 = may not be copied
 * @throws NothingToCopy
 */
export function holeFilled(
  picture: Raster,
  hole: Uint8Array,
  banned: Uint8Array,
  options: Pick<FillOptions, 'seed' | 'crew'> = {},
  task?: Task,
): Raster {
  const box = maskBox(hole, picture.width);
  if (!box) return picture;
  const deep = deepestOf(maskIn(hole, picture.width, box), box.width, box.height);
  const window = intersect(grow(box, searchMargin(deep)), frameOf(picture));
  const below = crop(picture, window);
  const mask = maskIn(hole, picture.width, window);
  const guides = findGuides(below, mask, true);
  const closed = maskIn(banned, picture.width, window);
  const map = searchFill(below, window, mask, closed, { ...options, guides }, task);
  const part = fill({ below, origin: window, map, coverage: Float32Array.from(mask) }, 1);
  return paste(picture, part, window);
}

/**
 * A bigger canvas with its new sides filled from the background; the picture's own pixels stand in it unchanged. Left and
 * right are filled ground by ground, each from its own height alone, so that a floor stays below and its joint goes on level.
 * @param subject 1 = not to be copied; null when all may be
 */
export function sidesFilled(
  picture: Raster,
  sides: Sides,
  subject: Uint8Array | null,
  options: Pick<FillOptions, 'seed' | 'crew'> = {},
  task?: Task,
): Raster {
  const { width, height } = canvasOf(picture.width, picture.height, sides);
  const canvas = createRaster(width, height, picture.channels, depthOf(picture.data));
  const place = { ...frameOf(picture), x: sides.left, y: sides.top };
  const state = {
    picture: paste(canvas, picture, place),
    hole: new Uint8Array(width * height).fill(1),
    banned: new Uint8Array(width * height),
  };
  for (let y = 0; y < picture.height; y++) {
    const to = (y + sides.top) * width + sides.left;
    state.hole.fill(0, to, to + picture.width);
    if (subject) state.banned.set(subject.subarray(y * picture.width, (y + 1) * picture.width), to);
  }
  const bands = bandsFor(picture, sides, { width, height }, subject);
  bands.forEach((band, k) => {
    fillBand(state, band, options, portionOf(task, k / bands.length, (k + 1) / bands.length));
  });
  return state.picture;
}

interface Canvas {
  picture: Raster;
  readonly hole: Uint8Array;
  readonly banned: Uint8Array;
}

function fillBand(
  canvas: Canvas,
  { rect, room, source }: Band,
  options: Pick<FillOptions, 'seed' | 'crew'>,
  task: Task,
): void {
  const { width } = canvas.picture;
  const part = crop(canvas.picture, room);
  const missing = maskIn(canvas.hole, width, room);
  const now = new Uint8Array(missing.length);
  const subject = maskIn(canvas.banned, width, room);
  const own = subject.slice();
  for (let y = 0, p = 0; y < room.height; y++)
    for (let x = 0; x < room.width; x++, p++) {
      const [u, v] = [room.x + x, room.y + y];
      if (missing[p] && holds(rect, u, v)) now[p] = 1;
      if (!holds(source, u, v)) own[p] = 1;
    }
  // From its own height; where the subject takes all of that, from near it; at the worst from the subject too.
  for (const closed of [own, subject, new Uint8Array(own.length)])
    try {
      canvas.picture = paste(canvas.picture, holeFilled(part, now, closed, options, task), room);
      break;
    } catch (error) {
      if (!(error instanceof NothingToCopy)) throw error;
    }
  for (let y = rect.y; y < rect.y + rect.height; y++)
    canvas.hole.fill(0, y * width + rect.x, y * width + rect.x + rect.width);
}

function holds({ x, y, width, height }: Rect, u: number, v: number): boolean {
  return u >= x && v >= y && u < x + width && v < y + height;
}

function maskIn(mask: Uint8Array, width: number, rect: Rect): Uint8Array {
  const out = new Uint8Array(rect.width * rect.height);
  for (let y = 0; y < rect.height; y++) {
    const from = (rect.y + y) * width + rect.x;
    out.set(mask.subarray(from, from + rect.width), y * rect.width);
  }
  return out;
}
