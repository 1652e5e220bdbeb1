import type { Layer } from '../raster/layers.js';
import { depthsOf } from '../shape/depth.js';
import { maskWhere } from '../shape/mask-where.js';
import { judged } from './ink-pieces.js';
import type { Stroke } from './ink-stroke.js';
import { breadthsOf, crestOf, halfOf, stretchOf } from './ink-stroke.js';

/** How far beside a stroke is looked, in breadths of the broader strokes. */
const BESIDE = 4;

/** How strokes lie in what is beside them. */
export interface InkFlanks {
  /** Share of their colour beside them that is no broader than strokes; 0 where nothing has it. */
  readonly thin: number;
  /** Mean share, along them, of the edges of what they run through that is a clear step; 0 where they run through nothing. */
  readonly crisp: number;
}

/**
 * Tells strokes from the grounds of a picture that have their colour: those are broad, and end softly.
 * @param offAt how far a pixel of the layer is from their colour, levels
 * @param within how far pixels of the colour may be from it, levels
 */
export function inkFlanks(
  { grey }: Layer,
  strokes: readonly Stroke[],
  offAt: (p: number) => number,
  within: number,
): InkFlanks {
  const { breadth } = breadthsOf(strokes);
  const { left, top, right, bottom } = stretchOf(
    strokes,
    (BESIDE + 1) * breadth,
    grey.width,
    grey.height,
  );
  const [width, height] = [right - left + 1, bottom - top + 1];
  const off = (p: number): number =>
    offAt((top + Math.floor(p / width)) * grey.width + left + (p % width));
  const crests = strokes.flatMap((stroke) =>
    crestOf(stroke, grey.width).map(
      (q) => (Math.floor(q / grey.width) - top) * width + (q % grey.width) - left,
    ),
  );
  const like = maskWhere(width * height, (p) => off(p) <= within);
  const deepest = halfOf(breadth);
  const depths = depthsOf(like, width, height);
  const shallow = maskWhere(like.length, (p) => depths[p]! <= deepest);
  const toDeep = shallow.includes(0) ? depthsOf(shallow, width, height) : null;
  const apart = new Uint8Array(like.length).fill(1);
  for (const p of crests) apart[p] = 0;
  const beside = depthsOf(apart, width, height);
  let [all, thin] = [0, 0];
  for (let p = 0; p < like.length; p++) {
    if (!like[p] || beside[p]! > BESIDE * breadth) continue;
    all++;
    if (!toDeep || toDeep[p]! > deepest + 1) thin++;
  }
  return { thin: all ? thin / all : 0, crisp: crispness(crests, like, off, width, height) };
}

function crispness(
  crests: readonly number[],
  like: Uint8Array,
  off: (p: number) => number,
  width: number,
  height: number,
): number {
  const crispAt = new Float32Array(like.length).fill(-1);
  for (const { piece, crisp } of judged(like, like, off, width, height))
    for (const p of piece.pixels) crispAt[p] = crisp;
  let [sum, count] = [0, 0];
  for (const p of crests) {
    if (crispAt[p]! < 0) continue;
    sum += crispAt[p]!;
    count++;
  }
  return count ? sum / count : 0;
}
