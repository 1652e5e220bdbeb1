import { z } from 'zod';
import { DonorSchema } from './donor.js';
import { point } from './place.js';

/** What is needed to keep a donor at hand. */
export const KeptDonorDraftSchema = z.object({
  /** The picture it lies in, and that picture's name. */
  pictureId: z.uuid(),
  name: z.string().max(200),
  /** Middle of the donor, px of its picture. */
  at: point,
  /** How it was laid on. */
  laid: DonorSchema.omit({ dx: true, dy: true, picture: true }),
});
export type KeptDonorDraft = z.infer<typeof KeptDonorDraftSchema>;

/** A place to copy from that is kept at hand for all pictures of a job. */
export const KeptDonorSchema = KeptDonorDraftSchema.extend({ id: z.uuid() });
export type KeptDonor = z.infer<typeof KeptDonorSchema>;
