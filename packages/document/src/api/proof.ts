import { TELL_KINDS } from '@tersum/core';
import { z } from 'zod';

const box = z.object({ x: z.int(), y: z.int(), width: z.int(), height: z.int() });

/** One tell of a repair, with its value, its limit and its place. */
export const RepairTellSchema = z.object({
  kind: z.enum(TELL_KINDS),
  value: z.number(),
  limit: z.number(),
  box,
  twin: box.optional(),
  /** A repeat of grain alone, which hardly anybody sees. */
  faint: z.boolean().optional(),
  repair: z.uuid(),
});
export type RepairTell = z.infer<typeof RepairTellSchema>;

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
