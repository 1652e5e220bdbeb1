import { z } from 'zod';

export const JOB_STATES = ['new', 'in work', 'to check', 'delivered'] as const;

/** What may be mended: damage alone, or what distracts as well. */
export const PolicySchema = z.enum(['documentary', 'picture']);

/** What a person fills in about a job. */
export const JobDraftSchema = z.object({
  title: z
    .string()
    .trim()
    .min(1, 'Give the job a title.')
    .max(120, 'Keep the title under 120 characters.'),
  client: z.string().trim().max(120, 'Keep the name under 120 characters.'),
  /** Day it is due, or null. */
  due: z.iso.date('Write the day as year-month-day.').nullable(),
  notes: z.string().trim().max(4000, 'Keep the notes under 4000 characters.'),
  state: z.enum(JOB_STATES),
  policy: PolicySchema.default('documentary'),
});
export type JobDraft = z.infer<typeof JobDraftSchema>;

/** One image of a job; its original is immutable. */
export const PictureSchema = z.object({
  id: z.uuid(),
  jobId: z.uuid(),
  name: z.string().trim().min(1, 'A picture needs a name.').max(200),
  /** SHA-256 of the file as received. */
  original: z.string().regex(/^[0-9a-f]{64}$/),
  format: z.enum(['png', 'jpeg', 'tiff', 'webp', 'bmp']),
  width: z.int().min(1),
  height: z.int().min(1),
  channels: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4)]),
  bits: z.union([z.literal(8), z.literal(16)]),
  /** Pixels an inch, or null when the file does not say. */
  ppi: z.number().positive().nullable(),
  /** Name of the ICC profile, or null. */
  profile: z.string().nullable(),
  /** Number of the last change. */
  version: z.int().min(0),
  addedAt: z.iso.datetime(),
});
export type Picture = z.infer<typeof PictureSchema>;

/** What a job takes: seconds of work done, and of what is still to do by the findings that are open. */
export const JobWorkSchema = z.object({ spent: z.number().min(0), remaining: z.number().min(0) });
export type JobWork = z.infer<typeof JobWorkSchema>;

export const JobSchema = JobDraftSchema.extend({
  id: z.uuid(),
  createdAt: z.iso.datetime(),
  archived: z.boolean(),
  work: JobWorkSchema,
  pictures: z.array(PictureSchema.extend({ repairs: z.int().min(0), coverKey: z.string() })),
});
export type Job = z.infer<typeof JobSchema>;
export type JobPicture = Job['pictures'][number];
