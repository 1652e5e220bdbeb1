import { z } from 'zod';
import { DocketFindingSchema, SurveySettingsSchema } from '../schema/finding.js';

const point = z.tuple([z.number().finite(), z.number().finite()]);

/** Where the survey of a picture stands, and what it found. */
export const SurveyAnswerSchema = z.object({
  state: z.enum(['none', 'surveying', 'ready', 'failed']),
  /** Share done while surveying. */
  share: z.number(),
  message: z.string().nullable(),
  settings: SurveySettingsSchema,
  findings: z.array(DocketFindingSchema),
});
export type SurveyAnswer = z.infer<typeof SurveyAnswerSchema>;

const MOST_IDS = 20_000;
export const FindingIdsSchema = z.array(z.uuid()).min(1).max(MOST_IDS);

/** Findings that are kept as they are, or are to be looked at again. */
export const DismissSchema = z.object({ ids: FindingIdsSchema, dismissed: z.boolean() });

/** A place to add a finding at: what lies there is outlined. */
export const AddFindingSchema = z.object({ at: point });

/** Mends findings in one go; they become one repair for every kind. */
export const SweepSchema = z.object({ version: z.int().min(0), ids: FindingIdsSchema });

/** Takes one finding out of the repair that mends it with others: as a repair of its own, or to be left as it is. */
export const TakeOutSchema = z.object({ version: z.int().min(0), id: z.uuid(), mend: z.boolean() });
