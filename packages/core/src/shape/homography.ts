import type { Point } from './site.js';
import { solveSmall } from '../solve/small.js';

/** A projective map of the plane, row by row; the last element is 1. */
export type Homography = readonly number[];

/**
 * The projective map that takes four points to four others (Hartley, Zisserman, "Multiple View Geometry", 2nd
 * ed., 4.1).
 * @throws RangeError when three of the points lie on one line
 */
export function homographyOf(from: readonly Point[], to: readonly Point[]): Homography {
  const a: number[][] = [];
  const b: number[] = [];
  for (let i = 0; i < 4; i++) {
    const [x, y] = from[i]!;
    const [u, v] = to[i]!;
    a.push([x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]);
    b.push(u, v);
  }
  const h = [...solveSmall(a, b), 1];
  if (!(Math.abs(determinant(h)) >= 1e-12)) throw new RangeError('the corners lie on one line');
  return h;
}

/** The map that takes points back. */
export function inverseOf(h: Homography): Homography {
  const [a, b, c, d, e, f, g, i, k] = h as number[] & { length: 9 };
  const m = [
    e! * k! - f! * i!,
    c! * i! - b! * k!,
    b! * f! - c! * e!,
    f! * g! - d! * k!,
    a! * k! - c! * g!,
    c! * d! - a! * f!,
    d! * i! - e! * g!,
    b! * g! - a! * i!,
    a! * e! - b! * d!,
  ];
  return m.map((v) => v / m[8]!);
}

/** Where a point is taken. */
export function through(h: Homography, [x, y]: Point): Point {
  const w = h[6]! * x + h[7]! * y + h[8]!;
  return [(h[0]! * x + h[1]! * y + h[2]!) / w, (h[3]! * x + h[4]! * y + h[5]!) / w];
}

function determinant(h: Homography): number {
  return (
    h[0]! * (h[4]! * h[8]! - h[5]! * h[7]!) -
    h[1]! * (h[3]! * h[8]! - h[5]! * h[6]!) +
    h[2]! * (h[3]! * h[7]! - h[4]! * h[6]!)
  );
}
