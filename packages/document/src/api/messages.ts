import { z } from 'zod';
import { PictureSchema } from '../schema/job.js';
import { EditSchema } from '../schema/change.js';
import { LayerSchema, RepairSchema } from '../schema/repair.js';

const point = z.tuple([z.number().finite(), z.number().finite()]);

/** Every error answer: one sentence for the person that says what to do. */
export const ProblemSchema = z.object({ message: z.string() });
export type Problem = z.infer<typeof ProblemSchema>;

/** A picture with all its records. */
export const PictureRecordsSchema = z.object({
  picture: PictureSchema,
  jobTitle: z.string(),
  layers: z.array(LayerSchema).readonly(),
  repairs: z.array(RepairSchema).readonly(),
  /** Label of what undo would take back and redo do again; null when there is nothing. */
  undo: z.string().nullable(),
  redo: z.string().nullable(),
  /** When the last change was kept. */
  savedAt: z.iso.datetime().nullable(),
});
export type PictureRecords = z.infer<typeof PictureRecordsSchema>;

/** What the screen should show: which tiles differ from the original, and how the computing stands. */
export const ViewSchema = z.object({
  version: z.int(),
  /** Tile name -> key of its content. Tiles not named here are the original's. */
  tiles: z.record(z.string(), z.string()),
  /** Repairs whose donors changed since they were searched. */
  donorChanged: z.array(z.uuid()),
  /** Repairs that could not be computed, and why. */
  failed: z.record(z.string(), z.string()),
});
export type View = z.infer<typeof ViewSchema>;

/** Events a picture's stream sends. */
export const PictureEventSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('changed'), version: z.int() }),
  z.object({ type: z.literal('progress'), version: z.int(), share: z.number() }),
  z.object({ type: z.literal('view'), view: ViewSchema }),
  z.object({ type: z.literal('trouble'), message: z.string() }),
]);
export type PictureEvent = z.infer<typeof PictureEventSchema>;

export const VersionSchema = z.object({ version: z.int().min(0) });

/** Records as they would be, to be shown but not kept. */
export const PreviewSchema = z.object({
  version: z.int().min(0),
  edits: z.array(EditSchema).min(1).max(500),
});
export type Preview = z.infer<typeof PreviewSchema>;

export const DonorQuerySchema = z.object({ repair: RepairSchema });
export const DonorAnswerSchema = z.object({
  donor: z.object({ dx: z.number(), dy: z.number(), misfit: z.number() }).nullable(),
});

export const LineQuerySchema = z.object({ from: point, to: point });
export const LineAnswerSchema = z.object({
  line: z
    .object({
      points: z.array(point),
      bends: z.array(z.number()),
      width: z.number(),
      contrast: z.number(),
    })
    .nullable(),
});

export const EXPORT_FORMATS = ['png', 'tiff', 'jpeg', 'webp'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

export const ExportSchema = z.object({
  format: z.enum(EXPORT_FORMATS),
  /** 1..100, JPEG and WebP only. */
  quality: z.int().min(1).max(100).default(92),
  /** Rule for the file name; see {@link fileNameOf}. */
  rule: z.string().trim().min(1, 'Write a rule for the file name.').max(200),
});
export type ExportRequest = z.infer<typeof ExportSchema>;

/** An export being made or ready. */
export const ExportStatusSchema = z.object({
  id: z.uuid(),
  fileName: z.string(),
  share: z.number(),
  state: z.enum(['working', 'ready', 'failed']),
  message: z.string().nullable(),
  /** Warning about what the format cannot hold; null when nothing is lost. */
  warning: z.string().nullable(),
});
export type ExportStatus = z.infer<typeof ExportStatusSchema>;
