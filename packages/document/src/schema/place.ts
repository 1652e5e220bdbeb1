import { z } from 'zod';

/** Pictures have sides of 40,000 px at most; what is drawn may lie beyond them, but not beyond all measure. */
const FARTHEST = 1_000_000;

/** A coordinate or a step, px. */
export const px = z.number().min(-FARTHEST).max(FARTHEST);
export const wholePx = z.int().min(-FARTHEST).max(FARTHEST);
/** x and y, px. */
export const point = z.tuple([px, px]);
