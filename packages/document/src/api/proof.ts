import { TELL_KINDS } from '@tersum/core';
import { z } from 'zod';

const box = z.object({ x: z.int(), y: z.int(), width: z.int(), height: z.int() });

/** What gives the repairs of a picture away, each with its value, its limit and its place. */
export const ProofAnswerSchema = z.object({
  /** The version of the records that was measured. */
  version: z.int(),
  tells: z.array(
    z.object({
      kind: z.enum(TELL_KINDS),
      value: z.number(),
      limit: z.number(),
      box,
      twin: box.optional(),
      repair: z.uuid(),
    }),
  ),
});
export type ProofAnswer = z.infer<typeof ProofAnswerSchema>;
