import { GRAIN_SHARE, SCALE_LIMITS } from '@tersum/core';
import { z } from 'zod';
import { point } from './place.js';
import { SidesSchema } from './sides.js';
import { SINGLE_SHAPES } from './site.js';

const scale = z.number().min(SCALE_LIMITS.least).max(SCALE_LIMITS.most);

/** An area that may, or may not, supply pixels; later ones count over earlier ones. */
export const SourceAreaSchema = z.object({
  allow: z.boolean(),
  shape: z.discriminatedUnion('kind', [...SINGLE_SHAPES]),
  /** Width of a stroke, px; 1 for areas. */
  width: z.number().min(1).max(2000),
});
export type SourceArea = z.infer<typeof SourceAreaSchema>;

/** A line of structure that goes on across the site, px of the original. */
export const GuideSchema = z.object({ points: z.array(point).min(2).max(12) });
export type Guide = z.infer<typeof GuideSchema>;

/** What a fill's search is asked for; a changed wish needs a new search. */
export const FillSchema = z.object({
  /** Names the search whose donor map is replayed; a new name asks for a new search. */
  search: z.uuid(),
  seed: z.int().min(0).max(0x7fffffff),
  /** Tone adaptation 0..1. */
  adapt: z.number().min(0).max(1),
  /** Share of the surroundings' grain that is given back where the fill lacks it; needs no new search. */
  grain: z.number().min(0).max(1).default(0),
  /** What counts more when patches are compared. */
  lean: z.enum(['balanced', 'structure', 'texture']).default('balanced'),
  areas: z.array(SourceAreaSchema).max(200).default([]),
  guides: z.array(GuideSchema).max(24).default([]),
  /** Donors may be turned by so many degrees either way, mirrored, and scaled within these bounds. */
  turn: z.number().min(0).max(180).default(0),
  mirror: z.boolean().default(false),
  scale: z.tuple([scale, scale]).default([1, 1]),
  /** New sides of the picture that are filled; null for a fill within it. The site covers them. */
  sides: SidesSchema.nullable().default(null),
});
export type FillWishes = z.infer<typeof FillSchema>;

/** A fill from the whole surroundings, with their grain and nothing asked for. */
export function plainFill(search: string, seed = 1, adapt = 1) {
  return {
    kind: 'fill' as const,
    ...FillSchema.parse({ search, seed, adapt, grain: GRAIN_SHARE }),
  };
}
