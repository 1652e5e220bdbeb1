import { partsOf } from './parts.js';

/** A mask with what it encloses: what does not reach the frame's border without crossing it. */
export function withoutHoles(mask: Uint8Array, width: number): Uint8Array {
  const outside = partsOf(
    mask.map((v) => 1 - v),
    width,
  );
  const height = mask.length / width;
  const out = mask.slice();
  for (const part of outside) {
    const touches = part.some((p) => {
      const x = p % width;
      return x === 0 || x === width - 1 || p < width || p >= (height - 1) * width;
    });
    if (!touches) for (const p of part) out[p] = 1;
  }
  return out;
}
