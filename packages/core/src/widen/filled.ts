import type { FillOptions } from '../fill/search.js';
import { searchFill, searchMargin } from '../fill/search.js';
import { findGuides } from '../find/structure.js';
import type { Raster } from '../raster/raster.js';
import { createRaster, depthOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { crop, frameOf, grow, intersect, paste } from '../raster/rect.js';
import { fill } from '../repair/fill.js';
import { deepestOf } from '../shape/depth.js';
import { maskBox } from '../shape/mask-box.js';
import type { Task } from '../task/task.js';
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
 * A bigger canvas with its new sides filled from the background; the picture's own pixels stand in it unchanged.
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
  const hole = new Uint8Array(width * height).fill(1);
  const banned = new Uint8Array(width * height);
  for (let y = 0; y < picture.height; y++) {
    const to = (y + sides.top) * width + sides.left;
    hole.fill(0, to, to + picture.width);
    if (subject) banned.set(subject.subarray(y * picture.width, (y + 1) * picture.width), to);
  }
  return holeFilled(paste(canvas, picture, place), hole, banned, options, task);
}

function maskIn(mask: Uint8Array, width: number, rect: Rect): Uint8Array {
  const out = new Uint8Array(rect.width * rect.height);
  for (let y = 0; y < rect.height; y++) {
    const from = (rect.y + y) * width + rect.x;
    out.set(mask.subarray(from, from + rect.width), y * rect.width);
  }
  return out;
}
