import type { Raster } from '../raster/raster.js';
import { layOver } from './blend.js';

/** What clone and graft work on: three windows of one size over the same place. */
export interface DonorInput {
  /** The picture below the repair, the site and at least one pixel around it (unless the picture ends). */
  readonly below: Raster;
  /** The donor's pixels, brought into register with the site. */
  readonly donor: Raster;
  /** 1 where the donor exists, 0 where it would lie outside the picture. */
  readonly valid: Uint8Array;
  /** Coverage of the site, 0..1, one value a pixel. */
  readonly coverage: Float32Array;
}

/**
 * Exact copy of the donor, laid over by coverage and strength. Pixels without a donor stay as they are.
 * @param strength 0..1
 */
export function clone(input: DonorInput, strength: number): Raster {
  return layOver(input.below, input.donor, coverageWithDonor(input), strength);
}

/** Coverage where a donor exists, 0 elsewhere. */
export function coverageWithDonor(input: DonorInput): Float32Array {
  const { coverage, valid } = input;
  const out = new Float32Array(coverage.length);
  for (let p = 0; p < out.length; p++) out[p] = valid[p] === 1 ? coverage[p]! : 0;
  return out;
}
