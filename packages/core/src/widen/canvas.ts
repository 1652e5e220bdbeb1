/** A wanted shape: width to height. */
export interface Shape {
  readonly name: string;
  readonly ratio: number;
}

/** Shapes people ask for; common practice. */
export const SHAPES: readonly Shape[] = [
  { name: '1:1', ratio: 1 },
  { name: '4:5', ratio: 4 / 5 },
  { name: '5:4', ratio: 5 / 4 },
  { name: '3:2', ratio: 3 / 2 },
  { name: '16:9', ratio: 16 / 9 },
  { name: '9:16', ratio: 9 / 16 },
];

/** px added to each side, whole and not negative. */
export interface Sides {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

export const NO_SIDES: Sides = { left: 0, right: 0, top: 0, bottom: 0 };

/** A bigger canvas. */
export interface Canvas {
  readonly width: number;
  readonly height: number;
  readonly sides: Sides;
  /** Share of the canvas that would be invented, 0..1. */
  readonly invented: number;
}

/**
 * The smallest canvas of a shape that holds the picture: W' = max(W, H a/b), H' = max(H, W b/a).
 * @param ratio width to height
 * @param subject where the subject's middle lies in the picture, 0..1 across and down
 * @param stand where it should come to stand in the canvas, 0..1 across and down; it comes as near as the picture allows
 */
export function canvasFor(
  width: number,
  height: number,
  ratio: number,
  subject: readonly [number, number] = [0.5, 0.5],
  stand: readonly [number, number] = [0.5, 0.5],
): Canvas {
  const w = Math.max(width, Math.round(height * ratio));
  const h = Math.max(height, Math.round(width / ratio));
  const left = placed(w - width, stand[0] * w - subject[0] * width);
  const top = placed(h - height, stand[1] * h - subject[1] * height);
  return canvasOf(width, height, { left, top, right: w - width - left, bottom: h - height - top });
}

function placed(room: number, wanted: number): number {
  return Math.min(room, Math.max(0, Math.round(wanted)));
}

/** The canvas with so much added to each side. */
export function canvasOf(width: number, height: number, sides: Sides): Canvas {
  const w = width + sides.left + sides.right;
  const h = height + sides.top + sides.bottom;
  return { width: w, height: h, sides, invented: 1 - (width * height) / (w * h) };
}

/** The largest part of a picture that has a shape. @returns its sides, px, and the share that would be lost */
export function cropFor(
  width: number,
  height: number,
  ratio: number,
): { width: number; height: number; lost: number } {
  const w = Math.min(width, Math.round(height * ratio));
  const h = Math.min(height, Math.round(width / ratio));
  return { width: w, height: h, lost: 1 - (w * h) / (width * height) };
}
