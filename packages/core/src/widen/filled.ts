import { NOT_FILLED } from '../fill/donor-map.js';
import type { Raster } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import { fill } from '../repair/fill.js';
import { maskBox } from '../shape/mask-box.js';
import type { Task } from '../task/task.js';
import type { Sides } from './canvas.js';
import { canvasRect, onCanvas } from './canvas.js';
import type { SidesOptions } from './sides-map.js';
import { searchHole, searchSides } from './sides-map.js';
import { maskWhere } from '../shape/mask-where.js';

/**
 * Fills a hole from what stands around it, lines of structure continued.
 * @param banned 1 = may not be copied
 * @throws NothingToCopy
 */
export function holeFilled(
  picture: Raster,
  hole: Uint8Array,
  banned: Uint8Array,
  options: SidesOptions = {},
  task?: Task,
): Raster {
  if (!maskBox(hole, picture.width)) return picture;
  const map = searchHole(picture, hole, banned, options, task);
  const coverage = new Float32Array(hole);
  return fill({ below: picture, origin: frameOf(picture), map, coverage }, 1, {
    crew: options.crew,
  });
}

/**
 * A bigger canvas with its new sides filled from the background (see {@link searchSides}); the picture's own pixels stand in
 * it unchanged.
 * @param subject 1 = not to be copied; null when all may be
 * @throws NothingToCopy
 */
export function sidesFilled(
  picture: Raster,
  sides: Sides,
  subject: Uint8Array | null,
  options: SidesOptions = {},
  task?: Task,
): Raster {
  const map = searchSides(picture, sides, subject, options, task);
  const origin = canvasRect(picture, sides);
  const { at: _, ...below } = onCanvas(picture, origin);
  const coverage = new Float32Array(maskWhere(map.dx.length, (p) => map.dx[p] !== NOT_FILLED));
  return fill({ below, origin, map, coverage }, 1, { crew: options.crew });
}
