import { depthsOf } from '../shape/depth.js';
import { partsOf } from '../shape/parts.js';
import type { Layer } from '../raster/layers.js';
import { maskWhere } from '../shape/mask-where.js';

/** What tells strokes from the grounds of a picture that have their colour. */
export interface Thinness {
  readonly colour: readonly number[];
  /** How far pixels of the colour may differ from it, levels of the furthest channel. */
  readonly within: number;
  /** Breadth of the broader strokes, px of the layer. */
  readonly breadth: number;
}

/** How deep a piece of ink is at most: a share of the broader strokes' breadth, and px more where strokes meet. */
export const HALF = { share: 0.75, more: 2 } as const;

/**
 * Share of a colour's pixels that lie in pieces no broader than strokes: all of an ink's do, unless it runs over a
 * ground like it; of what has a colour of the picture few.
 */
export function thinShare({ grey, colours }: Layer, { colour, within, breadth }: Thinness): number {
  const planes = colours.length ? colours : [grey];
  const mask = maskWhere(grey.values.length, (p) =>
    planes.every(({ values }, c) => Math.abs(values[p]! - colour[c]!) <= within),
  );
  const depths = depthsOf(mask, grey.width, grey.height);
  let [all, thin] = [0, 0];
  for (const part of partsOf(mask, grey.width)) {
    all += part.length;
    const deepest = part.reduce((most, p) => Math.max(most, depths[p]!), 0);
    // Smaller bits may be noise of anything.
    if (part.length > breadth && deepest <= HALF.share * breadth + HALF.more) thin += part.length;
  }
  return all ? thin / all : 0;
}
