import { depthsOf } from './depth.js';

/**
 * Coverage of a mask: 1 inside, falling to its border over `softness` of its greatest depth.
 * @param softness 0 hard .. 1 soft
 */
export function softenMask(
  mask: Uint8Array,
  width: number,
  height: number,
  softness: number,
): Float32Array {
  const depths = depthsOf(mask, width, height);
  let deepest = 0;
  for (const d of depths) if (d < 1e6 && d > deepest) deepest = d;
  const feather = softness * deepest;
  const out = new Float32Array(mask.length);
  for (let p = 0; p < out.length; p++) {
    if (!mask[p]) continue;
    const t = Math.min(1, depths[p]! / (feather + 1));
    out[p] = feather > 0 ? t * t * (3 - 2 * t) : 1;
  }
  return out;
}
