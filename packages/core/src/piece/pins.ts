import type { Point } from '../shape/site.js';

/** A point and where it was drawn to. */
export interface Pin {
  readonly from: Point;
  readonly to: Point;
}

/**
 * Bends the plane so that every pin's point lands where it was drawn: rigid moving least squares (Schaefer,
 * McPhail, Warren, "Image Deformation Using Moving Least Squares", SIGGRAPH 2006, section 2.3). One pin shifts.
 */
export function bendBy(pins: readonly Pin[], [x, y]: Point): Point {
  if (!pins.length) return [x, y];
  let weight = 0;
  let px = 0;
  let py = 0;
  let qx = 0;
  let qy = 0;
  const weights = new Array<number>(pins.length);
  for (let i = 0; i < pins.length; i++) {
    const { from, to } = pins[i]!;
    const dx = from[0] - x;
    const dy = from[1] - y;
    const d2 = dx * dx + dy * dy;
    if (d2 < 1e-12) return to;
    const w = (weights[i] = 1 / d2);
    weight += w;
    px += w * from[0];
    py += w * from[1];
    qx += w * to[0];
    qy += w * to[1];
  }
  px /= weight;
  py /= weight;
  qx /= weight;
  qy /= weight;
  // The turn that best takes the weighted points to their places.
  let a = 0;
  let b = 0;
  for (let i = 0; i < pins.length; i++) {
    const { from, to } = pins[i]!;
    const fx = from[0] - px;
    const fy = from[1] - py;
    const tx = to[0] - qx;
    const ty = to[1] - qy;
    a += weights[i]! * (fx * tx + fy * ty);
    b += weights[i]! * (fx * ty - fy * tx);
  }
  const length = Math.sqrt(a * a + b * b);
  const vx = x - px;
  const vy = y - py;
  if (length < 1e-12) return [vx + qx, vy + qy];
  const cos = a / length;
  const sin = b / length;
  return [cos * vx - sin * vy + qx, sin * vx + cos * vy + qy];
}

/** The pins that bend back. */
export function backwards(pins: readonly Pin[]): Pin[] {
  return pins.map(({ from, to }) => ({ from: to, to: from }));
}
