import type { Preparation as Prepared } from '@tersum/core';
import { digestText } from '@tersum/core';
import { z } from 'zod';

const share = z.number().min(-2).max(3);

/**
 * What is done to a picture before its repairs: they begin from what comes of it, and keep their places when it changes. At
 * most one a picture.
 */
export const PreparationSchema = z.object({
  id: z.uuid(),
  /** Shares of red, green and blue of which it is made grey; null leaves its colours. */
  grey: z.tuple([share, share, share]).readonly().nullable(),
  /** How the blocks of a compression are reduced; null leaves them. */
  blocks: z
    .object({
      /** Where their grid begins, px. */
      x: z.int().min(0).max(7),
      y: z.int().min(0).max(7),
      /** Quality of the compression. */
      quality: z.int().min(1).max(100),
      strength: z.number().min(0).max(1),
    })
    .nullable(),
});
export type Preparation = z.infer<typeof PreparationSchema>;

/** Raised whenever the same preparation comes to other samples. */
const VERSION = 1;

/** Names what repairs begin from: the original itself where nothing is prepared. */
export function baseName(original: string, preparation: Prepared | undefined): string {
  if (!preparation || (!preparation.grey && !preparation.blocks)) return original;
  const { grey, blocks } = preparation;
  return digestText(`prepared ${VERSION} ${original} ${JSON.stringify({ grey, blocks })}`);
}
