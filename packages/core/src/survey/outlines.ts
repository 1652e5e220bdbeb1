import type { Rect } from '../raster/rect.js';
import { partsOf } from '../shape/parts.js';
import type { Point } from '../shape/site.js';
import { traceOutline } from '../shape/trace.js';
import type { Finding } from './finding.js';
import { grownMask } from './grown-mask.js';

/** Outlines of a finding's parts, px; edges of pixels lie at halves. */
export function outlinesOf({ parts }: Finding, width: number): Point[][] {
  return parts.flatMap((part) => bordersOf(part, width));
}

/** Outlines of what a repair of a finding covers: its parts with the margin its kind needs. */
export function siteOutlines(
  { parts, kind, soft }: Finding,
  frame: { readonly width: number; readonly height: number },
): Point[][] {
  return parts.flatMap((part) =>
    bordersOf(grownMask(part, boxOf(part, frame.width), frame, kind, soft), frame.width),
  );
}

/** Outer borders of the pieces of a set of pixels in reading order. */
function bordersOf(pixels: Int32Array, width: number): Point[][] {
  const box = boxOf(pixels, width);
  // A margin of one pixel, so that no piece touches the mask's border.
  const [w, h] = [box.width + 2, box.height + 2];
  const mask = new Uint8Array(w * h);
  for (const p of pixels)
    mask[(Math.floor(p / width) - box.y + 1) * w + (p % width) - box.x + 1] = 1;
  return partsOf(mask, w).map((piece) =>
    traceOutline(mask, w, piece[0]!).map(([x, y]): Point => [x + box.x - 1, y + box.y - 1]),
  );
}

/** Bounds of pixels in reading order. */
export function boxOf(pixels: Int32Array, width: number): Rect {
  let [left, right] = [Infinity, -1];
  for (const p of pixels) {
    const x = p % width;
    left = Math.min(left, x);
    right = Math.max(right, x);
  }
  const top = Math.floor(pixels[0]! / width);
  const bottom = Math.floor(pixels[pixels.length - 1]! / width);
  return { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
}
