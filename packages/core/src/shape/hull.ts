import type { Point } from './site.js';

/** A rectangle's corners, clockwise on screen. */
type Corners = readonly [Point, Point, Point, Point];

/** Convex hull, clockwise on screen (Andrew, "Another efficient algorithm for convex hulls in two dimensions", 1979). */
export function hullOf(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: readonly Point[]): Point[] => {
    const chain: Point[] = [];
    for (const p of list) {
      while (chain.length > 1 && turnAt(chain.at(-2)!, chain.at(-1)!, p) <= 0) chain.pop();
      chain.push(p);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

/** Convex hull of some pixels, outer edges of theirs included. @param pixels row by row, as indices */
export function hullOfPixels(pixels: ArrayLike<number>, width: number): Point[] {
  const rim: Point[] = [];
  for (let k = 0; k < pixels.length; k++) {
    const y = Math.floor(pixels[k]! / width);
    const first = k === 0 || Math.floor(pixels[k - 1]! / width) !== y;
    const last = k === pixels.length - 1 || Math.floor(pixels[k + 1]! / width) !== y;
    if (first)
      rim.push([(pixels[k]! % width) - 0.5, y - 0.5], [(pixels[k]! % width) - 0.5, y + 0.5]);
    if (last)
      rim.push([(pixels[k]! % width) + 0.5, y - 0.5], [(pixels[k]! % width) + 0.5, y + 0.5]);
  }
  return hullOf(rim);
}

/**
 * The rectangle of least area round a convex hull; one of its sides lies on a side of the hull (Freeman, Shapira,
 * "Determining the minimum-area encasing rectangle for an arbitrary closed curve", CACM 18(7), 1975).
 * @returns its corners, the one nearest to the top left first
 */
export function leastRectangle(hull: readonly Point[]): { quad: Corners; area: number } {
  let best: { quad: Corners; area: number } | null = null;
  hull.forEach((p, k) => {
    const q = hull[(k + 1) % hull.length]!;
    const length = Math.sqrt((q[0] - p[0]) ** 2 + (q[1] - p[1]) ** 2);
    if (length === 0) return;
    let [ux, uy] = [(q[0] - p[0]) / length, (q[1] - p[1]) / length];
    // Of the four ways a rectangle can be named, the one that stands turned least.
    while (!(ux > 0 && Math.abs(uy) <= ux)) [ux, uy] = [-uy, ux];
    let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
    for (const [x, y] of hull) {
      const u = x * ux + y * uy;
      const v = y * ux - x * uy;
      left = Math.min(left, u);
      right = Math.max(right, u);
      top = Math.min(top, v);
      bottom = Math.max(bottom, v);
    }
    const area = (right - left) * (bottom - top);
    if (best && area >= best.area) return;
    const at = (u: number, v: number): Point => [u * ux - v * uy, u * uy + v * ux];
    best = { quad: [at(left, top), at(right, top), at(right, bottom), at(left, bottom)], area };
  });
  if (!best) throw new RangeError('a rectangle needs a hull of at least two points');
  return best;
}

function turnAt(a: Point, b: Point, c: Point): number {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
}
