import { TELL_KINDS } from '@tersum/core';
import { z } from 'zod';
import { PictureSchema } from '../schema/job.js';
import { SidesSchema } from '../schema/sides.js';

const ids = (least: number, most: number) => z.array(z.uuid()).min(least).max(most);

/** What becomes of a joined picture's ragged edges. */
export const EDGES = ['leave', 'crop', 'fill'] as const;
export const PRINT_NAMES = ['regatta', 'garden', 'steps'] as const;

/** New pictures of a job made from others, or by a simulated device. */
export const MakingSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('join'),
    pictures: ids(2, 12),
    projection: z.enum(['auto', 'plane', 'cylinder']),
    edges: z.enum(EDGES),
    /** Where edges are filled, how far out the crop goes: 0 = where nothing is bare, 1 = everything. */
    reach: z.number().min(0).max(1).default(1),
  }),
  z.object({ kind: z.literal('unglare'), pictures: ids(2, 5) }),
  z.object({
    kind: z.literal('simulated'),
    order: z.discriminatedUnion('device', [
      z.object({
        device: z.literal('scanner'),
        print: z.enum(PRINT_NAMES),
        ppi: z.int().min(300).max(1200),
        colour: z.boolean(),
        bits: z.union([z.literal(8), z.literal(16)]),
        glass: z.enum(['clean', 'dirty']),
      }),
      z.object({
        device: z.literal('stand'),
        print: z.enum(PRINT_NAMES),
        shots: z.int().min(2).max(5),
      }),
      z.object({ device: z.literal('camera'), shots: z.int().min(2).max(6) }),
    ]),
  }),
]);
export type Making = z.infer<typeof MakingSchema>;

/** Asks what joined frames will come to. */
export const JoinQuerySchema = z.object({
  pictures: ids(2, 12),
  projection: z.enum(['auto', 'plane', 'cylinder']),
});

export type JoinQuery = z.infer<typeof JoinQuerySchema>;

/** What crops from that without a gap to everything come to, evenly spaced, by a small trial. */
export const JoinPlanSchema = z.object({
  steps: z
    .array(
      z.object({
        /** px of the joined picture, about. */
        width: z.int(),
        height: z.int(),
        /** Share that would be invented. */
        invented: z.number(),
      }),
    )
    .min(2),
});
export type JoinPlan = z.infer<typeof JoinPlanSchema>;

/** Asks for a wider canvas to be tried both ways, small. */
export const WidenQuerySchema = z.object({ sides: SidesSchema });

/** Outlines of what was looked for in a picture; none where it is not there. */
export const OutlinesAnswerSchema = z.object({
  outlines: z.array(z.array(z.tuple([z.number(), z.number()]))),
});

/** Both ways of a wider canvas, the better one first. */
export const WidenAnswerSchema = z.object({
  ways: z
    .array(
      z.object({
        how: z.enum(['fill', 'stretch']),
        /** A small JPEG, base64. */
        picture: z.string(),
        /** Fine slopes of the new sides beside those next to them; 1 is alike. */
        texture: z.number(),
        /** What would give it away, worst first. */
        tells: z.array(
          z.object({ kind: z.enum(TELL_KINDS), value: z.number(), limit: z.number() }),
        ),
        score: z.number(),
        /** Of a stretch: how much longer each side's background is, its worst splice beside ordinary neighbours, lines broken. */
        stretch: z
          .object({
            factors: z.object({
              left: z.number(),
              right: z.number(),
              top: z.number(),
              bottom: z.number(),
            }),
            splices: z.number(),
            broken: z.int(),
          })
          .nullable(),
      }),
    )
    .min(1),
});
export type WidenAnswer = z.infer<typeof WidenAnswerSchema>;

/** How far a making is. */
export const MakingStatusSchema = z.object({
  id: z.uuid(),
  share: z.number(),
  state: z.enum(['working', 'ready', 'failed', 'stopped']),
  message: z.string().nullable(),
  /** What was made, once it is ready. */
  pictures: z.array(PictureSchema),
});
export type MakingStatus = z.infer<typeof MakingStatusSchema>;
