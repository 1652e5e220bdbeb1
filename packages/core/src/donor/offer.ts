import type { DonorPlacement } from './placement.js';

/** A place to copy from and how badly it fits. */
export interface DonorOffer extends Required<DonorPlacement> {
  /** Mean squared difference of the rings in 8-bit codes, with the other terms of findDonors (0 = perfectly). */
  readonly misfit: number;
}
