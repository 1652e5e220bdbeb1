import type { FindingKind } from '@tersum/core';
import { FINDING_KINDS } from '@tersum/core';
import { z } from 'zod';
import { PolicySchema } from './job.js';

const finite = z.number().finite();
const point = z.tuple([finite, finite]);

export const FindingKindSchema = z.enum(FINDING_KINDS);

/** What kinds are called on the docket, and what one is called. */
export const FINDING_NAMES: Record<FindingKind, readonly [many: string, one: string]> = {
  losses: ['Losses', 'Loss'],
  creases: ['Creases', 'Crease'],
  mesh: ['Mesh', 'Mesh'],
  wires: ['Wires', 'Wire'],
  ink: ['Ink', 'Ink'],
  specks: ['Specks', 'Speck'],
  lines: ['Lines', 'Line'],
  stains: ['Stains', 'Stain'],
  pulls: ['Pulls', 'Pull'],
};

/** What is advised for a finding, with its place in the order of work and the time it takes. */
export const FindingAdviceSchema = z.object({
  method: z.enum(['clone', 'graft', 'fill']),
  width: finite.nullable(),
  softness: finite,
  flow: finite,
  portions: z.int(),
  keepStep: z.boolean(),
  donor: z.string(),
  reason: z.string(),
  order: finite,
  /** Seconds. */
  byHand: finite,
  swept: finite,
});

/** Something a survey or a person found in a picture, in the original's pixels. */
export const FindingSchema = z.object({
  id: z.uuid(),
  kind: FindingKindSchema,
  box: z.object({ x: finite, y: finite, width: finite, height: finite }),
  /** What a repair would cover: outlines of its parts, margin included. */
  outlines: z.array(z.array(point).min(3)).min(1),
  polarity: z.union([z.literal(1), z.literal(-1)]),
  /** Writing that stood before the camera, on a sign or a label; of older records nobody knows. */
  onBoard: z.boolean().default(false),
  /** px: width of lines, else diameter. */
  size: finite,
  /** px: greatest extent. */
  extent: finite,
  /** CIEDE2000 against the ring around it. */
  contrast: finite,
  nearEdge: z.object({ distance: finite, contrast: finite }).nullable(),
  /** 0..1 */
  score: finite,
  advice: FindingAdviceSchema,
  by: z.enum(['survey', 'hand']),
});
export type FindingRecord = z.infer<typeof FindingSchema>;

/** A finding and what became of it. */
export const DocketFindingSchema = FindingSchema.extend({
  /** Kept as it is: no damage, or not to be mended. Later surveys remember. */
  dismissed: z.boolean(),
  /** The repair that mends it; it may have been undone since. */
  repairId: z.uuid().nullable(),
});
export type DocketFinding = z.infer<typeof DocketFindingSchema>;

const outline = z.array(point).min(3).max(2000);

/** Where alone a kind is looked for, or where it is left alone. */
export const SurveyAreaSchema = z.object({ kind: FindingKindSchema, only: z.boolean(), outline });
export type SurveyArea = z.infer<typeof SurveyAreaSchema>;

/** How a picture is surveyed: what may be mended, how keenly each kind is looked for, and how it will be seen. */
export const SurveySettingsSchema = z.object({
  /** Holds for the whole job. */
  policy: PolicySchema.default('documentary'),
  /** 0..1 by kind; 0.5 where nothing is said. */
  sensitivity: z.partialRecord(FindingKindSchema, z.number().min(0).max(1)).default({}),
  areas: z.array(SurveyAreaSchema).max(200).default([]),
  /** What the picture is of, as a person marked it: nothing in it draws the eye away. */
  subject: outline.nullable().default(null),
  /** Leave out what does not show at the intended use. */
  onlyShown: z.boolean().default(false),
  /** Size of the use over that of the print, and viewing distance, mm. */
  enlargement: z.number().min(0.05).max(50).default(1),
  distance: z.number().min(50).max(100_000).default(300),
});
export type SurveySettings = z.infer<typeof SurveySettingsSchema>;
