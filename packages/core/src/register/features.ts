import type { Plane } from '../raster/plane.js';
import { halved } from '../raster/plane.js';
import type { Crew } from '../task/crew.js';
import { cornersOf } from './corners.js';
import { Level, SIZE } from './level.js';

/** Corners of a picture with what they look like. */
export interface Features {
  /** Position in the picture, px. */
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** SIZE values a feature, of length 1. */
  readonly looks: Float32Array;
  readonly count: number;
}

/**
 * Corners on two levels, with what they look like.
 * @param grey 0..255 @param most corners in all
 */
export function featuresOf(grey: Plane, most: number, crew: Crew): Features {
  const fine = Math.round(most * 0.7);
  const lists = [
    { plane: grey, most: fine, scale: 1 },
    { plane: halved(grey), most: most - fine, scale: 2 },
  ].map(({ plane, most, scale }) => {
    const level = new Level(plane, most, crew);
    const corners = cornersOf(level.strength(), plane, most);
    const looks = level.describe(corners.flatMap(({ x, y }) => [x, y])).slice();
    const inPicture = (v: number): number => scale * v + (scale - 1) / 2;
    return {
      looks,
      x: corners.map((c) => inPicture(c.x)),
      y: corners.map((c) => inPicture(c.y)),
    };
  });
  const x = Float32Array.from(lists.flatMap((l) => l.x));
  const looks = new Float32Array(x.length * SIZE);
  looks.set(lists[0]!.looks);
  looks.set(lists[1]!.looks, lists[0]!.looks.length);
  return { x, y: Float32Array.from(lists.flatMap((l) => l.y)), looks, count: x.length };
}
