import type { Strand } from './strands.js';

/** A strand of steady colour. */
export interface Stroke extends Strand {
  readonly colour: readonly number[];
  /** How far the colour strays along it, levels. */
  readonly spread: number;
  readonly reach: number;
}

/** How far strokes of one ink differ, levels of the furthest channel. */
export const SAME = 12;
/** Levels within which a pixel is surely of an ink. */
export const SURELY = 18;

/** How deep a piece of ink is at most: a share of the broader strokes' breadth, and px more where strokes meet. */
const HALF = { share: 0.75, more: 2 } as const;

/** How deep a piece of ink is at most, px. @param breadth of the broader strokes */
export function halfOf(breadth: number): number {
  return HALF.share * breadth + HALF.more;
}

/** Pixels that the crest of a stroke runs through. */
export function crestOf({ xs, ys }: Stroke, width: number): number[] {
  return Array.from(xs, (x, i) => Math.round(ys[i]!) * width + Math.round(x));
}

/** Breadth of the broader and of the thinner strokes, px of the finest level. */
export function breadthsOf(strokes: readonly Stroke[]): { breadth: number; thin: number } {
  const widths = strokes.map((s) => s.widths[s.widths.length >> 1]!).sort((a, b) => a - b);
  return {
    breadth: widths[Math.floor(0.9 * (widths.length - 1))]!,
    thin: widths[Math.floor(0.1 * (widths.length - 1))]!,
  };
}

/** First and last column and row of a part of a picture. */
export interface Stretch {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** What strokes take up, and so much more on all sides. */
export function stretchOf(
  strokes: readonly Stroke[],
  more: number,
  width: number,
  height: number,
): Stretch {
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (const { xs, ys } of strokes)
    for (let i = 0; i < xs.length; i++) {
      left = Math.min(left, xs[i]!);
      right = Math.max(right, xs[i]!);
      top = Math.min(top, ys[i]!);
      bottom = Math.max(bottom, ys[i]!);
    }
  return {
    left: Math.max(0, Math.floor(left - more)),
    top: Math.max(0, Math.floor(top - more)),
    right: Math.min(width - 1, Math.ceil(right + more)),
    bottom: Math.min(height - 1, Math.ceil(bottom + more)),
  };
}
