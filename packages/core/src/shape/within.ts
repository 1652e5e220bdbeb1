import type { Point } from './site.js';

/** Whether a point lies within a closed outline, by how often a ray from it crosses it (even-odd rule). */
export function isWithin(outline: readonly Point[], [x, y]: Point): boolean {
  let inside = false;
  outline.forEach(([ax, ay], k) => {
    const [bx, by] = outline[(k + 1) % outline.length]!;
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
  });
  return inside;
}
