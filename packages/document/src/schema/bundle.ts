import { z } from 'zod';
import { FrameSchema } from './frame.js';
import { PictureSchema } from './job.js';
import { PreparationSchema } from './preparation.js';
import { LayerSchema, RepairSchema } from './repair.js';
import { ToneSchema } from './tone.js';

/** Where the parts of a delivered job lie in its zip. */
export const BUNDLE = {
  job: 'job.json',
  original: (hash: string): string => `originals/${hash}`,
  map: (hash: string): string => `maps/${hash}`,
} as const;

/** Hashes name files: nothing else may stand in their place. */
const hash = z.string().regex(/^[0-9a-f]{8,128}$/, 'a file is not named by its hash');

/**
 * A picture's job as it travels: `job.json` beside the original files and the donor maps, all named by their hashes.
 * Rendered again anywhere it gives the same samples, since nothing is searched anew.
 */
export const BundleSchema = z.object({
  format: z.literal('tersum-job'),
  version: z.literal(1),
  picture: PictureSchema,
  layers: z.array(LayerSchema),
  repairs: z.array(RepairSchema),
  tones: z.array(ToneSchema),
  frames: z.array(FrameSchema),
  preparations: z.array(PreparationSchema).default([]),
  /** What each fill's search ended in: the hash of its donor map, and what lay below it. */
  searches: z.record(z.string(), z.object({ map: hash, below: z.string() })),
  /** Originals of other pictures that repairs copy from, by picture. */
  elsewhere: z.record(z.string(), hash),
  /** How those were prepared, by picture; none is left out. */
  elsewherePrepared: z.record(z.string(), PreparationSchema).default({}),
});
export type Bundle = z.infer<typeof BundleSchema>;
