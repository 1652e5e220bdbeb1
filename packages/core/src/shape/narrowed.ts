import { maskWhere } from './mask-where.js';
import { widened } from './widened.js';

/** A mask without what lies within a square of side 2 by + 1 round pixels outside it; the frame's border takes nothing away. */
export function narrowed(mask: Uint8Array, width: number, height: number, by: number): Uint8Array {
  const rest = maskWhere(mask.length, (p) => !mask[p]);
  const wider = widened(rest, width, height, by);
  return maskWhere(mask.length, (p) => !wider[p]);
}

/** A mask with its gaps of at most 2 by px across filled (Serra, Image Analysis and Mathematical Morphology, 1982: closing). */
export function closed(mask: Uint8Array, width: number, height: number, by: number): Uint8Array {
  return narrowed(widened(mask, width, height, by), width, height, by);
}

/** A mask without what is at most 2 by px across (Serra, as before: opening). */
export function opened(mask: Uint8Array, width: number, height: number, by: number): Uint8Array {
  return widened(narrowed(mask, width, height, by), width, height, by);
}
