import { z } from 'zod';
import { point, px, wholePx } from './place.js';

const MOST_POINTS = 20_000;

export const SINGLE_SHAPES = [
  z.object({ kind: z.literal('dab'), at: point }),
  z.object({ kind: z.literal('stroke'), points: z.array(point).min(1).max(MOST_POINTS) }),
  z.object({
    kind: z.literal('chain'),
    points: z.array(point).min(2).max(MOST_POINTS),
    bends: z.array(px).max(MOST_POINTS),
    shares: z.array(z.number().min(0).max(1)).max(MOST_POINTS).optional(),
  }),
  z.object({ kind: z.literal('outline'), points: z.array(point).min(3).max(MOST_POINTS) }),
  z.object({
    kind: z.literal('rectangle'),
    x: wholePx,
    y: wholePx,
    width: wholePx.min(1),
    height: wholePx.min(1),
  }),
] as const;
const MOST_PARTS = 2000;

/** Geometry of a site, in the original's pixels (see the core's shapes). */
export const SiteSchema = z.discriminatedUnion('kind', [
  ...SINGLE_SHAPES,
  z.object({
    kind: z.literal('parts'),
    parts: z
      .array(
        z.object({
          shape: z.discriminatedUnion('kind', [...SINGLE_SHAPES]),
          width: z.number().min(1),
        }),
      )
      .min(1)
      .max(MOST_PARTS),
  }),
]);
export type Site = z.infer<typeof SiteSchema>;
