import { z } from 'zod';
import { point as place } from './place.js';

const point = place.readonly();

/** Longest side a framed picture may have, px. */
export const MOST_SIDE = 40_000;

/**
 * What of a picture is delivered: the quadrilateral that becomes its upright rectangle. Straightening, perspective and
 * cropping are all told by it; repairs keep the original's coordinates. At most one a picture.
 */
export const FrameSchema = z.object({
  id: z.uuid(),
  /** Corners in the original: top left, top right, bottom right, bottom left; edges lie at halves of pixels. */
  quad: z.tuple([point, point, point, point]).readonly(),
  width: z.int().min(1).max(MOST_SIDE),
  height: z.int().min(1).max(MOST_SIDE),
});
export type Frame = z.infer<typeof FrameSchema>;
