import type { TellKind } from '@tersum/core';
import { TELL_KINDS, TELL_RANGES } from '@tersum/core';
import { z } from 'zod';

const box = z.object({ x: z.int(), y: z.int(), width: z.int(), height: z.int() });

/** What was measured of a repair, or of the whole picture, and may be telling. */
export const MeasuredTellSchema = z.object({
  kind: z.enum(TELL_KINDS),
  value: z.number(),
  box,
  twin: box.optional(),
  /** A repeat of grain alone, which hardly anybody sees. */
  faint: z.boolean().optional(),
  /** For what draws the eye: what a repair would cover. */
  outlines: z.array(z.array(z.tuple([z.number(), z.number()]))).optional(),
});
export type MeasuredTell = z.infer<typeof MeasuredTellSchema>;

/** A tell beyond its limit. */
export const RepairTellSchema = MeasuredTellSchema.extend({
  limit: z.number(),
  /** Null for a tell of the whole picture. */
  repair: z.uuid().nullable(),
  /** Looked at and let stand by a person. */
  stands: z.boolean(),
});
export type RepairTell = z.infer<typeof RepairTellSchema>;

/** Lets a tell stand, or has it told again. */
export const StandSchema = z.object({
  kind: z.enum(TELL_KINDS),
  repair: z.uuid().nullable(),
  box,
  stands: z.boolean(),
});
export type Stand = z.infer<typeof StandSchema>;

/** Limits of the house, each within its range. */
export const LimitsSchema = z.object(
  Object.fromEntries(
    TELL_KINDS.map((kind) => {
      const [one, other] = TELL_RANGES[kind];
      return [kind, z.number().min(Math.min(one, other)).max(Math.max(one, other))];
    }),
  ) as Record<TellKind, z.ZodNumber>,
);

/** What gives the repairs of a picture away. */
export const ProofAnswerSchema = z.object({
  /** The version of the records that was measured. */
  version: z.int(),
  tells: z.array(RepairTellSchema),
});
export type ProofAnswer = z.infer<typeof ProofAnswerSchema>;

/** The proof that was kept last, null when there was none; and the share done of one that is under way, else null. */
export const KeptProofSchema = z.object({
  proof: ProofAnswerSchema.nullable(),
  share: z.number().nullable(),
});
export type KeptProofAnswer = z.infer<typeof KeptProofSchema>;

/** A frame of the sweep that somebody looked at. */
export const SweptFrameSchema = z.object({
  /** Place in the picture's grid of frames, reading order. */
  frame: z.int().min(0).max(100_000),
  /** Names what was seen: when it changes, the frame is due again. */
  content: z.string().max(200),
  /** Whether nothing was wrong, or something is to be mended. */
  state: z.enum(['passed', 'marked']),
});
export type SweptFrame = z.infer<typeof SweptFrameSchema>;
export const SweepAnswerSchema = z.object({ frames: z.array(SweptFrameSchema) });
