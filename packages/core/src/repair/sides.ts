import type { Rect } from '../raster/rect.js';
import { pathOf } from '../shape/path.js';
import type { Brush, Point, SiteShape } from '../shape/site.js';
import { isLine } from '../shape/site.js';

/** Share of a gap's width over which one side's donor gives way to the other's. */
const BLEND = 0.5;

/**
 * How much of each pixel comes from the first of two donors that lie on two sides of a gap: all on its side,
 * nothing on the other, blended around the middle line.
 * @param towards the first donor's shift minus the second's, px
 * @returns one value 0..1 a pixel of `rect`
 */
export function sideShares(
  shape: SiteShape,
  brush: Brush,
  towards: Point,
  rect: Rect,
): Float32Array {
  const out = new Float32Array(rect.width * rect.height);
  const path = pathOf(shape);
  const line = isLine(shape) && path.length > 1;
  const length = Math.sqrt(towards[0] * towards[0] + towards[1] * towards[1]) || 1;
  const [ux, uy] = [towards[0] / length, towards[1] / length];
  const middle = middleOf(path);
  const half = line ? brush.width / 2 : halfAlong(path, brush, middle, ux, uy);
  for (let y = 0, p = 0; y < rect.height; y++) {
    for (let x = 0; x < rect.width; x++, p++) {
      const at: Point = [rect.x + x, rect.y + y];
      const off = line
        ? sideOf(path, at, ux, uy)
        : (at[0] - middle[0]) * ux + (at[1] - middle[1]) * uy;
      const t = Math.min(1, Math.max(0, 0.5 + off / (2 * BLEND * half)));
      out[p] = t * t * (3 - 2 * t);
    }
  }
  return out;
}

/** Distance from the line, positive on the side that u, v points to. */
function sideOf(path: readonly Point[], [x, y]: Point, ux: number, uy: number): number {
  let least = Infinity;
  let side = 0;
  for (let i = 1; i < path.length; i++) {
    const [ax, ay] = path[i - 1]!;
    const [bx, by] = path[i]!;
    const dx = bx - ax;
    const dy = by - ay;
    const d2 = dx * dx + dy * dy;
    if (d2 === 0) continue;
    const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / d2));
    const ex = x - ax - t * dx;
    const ey = y - ay - t * dy;
    const square = ex * ex + ey * ey;
    if (square >= least) continue;
    least = square;
    side = ex * ux + ey * uy < 0 ? -1 : 1;
  }
  return least === Infinity ? 0 : side * Math.sqrt(least);
}

function middleOf(path: readonly Point[]): Point {
  let x = 0;
  let y = 0;
  for (const p of path) {
    x += p[0];
    y += p[1];
  }
  return [x / path.length, y / path.length];
}

function halfAlong(
  path: readonly Point[],
  brush: Brush,
  [mx, my]: Point,
  ux: number,
  uy: number,
): number {
  let most = path.length === 1 ? brush.width / 2 : 1;
  for (const [x, y] of path) most = Math.max(most, Math.abs((x - mx) * ux + (y - my) * uy));
  return most;
}
