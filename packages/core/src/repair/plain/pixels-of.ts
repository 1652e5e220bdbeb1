import type { Rect } from '../../raster/rect.js';
import type { System } from '../../solve/system.js';

/** The picture's pixels that the cells of a room's system stand for. @param wide px in a row of the picture */
export function pixelsOf(
  { width, runs }: Pick<System, 'width' | 'runs'>,
  room: Rect,
  wide: number,
): number[] {
  const pixels = [-1];
  for (let k = 0; k < runs.length; k += 2)
    for (let p = runs[k]!; p < runs[k + 1]!; p++)
      pixels.push((room.y + Math.floor(p / width)) * wide + room.x + (p % width));
  return pixels;
}
