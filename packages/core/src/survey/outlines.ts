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

/** Borders of the pieces of a set of pixels in reading order; what has a hole is told in pieces that have none. */
export function bordersOf(pixels: Int32Array, width: number): Point[][] {
  const box = boxOf(pixels, width);
  // A margin of one pixel, so that no piece touches the mask's border.
  const [w, h] = [box.width + 2, box.height + 2];
  const mask = new Uint8Array(w * h);
  for (const p of pixels)
    mask[(Math.floor(p / width) - box.y + 1) * w + (p % width) - box.x + 1] = 1;
  // An outline walks along edges and leaves out what hangs on by a corner.
  return partsOf(mask, w, false)
    .flatMap((piece) => solidPieces(piece, w, w * h))
    .map((piece) => {
      const own = maskOf(piece, w * h);
      return traceOutline(own, w, piece[0]!).map(([x, y]): Point => [x + box.x - 1, y + box.y - 1]);
    });
}

/** Smaller holes are left to be covered, px. */
const LEAST_HOLE = 8;

/** A piece cut through its holes until none is left: a ring becomes two halves. */
function solidPieces(piece: Int32Array, width: number, size: number): Int32Array[] {
  const hole = holeOf(piece, width);
  if (!hole) return [piece];
  const box = boxOf(hole, width);
  const cut = box.x + (box.width >> 1);
  const halves = [true, false].map((left) => piece.filter((p) => p % width < cut === left));
  return halves
    .flatMap((half) => partsOf(maskOf(half, size), width, false))
    .flatMap((part) => solidPieces(part, width, size));
}

/** The first of a piece's holes that is large enough, null when there is none. */
function holeOf(piece: Int32Array, width: number): Int32Array | null {
  // Within the piece's own bounds and a margin, so that the ground around it is in one part.
  const box = boxOf(piece, width);
  const [w, h] = [box.width + 2, box.height + 2];
  const ground = new Uint8Array(w * h).fill(1);
  for (const p of piece)
    ground[(Math.floor(p / width) - box.y + 1) * w + (p % width) - box.x + 1] = 0;
  const holes = partsOf(ground, w).filter((part) => part[0] !== 0 && part.length >= LEAST_HOLE);
  return (
    holes[0]?.map((q) => (Math.floor(q / w) + box.y - 1) * width + (q % w) + box.x - 1) ?? null
  );
}

function maskOf(pixels: Int32Array, size: number): Uint8Array {
  const mask = new Uint8Array(size);
  for (const p of pixels) mask[p] = 1;
  return mask;
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
