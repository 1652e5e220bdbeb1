import { z } from 'zod';
import { point } from './place.js';

const side = (least: number) => z.int().min(least).max(20_000);

/** px of new background on each side. */
export const SidesSchema = z.object({
  left: side(0),
  right: side(0),
  top: side(0),
  bottom: side(0),
});

/** A background made longer, or shorter where sides are below 0; what is protected keeps its pixels. */
export const StretchSchema = z.object({
  sides: z.object({
    left: side(-20_000),
    right: side(-20_000),
    top: side(-20_000),
    bottom: side(-20_000),
  }),
  /** Outlines of what is protected, px of the original. */
  kept: z.array(z.array(point).min(3).max(20_000)).max(200),
});
