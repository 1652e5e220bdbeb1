import type { Rect } from '../raster/rect.js';
import type { Homography } from '../shape/homography.js';
import { homographyOf, through } from '../shape/homography.js';
import type { Point } from '../shape/site.js';

/** Corners of a print as it lies in a picture: top left, top right, bottom right, bottom left. */
export type Quad = readonly [Point, Point, Point, Point];

/** A line as the points with nx x + ny y = d; the normal has length 1. */
export interface Line {
  readonly nx: number;
  readonly ny: number;
  readonly d: number;
}

/** Where two lines cross. @throws RangeError when they run side by side */
export function crossing(a: Line, b: Line): Point {
  const det = a.nx * b.ny - a.ny * b.nx;
  if (Math.abs(det) < 1e-9) throw new RangeError('the lines do not cross');
  return [(a.d * b.ny - b.d * a.ny) / det, (a.nx * b.d - b.nx * a.d) / det];
}

/** Corners of whole pixels. */
export function quadOf({ x, y, width, height }: Rect): Quad {
  const [left, top, right, bottom] = [x - 0.5, y - 0.5, x + width - 0.5, y + height - 0.5];
  return [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ];
}

/** Lengths of a quadrilateral's sides: top, right, bottom, left, px. */
export function sidesOf(quad: Quad): [number, number, number, number] {
  return quad.map((p, k) => {
    const q = quad[(k + 1) % 4]!;
    return Math.sqrt((q[0] - p[0]) ** 2 + (q[1] - p[1]) ** 2);
  }) as [number, number, number, number];
}

/** Whole pixels an upright print of this quadrilateral takes: means of opposite sides. */
export function uprightSize(quad: Quad): { width: number; height: number } {
  const [top, right, bottom, left] = sidesOf(quad);
  return {
    width: Math.max(1, Math.round((top + bottom) / 2)),
    height: Math.max(1, Math.round((left + right) / 2)),
  };
}

/** Takes pixels of the upright print to the picture it lies in. The print's edges are at halves of pixels. */
export function fromUpright(quad: Quad, width: number, height: number): Homography {
  const upright: Point[] = [
    [-0.5, -0.5],
    [width - 0.5, -0.5],
    [width - 0.5, height - 0.5],
    [-0.5, height - 0.5],
  ];
  return homographyOf(upright, quad);
}

/** Degrees a quadrilateral stands turned counter-clockwise on screen, by all four sides. */
export function quadTurn(quad: Quad): number {
  let [x, y] = [0, 0];
  quad.forEach((p, k) => {
    const q = quad[(k + 1) % 4]!;
    const [dx, dy] = [q[0] - p[0], q[1] - p[1]];
    // Every side turned back by its quarter turns points the way of the top one.
    const [ux, uy] = [
      [dx, dy],
      [dy, -dx],
      [-dx, -dy],
      [-dy, dx],
    ][k] as [number, number];
    x += ux;
    y += uy;
  });
  return (-Math.atan2(y, x) * 180) / Math.PI;
}

/** How far the corners are from those of a true rectangle, as a share of its shorter side. */
export function warpOf(quad: Quad): number {
  const rect = rectangleOf(quad);
  const off = quad.map((p, k) =>
    Math.max(Math.abs(p[0] - rect[k]![0]), Math.abs(p[1] - rect[k]![1])),
  );
  return Math.max(...off) / Math.min(...sidesOf(quad));
}

/** The true rectangle nearest to a quadrilateral: same middle, turn and mean sides. */
export function rectangleOf(quad: Quad): Quad {
  const turn = (-quadTurn(quad) * Math.PI) / 180;
  const [top, right, bottom, left] = sidesOf(quad);
  const [w, h] = [(top + bottom) / 4, (left + right) / 4];
  const cx = quad.reduce((sum, p) => sum + p[0], 0) / 4;
  const cy = quad.reduce((sum, p) => sum + p[1], 0) / 4;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const at = (x: number, y: number): Point => [cx + c * x - s * y, cy + s * x + c * y];
  return [at(-w, -h), at(w, -h), at(w, h), at(-w, h)];
}

/** Quadrilaterals in reading order: rows by how their middles stand, left to right. */
export function inReadingOrder<T extends { readonly quad: Quad }>(prints: readonly T[]): T[] {
  const middle = ({ quad }: T): Point => [
    quad.reduce((sum, p) => sum + p[0], 0) / 4,
    quad.reduce((sum, p) => sum + p[1], 0) / 4,
  ];
  const height = ({ quad }: T): number =>
    Math.max(...quad.map((p) => p[1])) - Math.min(...quad.map((p) => p[1]));
  const rows: T[][] = [];
  for (const print of [...prints].sort((a, b) => middle(a)[1] - middle(b)[1])) {
    const row = rows.at(-1);
    const last = row?.[0];
    const near =
      last && middle(print)[1] - middle(last)[1] < 0.4 * Math.min(height(print), height(last));
    if (row && near) row.push(print);
    else rows.push([print]);
  }
  return rows.flatMap((row) => row.sort((a, b) => middle(a)[0] - middle(b)[0]));
}

/** Whether a point lies in a quadrilateral whose corners run clockwise on screen. */
export function insideQuad(quad: Quad, [x, y]: Point): boolean {
  return quad.every((p, k) => {
    const q = quad[(k + 1) % 4]!;
    return (q[0] - p[0]) * (y - p[1]) - (q[1] - p[1]) * (x - p[0]) >= 0;
  });
}

/** A quadrilateral seen through a map. */
export function quadThrough(h: Homography, quad: Quad): Quad {
  return quad.map((p) => through(h, p)) as unknown as Quad;
}
