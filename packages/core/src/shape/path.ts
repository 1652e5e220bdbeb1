import type { Point, SiteShape } from './site.js';

/** Deviation from the true curve that a flattened bow may have, px. */
const FLATNESS = 0.1;

/**
 * The polyline a shape is drawn along: centre line of lines, border of areas (first point not repeated).
 * The lines of several parts stand one after the other. Bowed runs are parabolas; n straight pieces leave sagitta / n^2 of deviation.
 */
export function pathOf(shape: SiteShape): Point[] {
  switch (shape.kind) {
    case 'dab':
      return [shape.at];
    case 'chain':
      return chainPath(shape.points, shape.bends);
    case 'rectangle':
      return corners(shape);
    case 'parts':
      return shape.parts.flatMap((part) => pathOf(part.shape));
    default:
      return [...shape.points];
  }
}

/** Straight pieces a bow of `sagitta` px needs to stay within `allowed` px of itself. */
export function piecesForBow(sagitta: number, allowed: number = FLATNESS): number {
  return Math.max(1, Math.ceil(Math.sqrt(Math.abs(sagitta) / allowed)));
}

/** The point at 0..1 along one bowed run. */
export function pointOnBow(from: Point, to: Point, sagitta: number, t: number): Point {
  const dx = to[0] - from[0];
  const dy = to[1] - from[1];
  const length = Math.sqrt(dx * dx + dy * dy) || 1;
  const lift = (4 * sagitta * t * (1 - t)) / length;
  return [from[0] + dx * t - dy * lift, from[1] + dy * t + dx * lift];
}

/** Shares of the width along the path of a chain, one a point of {@link pathOf}; null when it is as wide all along. */
export function sharesAlong(shape: SiteShape): readonly number[] | null {
  if (shape.kind !== 'chain' || !shape.shares?.some((s) => s < 1)) return null;
  const { points, bends, shares } = shape;
  const along = [shares[0] ?? 1];
  for (let run = 0; run + 1 < points.length; run++) {
    const [from, to] = [shares[run] ?? 1, shares[run + 1] ?? 1];
    const pieces = piecesForBow(bends[run] ?? 0);
    for (let k = 1; k <= pieces; k++) along.push(from + ((to - from) * k) / pieces);
  }
  return along;
}

function chainPath(points: readonly Point[], bends: readonly number[]): Point[] {
  const path: Point[] = points.slice(0, 1);
  for (let run = 0; run + 1 < points.length; run++) {
    const sagitta = bends[run] ?? 0;
    const pieces = piecesForBow(sagitta);
    for (let k = 1; k <= pieces; k++)
      path.push(pointOnBow(points[run]!, points[run + 1]!, sagitta, k / pieces));
  }
  return path;
}

function corners(r: { x: number; y: number; width: number; height: number }): Point[] {
  const left = r.x - 0.5;
  const top = r.y - 0.5;
  return [
    [left, top],
    [left + r.width, top],
    [left + r.width, top + r.height],
    [left, top + r.height],
  ];
}

/** Length of a polyline, px. */
export function pathLength(path: readonly Point[]): number {
  let sum = 0;
  for (let i = 1; i < path.length; i++) {
    const dx = path[i]![0] - path[i - 1]![0];
    const dy = path[i]![1] - path[i - 1]![1];
    sum += Math.sqrt(dx * dx + dy * dy);
  }
  return sum;
}
