import type { Rect } from '../raster/rect.js';
import type { Point } from './site.js';

/** Long pieces are cut, so that their boxes hold few pixels that are far away. */
const PIECE = 48;

/**
 * Squared distance of every pixel of `rect` to a polyline, row by row; exact up to `limit` px, larger than
 * its square beyond.
 */
export function nearness(
  path: readonly Point[],
  closed: boolean,
  rect: Rect,
  limit: number,
): Float32Array {
  const squares = new Float32Array(rect.width * rect.height).fill(limit * limit * 4 + 1);
  if (path.length === 1) lower(squares, rect, limit, path[0]!, path[0]!);
  const count = closed ? path.length : path.length - 1;
  for (let i = 0; i < count; i++) {
    const [ax, ay] = path[i]!;
    const [bx, by] = path[(i + 1) % path.length]!;
    const pieces = Math.ceil(Math.max(1, Math.abs(bx - ax), Math.abs(by - ay)) / PIECE);
    for (let k = 0; k < pieces; k++) {
      const t0 = k / pieces;
      const t1 = (k + 1) / pieces;
      lower(
        squares,
        rect,
        limit,
        [ax + (bx - ax) * t0, ay + (by - ay) * t0],
        [ax + (bx - ax) * t1, ay + (by - ay) * t1],
      );
    }
  }
  return squares;
}

function lower(squares: Float32Array, rect: Rect, limit: number, a: Point, b: Point): void {
  const dx = b[0] - a[0];
  const dy = b[1] - a[1];
  const length2 = dx * dx + dy * dy;
  const left = Math.max(rect.x, Math.ceil(Math.min(a[0], b[0]) - limit));
  const right = Math.min(rect.x + rect.width - 1, Math.floor(Math.max(a[0], b[0]) + limit));
  const top = Math.max(rect.y, Math.ceil(Math.min(a[1], b[1]) - limit));
  const bottom = Math.min(rect.y + rect.height - 1, Math.floor(Math.max(a[1], b[1]) + limit));
  for (let y = top; y <= bottom; y++) {
    const row = (y - rect.y) * rect.width - rect.x;
    for (let x = left; x <= right; x++) {
      const px = x - a[0];
      const py = y - a[1];
      let t = length2 > 0 ? (px * dx + py * dy) / length2 : 0;
      t = t < 0 ? 0 : t > 1 ? 1 : t;
      const ex = px - t * dx;
      const ey = py - t * dy;
      const square = ex * ex + ey * ey;
      if (square < squares[row + x]!) squares[row + x] = square;
    }
  }
}
