import type { Raster } from '../raster/raster.js';
import { createRaster, depthOf, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { crop, frameOf, intersect, paste } from '../raster/rect.js';

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

/** A print people order, the short side first. */
export interface OrderedPrint {
  readonly name: string;
  readonly mm: readonly [number, number];
}

const INCH = 25.4;

/** Prints people order; common practice. */
export const ORDERED_PRINTS: readonly OrderedPrint[] = [
  { name: '10 × 15 cm', mm: [100, 150] },
  { name: '13 × 18 cm', mm: [130, 180] },
  { name: '20 × 30 cm', mm: [200, 300] },
  { name: '30 × 40 cm', mm: [300, 400] },
  { name: 'A4', mm: [210, 297] },
  { name: 'A3', mm: [297, 420] },
  { name: '4 × 6 in', mm: [4 * INCH, 6 * INCH] },
  { name: '5 × 7 in', mm: [5 * INCH, 7 * INCH] },
  { name: '8 × 10 in', mm: [8 * INCH, 10 * INCH] },
  { name: '11 × 14 in', mm: [11 * INCH, 14 * INCH] },
];

/** px added to each side, whole; below 0 they are taken away. */
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

/** How much room a canvas leaves round a thing, shares of its height (above, below) and width (left, right). */
export interface Surrounding {
  readonly above: number;
  readonly below: number;
  readonly left: number;
  readonly right: number;
}

/** The room round a thing in a canvas: headroom above it, looking room beside it. @param box the thing, px of the picture */
export function roomAround(
  picture: { readonly width: number; readonly height: number },
  sides: Sides,
  box: Rect,
): Surrounding {
  const { x, y, width, height } = canvasRect(picture, sides);
  return {
    above: (box.y - y) / height,
    below: (y + height - box.y - box.height) / height,
    left: (box.x - x) / width,
    right: (x + width - box.x - box.width) / width,
  };
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

/** Where the canvas lies, in the picture's coordinates. */
export function canvasRect(
  { width, height }: { readonly width: number; readonly height: number },
  { left, right, top, bottom }: Sides,
): Rect {
  return { x: 0 - left, y: 0 - top, width: width + left + right, height: height + top + bottom };
}

/** The picture on another canvas, middle grey where it has nothing; rectangles keep meaning what they meant. */
export function onCanvas(picture: Raster, canvas: Rect): Raster {
  const { channels, data } = picture;
  const empty = createRaster(canvas.width, canvas.height, channels, depthOf(data));
  empty.data.fill(whiteOf(data) / 2);
  const common = intersect(frameOf(picture), canvas);
  return paste({ ...empty, at: [canvas.x, canvas.y] }, crop(picture, common), common);
}
