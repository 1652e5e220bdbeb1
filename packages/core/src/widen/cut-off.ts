import { subjectOf } from '../find/subject.js';
import type { Raster } from '../raster/raster.js';
import { crop } from '../raster/rect.js';
import type { Crew } from '../task/crew.js';
import { bandsFor } from './bands.js';
import type { Sides } from './canvas.js';

/** Share of a side's height that one ground must take for it to be a backdrop. */
const BACKDROP = 0.7;

/** Share of the width beside a missing side, and of what lies there, that the subject takes at most: more was cut off itself. */
const [STRIP, SUBJECT] = [0.05, 0.01];

/** A picture whose sides are missing, told from a hole that covers them wholly and nothing else. */
export interface CutOff {
  readonly sides: Sides;
  /** What there is. */
  readonly picture: Raster;
  /** What stands before the backdrop, 1 a pixel of the picture. */
  readonly subject: Uint8Array;
}

/**
 * Whether a hole is whole sides of a picture of something that stands before a backdrop: then they are filled as new sides
 * are, each ground from its own height and nothing of the subject.
 * @param hole 1 = missing
 */
export function cutOff(canvas: Raster, hole: Uint8Array, crew?: Crew): CutOff | null {
  const sides = missingSides(hole, canvas.width, canvas.height);
  if (!sides || !(sides.left || sides.right)) return null;
  const { at: _, ...picture } = crop(canvas, {
    x: sides.left,
    y: sides.top,
    width: canvas.width - sides.left - sides.right,
    height: canvas.height - sides.top - sides.bottom,
  });
  // Looking for the subject takes longer than looking along the sides.
  if (!backed(picture, sides, canvas, null)) return null;
  const subject = subjectOf(picture, crew);
  if (!subject || !isClear(picture, sides, subject)) return null;
  return backed(picture, sides, canvas, subject) ? { sides, picture, subject } : null;
}

/** Whether one ground takes most of the height beside each missing side. */
function backed(
  picture: Raster,
  sides: Sides,
  canvas: Raster,
  subject: Uint8Array | null,
): boolean {
  const bands = bandsFor(picture, sides, canvas, subject);
  const along = (x: number): boolean =>
    bands.some((b) => b.rect.x === x && b.rect.height >= BACKDROP * picture.height);
  return (!sides.left || along(0)) && (!sides.right || along(canvas.width - sides.right));
}

/** Whether the subject stands clear of the missing sides. */
function isClear({ width, height }: Raster, sides: Sides, subject: Uint8Array): boolean {
  const wide = Math.ceil(STRIP * width);
  const taken = (from: number): number => {
    let count = 0;
    for (let y = 0; y < height; y++)
      for (let x = from; x < from + wide; x++) count += subject[y * width + x]!;
    return count / (wide * height);
  };
  return !(sides.left && taken(0) > SUBJECT) && !(sides.right && taken(width - wide) > SUBJECT);
}

/** The rows and columns at the border that are wholly missing; null when anything else is, or all. */
function missingSides(hole: Uint8Array, width: number, height: number): Sides | null {
  const column = (x: number): boolean => {
    for (let y = 0; y < height; y++) if (!hole[y * width + x]) return false;
    return true;
  };
  const row = (y: number): boolean => !hole.subarray(y * width, (y + 1) * width).includes(0);
  let [left, right, top, bottom] = [0, 0, 0, 0];
  while (left < width && column(left)) left++;
  if (left === width) return null;
  while (column(width - 1 - right)) right++;
  while (row(top)) top++;
  while (row(height - 1 - bottom)) bottom++;
  for (let y = top; y < height - bottom; y++)
    if (hole.subarray(y * width + left, (y + 1) * width - right).includes(1)) return null;
  return { left, right, top, bottom };
}
