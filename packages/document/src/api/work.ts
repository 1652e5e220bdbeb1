import { FINDING_KINDS } from '@tersum/core';
import { z } from 'zod';

/** Rooms of the house; time in them adds up to all time. */
export const WORK_ROOMS = ['intake', 'bench', 'finish', 'proof'] as const;
/** What working time goes into: a room, or, within it, findings of a kind that were mended. */
export const WORK_KINDS = [...WORK_ROOMS, ...FINDING_KINDS] as const;
export type WorkKind = (typeof WORK_KINDS)[number];

/** Active seconds at a picture; pauses are left out. */
export const WorkTimeSchema = z.object({
  kind: z.enum(WORK_KINDS),
  seconds: z.number().min(0).max(3600),
  /** How many findings were mended in them. */
  count: z.int().min(0).max(100_000).default(0),
});
export type WorkTime = z.infer<typeof WorkTimeSchema>;

/** Seconds a finding takes, by kind, as somebody has set them. */
export const SetTimesSchema = z.partialRecord(
  z.enum(FINDING_KINDS),
  z
    .number()
    .min(0.1, 'Set at least a tenth of a second.')
    .max(7200, 'Two hours are the most.')
    .optional(),
);

/** What the house has set about working hours, money, rest and times. */
export const HouseSchema = z.object({
  /** Hours a day there are for mending. */
  hours: z
    .number()
    .min(0.25, 'Plan at least a quarter of an hour a day.')
    .max(24, 'A day has 24 hours.'),
  /** Whether Saturdays and Sundays are worked. */
  weekends: z.boolean(),
  /** Price of an hour; null shows none. */
  rate: z.number().min(0).max(100_000).nullable(),
  currency: z.string().trim().min(1, 'Write a currency.').max(8),
  /** Minutes of work after which a break is called for; null never. */
  rest: z.int().min(5, 'A break every 5 minutes is the most.').max(240).nullable(),
  /** Seconds for a finding that hold instead of measured and usual ones. */
  times: SetTimesSchema,
});
export type House = z.infer<typeof HouseSchema>;

/** A short break about every 20 to 30 minutes is common practice. */
export const FIRST_HOUSE: House = {
  hours: 6,
  weekends: false,
  rate: null,
  currency: 'EUR',
  rest: 25,
  times: {},
};

/** Own seconds for one finding, by kind: median of what was measured, and how many times. */
export const OwnTimesSchema = z.partialRecord(
  z.enum(FINDING_KINDS),
  z.object({ seconds: z.number(), times: z.int() }),
);
export type OwnTimes = z.infer<typeof OwnTimesSchema>;

/** A picture's log: seconds by what they went into and by day, and everything that was done, the newest first. */
export const WorkLogSchema = z.object({
  kinds: z.partialRecord(z.enum(WORK_KINDS), z.number()),
  days: z.array(z.object({ day: z.iso.date(), seconds: z.number() })),
  changes: z.array(
    z.object({
      version: z.int(),
      kind: z.enum(['do', 'undo', 'redo']),
      label: z.string(),
      at: z.iso.datetime(),
    }),
  ),
});
export type WorkLog = z.infer<typeof WorkLogSchema>;
