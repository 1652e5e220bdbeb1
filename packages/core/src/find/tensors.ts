import type { ShapeKernel } from '../shape/kernel.js';
import { SHAPE_KERNEL } from '../shape/shape-kernel.js';
import { openArena } from '../wasm/arena.js';

/** Grey values, and a mask whose pixels are unknown, a value a pixel each. */
export interface Ground {
  readonly grey: Float32Array;
  /** 1 = unknown. */
  readonly hole: Uint8Array;
  readonly width: number;
}

/**
 * Structure tensors at some pixels (Forstner and Gulch 1987): sums of the products of slopes in the squares round them; what
 * reads the unknown does not count.
 * @param pixels at least `half` px from the window's border @param half one more than the px to either side
 * @returns three values a pixel: across squared, down squared, and across times down
 */
export function tensorsAt(
  { grey, hole, width }: Ground,
  pixels: readonly number[],
  half: number,
): Float64Array {
  const count = pixels.length;
  const arena = openArena<ShapeKernel>(SHAPE_KERNEL, 5 * grey.length + 28 * count, 4, {
    once: true,
  });
  const greys = arena.floats(grey.length);
  const mask = arena.bytes(hole.length);
  const places = arena.words(count);
  const sums = arena.doubles(3 * count);
  greys.set(grey);
  mask.set(hole);
  places.set(pixels);
  const [from, under, at] = [greys, mask, places].map((array) => array.byteOffset);
  arena.kernel.tensors(from!, under!, width, at!, count, half, sums.byteOffset);
  return sums.slice();
}
