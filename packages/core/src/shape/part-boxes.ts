import type { Rect } from '../raster/rect.js';
import { openArena } from '../wasm/arena.js';
import type { ShapeKernel } from './kernel.js';
import { SHAPE_KERNEL } from './shape-kernel.js';

/** Words that tell a run. */
const RUN = 5;

/** Boxes of the unconnected parts of a mask, corners joining, in the reading order of their first pixels. */
export function partBoxes(mask: Uint8Array, width: number): Rect[] {
  const height = mask.length / width;
  const most = Math.ceil(width / 2) * height;
  const arena = openArena<ShapeKernel>(SHAPE_KERNEL, mask.length + 4 * RUN * most, 2, {
    once: true,
  });
  const inside = arena.bytes(mask.length);
  const runs = arena.words(RUN * most);
  inside.set(mask);
  const count = arena.kernel.parts(inside.byteOffset, width, height, runs.byteOffset);
  const boxes: Rect[] = [];
  for (let k = 0; k < count; k++) {
    const of = (word: number): number => runs[RUN * k + word]!;
    if (of(4) === k)
      boxes.push({ x: of(0), y: of(2), width: of(1) - of(0), height: of(3) - of(2) + 1 });
  }
  return boxes;
}
