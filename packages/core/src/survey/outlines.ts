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
  return piecesOf(pixels, width)
    .flatMap((piece) => solidPieces(piece, width))
    .map((piece) => {
      const { mask, frame } = maskAround(piece, width);
      return traceOutline(mask, frame.width, mask.indexOf(1)).map(([x, y]): Point => [
        x + frame.x,
        y + frame.y,
      ]);
    });
}

/** Smaller holes are left to be covered, px. */
const LEAST_HOLE = 8;

/** A piece cut into upright strips, so that each of its holes lies open: a ring becomes two halves. */
function solidPieces(piece: Int32Array, width: number): Int32Array[] {
  const cuts = cutsThroughHoles(piece, width);
  if (!cuts.length) return [piece];
  const strips: number[][] = Array.from({ length: cuts.length + 1 }, () => []);
  for (const p of piece) {
    const right = cuts.findIndex((cut) => p % width < cut);
    strips[right < 0 ? cuts.length : right]!.push(p);
  }
  return strips.flatMap((strip) => piecesOf(Int32Array.from(strip), width));
}

/** The fewest columns, from left to right, that go through every hole of a piece that is large enough. */
function cutsThroughHoles(piece: Int32Array, width: number): number[] {
  const { mask, frame } = maskAround(piece, width);
  if (!hasHole(mask, frame.width)) return [];
  const holes = partsOf(
    mask.map((on) => 1 - on),
    frame.width,
  )
    // The ground around it is in one part, which has the margin's first pixel.
    .filter((part) => part[0] !== 0 && part.length >= LEAST_HOLE)
    .map((part) => boxOf(part, frame.width))
    .map((box) => ({ first: box.x, last: box.x + box.width - 1 }))
    .sort((a, b) => a.last - b.last);
  const cuts: number[] = [];
  // Holes that one column can go through, and the columns that do.
  let shared: { first: number; last: number } | null = null;
  for (const hole of holes)
    if (shared && hole.first <= shared.last)
      shared = { first: Math.max(shared.first, hole.first), last: shared.last };
    else {
      if (shared) cuts.push(middleOf(shared));
      shared = hole;
    }
  if (shared) cuts.push(middleOf(shared));
  return cuts.map((cut) => cut + frame.x);
}

/**
 * Whether one piece has holes, by its Euler number: pixels less neighbours beside and below, and squares of four (Gray
 * 1971). Far cheaper than filling the ground of a thin slanting piece.
 */
function hasHole(mask: Uint8Array, width: number): boolean {
  let euler = 0;
  for (let p = 0; p < mask.length - width; p++) {
    if (!mask[p]) continue;
    const [right, below] = [mask[p + 1]!, mask[p + width]!];
    euler += 1 - right - below + (right & below & mask[p + width + 1]!);
  }
  return euler < 1;
}

function middleOf({ first, last }: { first: number; last: number }): number {
  return (first + last + 1) >> 1;
}

/** The pieces of a set of pixels; an outline walks along edges and leaves out what hangs on by a corner. */
function piecesOf(pixels: Int32Array, width: number): Int32Array[] {
  if (!pixels.length) return [];
  const { mask, frame } = maskAround(pixels, width);
  return partsOf(mask, frame.width, false).map((part) =>
    part.map((q) => {
      const y = (q / frame.width) | 0;
      return (y + frame.y) * width + q - y * frame.width + frame.x;
    }),
  );
}

/** A mask of pixels within their bounds and a margin of one pixel; its frame may begin at -1. */
function maskAround(pixels: Int32Array, width: number): { mask: Uint8Array; frame: Rect } {
  const box = boxOf(pixels, width);
  const frame = { x: box.x - 1, y: box.y - 1, width: box.width + 2, height: box.height + 2 };
  const mask = new Uint8Array(frame.width * frame.height);
  for (const p of pixels) {
    const y = (p / width) | 0;
    mask[(y - frame.y) * frame.width + p - y * width - frame.x] = 1;
  }
  return { mask, frame };
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
