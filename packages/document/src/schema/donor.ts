import { SCALE_LIMITS } from '@tersum/core';
import { z } from 'zod';
import { px } from './place.js';

/** Where a donor stands and how its content is laid onto the site (see the core's DonorPlacement). */
export const DonorSchema = z.object({
  /** Middle of the donor minus middle of the site, px. */
  dx: px,
  dy: px,
  /** Degrees counter-clockwise on screen. */
  turn: z.number().finite().default(0),
  mirrorX: z.boolean().default(false),
  mirrorY: z.boolean().default(false),
  scale: z.number().min(SCALE_LIMITS.least).max(SCALE_LIMITS.most).default(1),
  /** Another picture of the job that is copied from as received; null for this picture. */
  picture: z.uuid().nullable().default(null),
});
export type Donor = z.infer<typeof DonorSchema>;

/** A donor that is only somewhere else. */
export function shiftDonor(dx: number, dy: number): Donor {
  return { dx, dy, turn: 0, mirrorX: false, mirrorY: false, scale: 1, picture: null };
}

/** Whether a donor is laid on as it stands, merely shifted. */
export function isPlainShift({ turn, mirrorX, mirrorY, scale }: Omit<Donor, 'dx' | 'dy'>): boolean {
  return turn === 0 && !mirrorX && !mirrorY && scale === 1;
}
