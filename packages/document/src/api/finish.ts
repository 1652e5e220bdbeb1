import { GREY_WAYS } from '@tersum/core';
import { z } from 'zod';
import { LevelsSchema, ToneActSchema, ToneSchema } from '../schema/tone.js';

const point = z.tuple([z.number().finite(), z.number().finite()]);
const quad = z.tuple([point, point, point, point]);

/** A part of the mended picture that is asked for: full px, and how many of them a pixel stands for. */
export const PartQuerySchema = z.object({
  x: z.coerce.number().int(),
  y: z.coerce.number().int(),
  width: z.coerce.number().int().min(1),
  height: z.coerce.number().int().min(1),
  factor: z.coerce.number().int().min(1).max(64),
  /** As received; as prepared and mended; or that as it is without its widening. */
  state: z.enum(['received', 'mended', 'unwidened']).default('mended'),
});
export type PartQuery = z.infer<typeof PartQuerySchema>;

/** Most pixels one part may have. */
export const MOST_PART = 4_000_000;

/** How far a picture stands turned, by its level and plumb lines. */
export const TiltAnswerSchema = z.object({ angle: z.number(), clearness: z.number() });

/** Prints that lie in a picture, in reading order. */
export const PrintsAnswerSchema = z.object({
  prints: z.array(z.object({ quad, edges: z.int().min(0).max(4) })),
});
export type PrintsAnswer = z.infer<typeof PrintsAnswerSchema>;

/** Acts that undo a print's fading as it was measured. */
export const FadeAnswerSchema = z.object({ acts: z.array(ToneActSchema) });

/** Blocks that a compression with losses left; null where none would show. */
export const BlocksAnswerSchema = z.object({
  blocks: z.object({ x: z.int(), y: z.int(), quality: z.int(), steps: z.number() }).nullable(),
});

/** The ways to make grey of a picture side by side; null for one that is grey. */
export const ChannelsAnswerSchema = z.object({
  choice: z
    .object({
      ways: z.array(
        z.object({
          way: z.enum(GREY_WAYS),
          weights: z.tuple([z.number(), z.number(), z.number()]),
          contrast: z.number(),
          noise: z.number(),
          damage: z.number(),
          clearness: z.number(),
        }),
      ),
      best: z.enum(GREY_WAYS),
      reason: z.string(),
    })
    .nullable(),
});
export type GreyAnswer = z.infer<typeof ChannelsAnswerSchema>['choice'];

/** Prints to be made pictures of their own. */
export const SplitSchema = z.object({ quads: z.array(quad).min(1).max(60) });

/** Pixels an inch of the print; null when nobody knows. */
export const DensitySchema = z.object({
  ppi: z.number().min(1, 'A print has at least 1 ppi.').max(9600, 'At most 9600 ppi.').nullable(),
});

/** What the pixels of a scan really hold; see the core's detailReach. */
export const DetailAnswerSchema = z.object({
  reach: z.number(),
  fine: z.number(),
  interpolated: z.boolean(),
});

/** Asks for levels after some steps, so that no more than a share of the samples clips at each end. */
export const LevelsQuerySchema = z.object({
  steps: z.array(ToneSchema).max(200),
  share: z.number().min(0).max(0.2),
});
export type LevelsQuery = z.infer<typeof LevelsQuerySchema>;
/** One for all channels together, and one for each. */
export const LevelsAnswerSchema = z.object({
  all: LevelsSchema,
  each: z.array(LevelsSchema).min(1).max(3),
});
export type LevelsAnswer = z.infer<typeof LevelsAnswerSchema>;
