import type {
  Delta,
  ExportRecipe,
  FindingRecord,
  Frame,
  KeptDonorDraft,
  Layer,
  Preparation,
  Repair,
  MeasuredTell,
  SurveySettings,
  Tone,
} from '@tersum/document';
import { index, integer, primaryKey, real, sqliteTable, text } from 'drizzle-orm/sqlite-core';

export const jobs = sqliteTable('jobs', {
  id: text().primaryKey(),
  title: text().notNull(),
  client: text().notNull(),
  due: text(),
  notes: text().notNull(),
  state: text().notNull(),
  policy: text({ enum: ['documentary', 'picture'] })
    .notNull()
    .default('documentary'),
  createdAt: text('created_at').notNull(),
  archived: integer({ mode: 'boolean' }).notNull().default(false),
  /** When it was thrown away; such jobs can be taken back. */
  deletedAt: text('deleted_at'),
});

export const pictures = sqliteTable(
  'pictures',
  {
    id: text().primaryKey(),
    jobId: text('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    name: text().notNull(),
    original: text().notNull(),
    format: text().notNull(),
    width: integer().notNull(),
    height: integer().notNull(),
    channels: integer().notNull(),
    bits: integer().notNull(),
    ppi: real(),
    profile: text(),
    version: integer().notNull(),
    addedAt: text('added_at').notNull(),
  },
  (table) => [index('pictures_by_job').on(table.jobId)],
);

export const layers = sqliteTable(
  'layers',
  {
    id: text().primaryKey(),
    pictureId: text('picture_id')
      .notNull()
      .references(() => pictures.id, { onDelete: 'cascade' }),
    data: text({ mode: 'json' }).$type<Layer>().notNull(),
  },
  (table) => [index('layers_by_picture').on(table.pictureId)],
);

export const repairs = sqliteTable(
  'repairs',
  {
    id: text().primaryKey(),
    pictureId: text('picture_id')
      .notNull()
      .references(() => pictures.id, { onDelete: 'cascade' }),
    data: text({ mode: 'json' }).$type<Repair>().notNull(),
  },
  (table) => [index('repairs_by_picture').on(table.pictureId)],
);

/** What is done to the picture as a whole: its preparation, the steps of the tone stack, the frame. */
export const finishing = sqliteTable(
  'finishing',
  {
    id: text().primaryKey(),
    pictureId: text('picture_id')
      .notNull()
      .references(() => pictures.id, { onDelete: 'cascade' }),
    entity: text({ enum: ['tone', 'frame', 'preparation'] }).notNull(),
    data: text({ mode: 'json' }).$type<Tone | Frame | Preparation>().notNull(),
  },
  (table) => [index('finishing_by_picture').on(table.pictureId)],
);

/** Append-only: what was done, undone and done again. */
export const changes = sqliteTable(
  'changes',
  {
    pictureId: text('picture_id')
      .notNull()
      .references(() => pictures.id, { onDelete: 'cascade' }),
    version: integer().notNull(),
    kind: text({ enum: ['do', 'undo', 'redo'] }).notNull(),
    of: integer().notNull(),
    label: text().notNull(),
    deltas: text({ mode: 'json' }).$type<Delta[]>().notNull(),
    at: text().notNull(),
  },
  (table) => [primaryKey({ columns: [table.pictureId, table.version] })],
);

/** Donors kept at hand for all pictures of a job. */
export const keptDonors = sqliteTable(
  'kept_donors',
  {
    id: text().primaryKey(),
    jobId: text('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    data: text({ mode: 'json' }).$type<KeptDonorDraft>().notNull(),
    keptAt: text('kept_at').notNull(),
  },
  (table) => [index('kept_donors_by_job').on(table.jobId)],
);

/** What fills' searches ended in; the map itself is a file named by its hash. */
export const searches = sqliteTable('searches', {
  id: text().primaryKey(),
  map: text().notNull(),
  below: text().notNull(),
  finishedAt: text('finished_at').notNull(),
});

/** What surveys and people found in a picture. */
export const findings = sqliteTable(
  'findings',
  {
    id: text().primaryKey(),
    pictureId: text('picture_id')
      .notNull()
      .references(() => pictures.id, { onDelete: 'cascade' }),
    data: text({ mode: 'json' }).$type<FindingRecord>().notNull(),
    dismissed: integer({ mode: 'boolean' }).notNull(),
    repairId: text('repair_id'),
  },
  (table) => [index('findings_by_picture').on(table.pictureId)],
);

/** How a picture is surveyed, and whether a survey is under way. */
export const surveys = sqliteTable('surveys', {
  pictureId: text('picture_id')
    .primaryKey()
    .references(() => pictures.id, { onDelete: 'cascade' }),
  state: text({ enum: ['none', 'surveying', 'ready'] }).notNull(),
  settings: text({ mode: 'json' }).$type<SurveySettings>().notNull(),
});

/** The tells of each repair as measured last, and the name of what they were measured on. */
export const proofs = sqliteTable('proofs', {
  pictureId: text('picture_id')
    .primaryKey()
    .references(() => pictures.id, { onDelete: 'cascade' }),
  version: integer().notNull(),
  data: text({ mode: 'json' }).$type<Record<string, KeptTells>>().notNull(),
});

/** What proof keeps of one repair. */
export interface KeptTells {
  readonly name: string;
  readonly tells: readonly MeasuredTell[];
}

/** Tells that somebody looked at and let stand, as they were then. */
export const standingTells = sqliteTable(
  'standing_tells',
  {
    pictureId: text('picture_id')
      .notNull()
      .references(() => pictures.id, { onDelete: 'cascade' }),
    /** Repair, kind and place. */
    key: text().notNull(),
    value: real().notNull(),
    at: text().notNull(),
  },
  (table) => [primaryKey({ columns: [table.pictureId, table.key] })],
);

/** Frames of a picture's sweep that were looked at, and what was seen. */
export const sweptFrames = sqliteTable(
  'swept_frames',
  {
    pictureId: text('picture_id')
      .notNull()
      .references(() => pictures.id, { onDelete: 'cascade' }),
    frame: integer().notNull(),
    content: text().notNull(),
    state: text({ enum: ['passed', 'marked'] }).notNull(),
    at: text().notNull(),
  },
  (table) => [primaryKey({ columns: [table.pictureId, table.frame] })],
);

/** Append-only: active seconds at a picture, and what they went into. */
export const workTimes = sqliteTable(
  'work_times',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    pictureId: text('picture_id')
      .notNull()
      .references(() => pictures.id, { onDelete: 'cascade' }),
    kind: text().notNull(),
    seconds: real().notNull(),
    /** How many findings were mended in them. */
    count: integer().notNull(),
    at: text().notNull(),
  },
  (table) => [index('work_times_by_picture').on(table.pictureId)],
);

/** Ways of delivering that are kept by name. */
export const recipes = sqliteTable('recipes', {
  id: text().primaryKey(),
  data: text({ mode: 'json' }).$type<ExportRecipe>().notNull(),
  keptAt: text('kept_at').notNull(),
});

/** What the house has set, by name. */
export const settings = sqliteTable('settings', {
  name: text().primaryKey(),
  value: text({ mode: 'json' }).notNull(),
});

/** Append-only: files that were made of a picture to be delivered. */
export const deliveries = sqliteTable(
  'deliveries',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    pictureId: text('picture_id')
      .notNull()
      .references(() => pictures.id, { onDelete: 'cascade' }),
    fileName: text('file_name').notNull(),
    sha256: text().notNull(),
    bytes: integer().notNull(),
    at: text().notNull(),
  },
  (table) => [index('deliveries_by_picture').on(table.pictureId)],
);
