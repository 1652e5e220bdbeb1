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
