import { openArena } from '../wasm/arena.js';
import type { ShapeKernel } from './kernel.js';
import { SHAPE_KERNEL } from './shape-kernel.js';

/**
 * Chamfer distance into a mask, px; 0 outside, the window's border counts as inside (Borgefors 1986, weights 1 and 4/3).
 * @param hole 1 = inside, 0 = outside
 */
export function depthsOf(hole: Uint8Array, width: number, height: number): Float32Array {
  const { arena, thirds } = measured(hole, width, height, hole.length);
  const depths = arena.floats(hole.length);
  arena.kernel.depths(thirds.byteOffset, hole.length, depths.byteOffset);
  return depths.slice();
}

/** Greatest depth of a mask, px; 0 of one that has no outside. */
export function deepestOf(mask: Uint8Array, width: number, height: number): number {
  return measured(mask, width, height).deepest;
}

/** Greatest depth in every square of so many px a side, row by row; the last ones of a row and a column may be cut off. */
export function deepestIn(
  mask: Uint8Array,
  width: number,
  height: number,
  side: number,
): Float32Array {
  const squares = Math.ceil(width / side) * Math.ceil(height / side);
  const { arena, thirds } = measured(mask, width, height, squares);
  const deepest = arena.floats(squares);
  arena.kernel.deepestIn(thirds.byteOffset, width, height, side, deepest.byteOffset);
  return deepest.slice();
}

/** Good until the next mask is measured. @param more floats there is to be room for */
function measured(mask: Uint8Array, width: number, height: number, more = 0) {
  const arena = openArena<ShapeKernel>(SHAPE_KERNEL, 3 * mask.length + 4 * more, 3, { once: true });
  const inside = arena.bytes(mask.length);
  const thirds = arena.shorts(mask.length);
  inside.set(mask);
  const { kernel } = arena;
  const deepest = kernel.measure(inside.byteOffset, thirds.byteOffset, width, height);
  return { arena, thirds, deepest };
}
