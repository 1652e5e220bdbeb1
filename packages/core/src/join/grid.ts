import type { Rect } from '../raster/rect.js';
import type { PointMap } from '../raster/resample.js';

/** px from one known place to the next: what a map bends between them is under 0.003 px for the lenses frames are taken with. */
const STEP = 4;

/** Doubles that {@link gridOf} writes for a piece at the most. */
export function gridLength({ width, height }: Pick<Rect, 'width' | 'height'>): number {
  return 2 * pointsAlong(width) * pointsAlong(height);
}

/**
 * A map at every fourth pixel of every fourth row of a piece, and once beyond its end: between these places it is taken to
 * be straight.
 * @param out x and y of each place in turn, row by row
 * @returns how many places a row has
 */
export function gridOf(to: PointMap, { x, y, width, height }: Rect, out: Float64Array): number {
  const [points, rows] = [pointsAlong(width), pointsAlong(height)];
  const at = new Float64Array(2);
  for (let j = 0, o = 0; j < rows; j++)
    for (let i = 0; i < points; i++, o += 2) {
      to(x + STEP * i, y + STEP * j, at);
      out[o] = at[0]!;
      out[o + 1] = at[1]!;
    }
  return points;
}

function pointsAlong(length: number): number {
  return Math.ceil(length / STEP) + 1;
}
