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
  // A hand that rests tells the same point over and over.
  const points = path.filter(
    ([x, y], k) => k === 0 || x !== path[k - 1]![0] || y !== path[k - 1]![1],
  );
  if (points.length === 1) {
    const [only] = points;
    around(rect, limit, only!, only!, (p, square) => (squares[p] = square));
  }
  eachPiece(points, closed, rect, limit, (from, to) =>
    around(rect, limit, from, to, (p, square) => {
      if (square < squares[p]!) squares[p] = square;
    }),
  );
  return squares;
}

/**
 * Calls once for every time a line passes within `limit` px of a pixel, with the pixel's place in `rect` and the
 * square of the least distance of that pass. A pass ends when the line goes out of reach.
 */
export function eachPass(
  path: readonly Point[],
  rect: Rect,
  limit: number,
  act: (pixel: number, square: number) => void,
): void {
  const least = new Float32Array(rect.width * rect.height);
  const last = new Int32Array(least.length).fill(-2);
  eachPiece(path, false, rect, limit, (from, to, _start, _end, piece) => {
    around(rect, limit, from, to, (p, square) => {
      if (square > limit * limit) return;
      if (last[p]! < piece - 1) {
        if (last[p]! >= 0) act(p, least[p]!);
        least[p] = square;
      } else if (square < least[p]!) least[p] = square;
      last[p] = piece;
    });
  });
  for (let p = 0; p < last.length; p++) if (last[p]! >= 0) act(p, least[p]!);
}

/**
 * Calls for every pixel of `rect` and every piece of a polyline within `limit` px of each other, with the square of their
 * distance and where on the path it was measured: a point's number and the share of the way to the next.
 */
export function eachNear(
  path: readonly Point[],
  rect: Rect,
  limit: number,
  act: (pixel: number, square: number, at: number) => void,
): void {
  eachPiece(path, false, rect, limit, (from, to, start, end) =>
    around(rect, limit, from, to, (p, square, t) => act(p, square, start + t * (end - start))),
  );
}

/** @param act is given the pieces that may come within `limit` px of `rect`, each with its number */
function eachPiece(
  path: readonly Point[],
  closed: boolean,
  rect: Rect,
  limit: number,
  act: (from: Point, to: Point, start: number, end: number, piece: number) => void,
): void {
  const count = closed ? path.length : path.length - 1;
  let before = 0;
  for (let i = 0; i < count; i++) {
    const [ax, ay] = path[i]!;
    const [bx, by] = path[(i + 1) % path.length]!;
    const pieces = Math.ceil(Math.max(1, Math.abs(bx - ax), Math.abs(by - ay)) / PIECE);
    const [first, last] =
      pieces > 1 ? passing(path[i]!, [bx - ax, by - ay], rect, limit, pieces) : [0, 1];
    for (let k = first; k < last; k++) {
      const t0 = k / pieces;
      const t1 = (k + 1) / pieces;
      act(
        [ax + (bx - ax) * t0, ay + (by - ay) * t0],
        [ax + (bx - ax) * t1, ay + (by - ay) * t1],
        i + t0,
        i + t1,
        before + k,
      );
    }
    before += pieces;
  }
}

/**
 * Which pieces of a run may come within `limit` px of `rect` (slabs, after Liang and Barsky, ACM TOG 3(1), 1984): a line
 * that leads far out of the picture costs no more than what it has inside.
 * @returns the first one and the one after the last
 */
function passing(
  from: Point,
  along: Point,
  rect: Rect,
  limit: number,
  pieces: number,
): [number, number] {
  let [enter, leave] = [0, 1];
  const reach = limit + 1;
  for (const axis of [0, 1] as const) {
    const low = (axis ? rect.y : rect.x) - reach;
    const high = (axis ? rect.y + rect.height : rect.x + rect.width) + reach;
    if (along[axis] === 0) {
      if (from[axis] < low || from[axis] > high) return [0, 0];
      continue;
    }
    const [a, b] = [(low - from[axis]) / along[axis], (high - from[axis]) / along[axis]];
    enter = Math.max(enter, Math.min(a, b));
    leave = Math.min(leave, Math.max(a, b));
  }
  if (enter > leave) return [0, 0];
  return [
    Math.max(0, Math.floor(enter * pieces) - 1),
    Math.min(pieces, Math.ceil(leave * pieces) + 1),
  ];
}

function around(
  rect: Rect,
  limit: number,
  a: Point,
  b: Point,
  act: (pixel: number, square: number, along: number) => void,
): void {
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
      act(row + x, ex * ex + ey * ey, t);
    }
  }
}
