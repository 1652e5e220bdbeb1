import type { Rect } from '../../raster/rect.js';
import { PATCH_VALUES } from '../confidence.js';
import { NOT_FILLED } from '../donor-map.js';
import type { Field } from '../field.js';

/** Twin of tell in kernels/fill/tell.ts. @param reference difference that is usual */
export function tellPlainly(
  { holes, level, number, distance, plane }: Field,
  reference: number,
  box: Rect,
) {
  const { width } = level;
  const n = box.width * box.height;
  const dx = new Int16Array(n).fill(NOT_FILLED);
  const dy = new Int16Array(n).fill(NOT_FILLED);
  const confidence = new Uint8Array(n);
  const confident = (pixel: number): number => {
    const i = number[pixel]!;
    if (i < 0) return 128;
    const here = Math.sqrt(distance[i]! / PATCH_VALUES);
    return here <= reference ? 255 : Math.floor((255 * reference) / here);
  };
  for (let k = 0; k < holes.length; k++) {
    const p = holes[k]!;
    const x = p % width;
    const y = (p / width) | 0;
    const i = (y - box.y) * box.width + x - box.x;
    const from = plane[p]!;
    dx[i] = (from % width) - x;
    dy[i] = ((from / width) | 0) - y;
    confidence[i] = confident(p);
  }
  return { dx, dy, confidence };
}
