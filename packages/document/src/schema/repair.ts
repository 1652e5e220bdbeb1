import { z } from 'zod';
import { MethodSchema } from './method.js';
import { SiteSchema } from './site.js';

const finite = z.number().finite();

export const WIDTH_LIMITS = { least: 1, most: 2000 } as const;

/** A repair is a record of what was decided; its pixels are computed from it. */
export const RepairSchema = z.object({
  id: z.uuid(),
  layerId: z.uuid(),
  /** Order within its layer, lower first. */
  position: finite,
  enabled: z.boolean(),
  site: SiteSchema,
  /** px */
  width: z.number().min(WIDTH_LIMITS.least).max(WIDTH_LIMITS.most),
  /** 0 hard .. 1 soft */
  softness: z.number().min(0).max(1),
  /** 0..1 a pass */
  flow: z.number().min(0.01).max(1),
  /** 0..1 */
  strength: z.number().min(0).max(1),
  method: MethodSchema,
  /** Why it was done, in a line; may be empty. */
  reason: z.string().max(400),
  createdAt: z.iso.datetime(),
});
export type Repair = z.infer<typeof RepairSchema>;

/** Repair layers lie over the original, bottom to top by position. */
export const LayerSchema = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1, 'A layer needs a name.').max(80),
  visible: z.boolean(),
  position: finite,
});
export type Layer = z.infer<typeof LayerSchema>;
