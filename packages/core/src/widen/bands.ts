import { layerAt } from '../raster/layers.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { Sides } from './canvas.js';
import { crop } from '../raster/rect.js';

/** A part of a new side that is filled at once. */
export interface Band {
  /** What is filled. */
  readonly rect: Rect;
  /** What is looked at: the band with the picture beside it, or the canvas as filled before. */
  readonly room: Rect;
  /** What may be copied. */
  readonly source: Rect;
}

/** Least height of a ground, px. */
const LEAST = 40;
/** Share of the picture along a side that tells where grounds change. */
const STRIP = 0.05;
/** Fewer px of a row say nothing of its ground. */
const FEW = 5;
/** Share of the height under which a stretch between two joints is a thing that reaches the edge, not a ground. */
const THING = 0.07;
/** px on either side of a joint that are compared, and the difference that makes one, codes. */
const BESIDE = 10;
const JOINT = 14;
/** px before and after a thing from which the ground is told. */
const GROUND = 36;
/** Difference up to which the ground before and after a thing counts as one, codes. */
const ALIKE = 12;

/**
 * The bands of all new sides: left and right first, over the picture's height, then top and bottom over the canvas. A band
 * ends where the ground at the picture's edge changes, so that a floor is filled from floor.
 * @param subject 1 = no ground, a value a pixel of the picture
 */
export function bandsFor(
  picture: Raster,
  sides: Sides,
  canvas: { readonly width: number; readonly height: number },
  subject: Uint8Array | null,
): Band[] {
  const { left, right, top, bottom } = sides;
  const { width, height } = canvas;
  const beside = (side: 'left' | 'right', amount: number): Band[] => {
    const ends = [0, ...jointsAlong(picture, side, subject), picture.height];
    return ends.slice(1).map((end, k): Band => {
      const y = top + ends[k]!;
      const rows = { y, height: top + end - y };
      return {
        rect: { x: side === 'left' ? 0 : width - amount, width: amount, ...rows },
        room: { x: side === 'left' ? 0 : left, width: picture.width + amount, ...rows },
        source: { x: left, width: picture.width, ...rows },
      };
    });
  };
  const over = (y: number, amount: number): Band => ({
    rect: { x: 0, y, width, height: amount },
    room: { x: 0, y: 0, width, height },
    source: { x: 0, y: top, width, height: picture.height },
  });
  return [
    ...(left ? beside('left', left) : []),
    ...(right ? beside('right', right) : []),
    ...(top ? [over(0, top)] : []),
    ...(bottom ? [over(height - bottom, bottom)] : []),
  ];
}

/** Rows at which the ground along an edge changes, from the top. */
function jointsAlong(
  picture: Raster,
  side: 'left' | 'right',
  subject: Uint8Array | null,
): number[] {
  const { width, height } = picture;
  const wide = Math.min(width, Math.max(4, Math.round(STRIP * width)));
  const left = side === 'left' ? 0 : width - wide;
  const strip = crop(picture, { x: left, y: 0, width: wide, height });
  const { grey, colours } = layerAt(strip, 0);
  const planes = colours.length ? colours : [grey];
  const rows = planes.map(({ values }) => {
    const sums = new Float64Array(height + 1);
    let mean = 0;
    for (let y = 0; y < height; y++) {
      let [sum, n] = [0, 0];
      for (let x = 0; x < wide; x++) {
        if (subject?.[y * width + left + x]) continue;
        sum += values[y * wide + x]!;
        n++;
      }
      // Where the subject reaches the edge, the ground behind it is taken to go on.
      if (n >= FEW) mean = sum / n;
      sums[y + 1] = sums[y]! + mean;
    }
    return sums;
  });
  const changes = new Float64Array(height + 1);
  for (let y = BESIDE; y <= height - BESIDE; y++) {
    for (const row of rows)
      changes[y]! += Math.abs(row[y + BESIDE]! - 2 * row[y]! + row[y - BESIDE]!) / BESIDE;
    changes[y]! /= rows.length;
  }
  const found: number[] = [];
  for (let y = LEAST; y < height - LEAST; y++) {
    const here = changes[y]!;
    if (here < JOINT) continue;
    let peak = true;
    for (let v = Math.max(BESIDE, y - BESIDE); v <= Math.min(height - BESIDE, y + BESIDE); v++)
      if (changes[v]! > here) peak = false;
    if (peak && y - (found.at(-1) ?? -LEAST) >= BESIDE) found.push(y);
  }
  return withoutThings(found, THING * height, (a, b) => {
    // Too little of it comes after to be the ground again.
    if (height - b < b - a) return false;
    // Over more rows than a plank or a course takes.
    const [above, below] = [Math.max(0, a - GROUND), Math.min(height, b + GROUND)];
    let sum = 0;
    for (const row of rows)
      sum += Math.abs(
        (row[below]! - row[b]!) / (below - b) - (row[a]! - row[above]!) / (a - above),
      );
    return sum / rows.length < ALIKE;
  });
}

/** Joints less those of things before the ground: close together, and the ground is much the same before and after. */
function withoutThings(
  joints: readonly number[],
  most: number,
  alike: (a: number, b: number) => boolean,
): number[] {
  const kept: number[] = [];
  for (let k = 0; k < joints.length; k++) {
    let last = k;
    for (let j = k + 1; j < joints.length && joints[j]! - joints[k]! < most; j++)
      if (alike(joints[k]!, joints[j]!)) last = j;
    if (last === k) kept.push(joints[k]!);
    else k = last;
  }
  return kept;
}
