import type { Narrowness } from '../narrowness.js';
import { narrownessOf } from '../narrowness.js';

/** Twin of tellNarrowness in kernels/repair: how narrow a site is all about a place, 0..1. */
export function narrowAt(narrowness: Narrowness, x: number, y: number): number {
  return narrownessOf(narrowness.deepest[narrowness.squareAt(x, y)]!);
}
