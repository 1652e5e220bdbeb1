import type { Point, Quad, Rect } from '@tersum/core';
import { levelQuad, quadOf, quadTurn, rectangleOf, sidesOf, uprightSize } from '@tersum/core';
import type { Frame } from '@tersum/document';

type Framing = Omit<Frame, 'id'>;

/** Shapes that are asked for, width to height; null as it is. */
export const SHAPES: readonly { readonly name: string; readonly ratio: number | null }[] = [
  { name: 'Free', ratio: null },
  { name: '1 : 1', ratio: 1 },
  { name: '4 : 5', ratio: 4 / 5 },
  { name: '5 : 4', ratio: 5 / 4 },
  { name: '2 : 3', ratio: 2 / 3 },
  { name: '3 : 2', ratio: 3 / 2 },
  { name: '9 : 16', ratio: 9 / 16 },
  { name: '16 : 9', ratio: 16 / 9 },
];

/** The whole picture as a frame. */
export function wholeFrame(canvas: Rect): Framing {
  return framing(quadOf(canvas));
}

/** A frame of a quadrilateral, with as many pixels as lie in it. */
export function framing(quad: Quad): Framing {
  return { quad, ...uprightSize(quad) };
}

/** The picture turned back by an angle, without gaps. */
export function turnedFrame(canvas: Rect, angle: number): Framing {
  const quad = levelQuad(canvas, angle);
  return framing(quad.map(([x, y]) => [x + canvas.x, y + canvas.y]) as unknown as Quad);
}

/** Degrees a frame stands turned. */
export function angleOf(frame: Framing | null): number {
  return frame ? quadTurn(frame.quad) : 0;
}

/** The largest part of a frame of a wanted shape, about the same middle. */
export function shaped(frame: Framing, ratio: number): Framing {
  const [top, right, bottom, left] = sidesOf(frame.quad);
  const [w, h] = [(top + bottom) / 2, (left + right) / 2];
  const [width, height] = w / h > ratio ? [h * ratio, h] : [w, w / ratio];
  return framing(inner(frame.quad, width / w, height / h));
}

/** A frame with a border of a share of its sides more (or less, below 0). */
export function bordered(frame: Framing, share: number): Framing {
  return framing(inner(frame.quad, 1 + 2 * share, 1 + 2 * share));
}

/** Moves a corner; the frame stays a rectangle of the same turn unless corners are free. */
export function withCorner(frame: Framing, corner: number, to: Point, free: boolean): Framing {
  if (free) {
    const quad = frame.quad.map((p, k) => (k === corner ? to : p)) as unknown as Quad;
    return framing(quad);
  }
  const across = frame.quad[(corner + 2) % 4]!;
  const turn = (-quadTurn(frame.quad) * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const local = ([x, y]: Point): Point => [c * x + s * y, c * y - s * x];
  const global = (x: number, y: number): Point => [c * x - s * y, s * x + c * y];
  const [a, b] = [local(across), local(to)];
  const left = Math.min(a[0], b[0]);
  const right = Math.max(a[0], b[0], left + 8);
  const top = Math.min(a[1], b[1]);
  const bottom = Math.max(a[1], b[1], top + 8);
  return framing([
    global(left, top),
    global(right, top),
    global(right, bottom),
    global(left, bottom),
  ]);
}

/** Moves a whole frame. */
export function movedFrame(frame: Framing, dx: number, dy: number): Framing {
  return framing(frame.quad.map(([x, y]) => [x + dx, y + dy]) as unknown as Quad);
}

/** A frame made square to itself. */
export function squared(frame: Framing): Framing {
  return framing(rectangleOf(frame.quad));
}

/** The angle a line stands off level or plumb, whichever is nearer, degrees counter-clockwise. */
export function lineAngle([x0, y0]: Point, [x1, y1]: Point): number {
  let angle = (-Math.atan2(y1 - y0, x1 - x0) * 180) / Math.PI;
  while (angle > 45) angle -= 90;
  while (angle <= -45) angle += 90;
  return angle;
}

function inner(quad: Quad, across: number, down: number): Quad {
  const at = (u: number, v: number): Point => {
    const [a, b, c, d] = quad;
    const mix = (k: 0 | 1): number =>
      a[k] * (1 - u) * (1 - v) + b[k] * u * (1 - v) + c[k] * u * v + d[k] * (1 - u) * v;
    return [mix(0), mix(1)];
  };
  const [x0, x1] = [(1 - across) / 2, (1 + across) / 2];
  const [y0, y1] = [(1 - down) / 2, (1 + down) / 2];
  return [at(x0, y0), at(x1, y0), at(x1, y1), at(x0, y1)];
}
