import { z } from 'zod';
import { FrameSchema } from './frame.js';
import { PreparationSchema } from './preparation.js';
import { LayerSchema, RepairSchema } from './repair.js';
import { ToneSchema } from './tone.js';

/** One record after a change; null when the change takes it away. */
export const EditSchema = z.discriminatedUnion('entity', [
  z.object({ entity: z.literal('layer'), id: z.uuid(), after: LayerSchema.nullable() }),
  z.object({ entity: z.literal('repair'), id: z.uuid(), after: RepairSchema.nullable() }),
  z.object({ entity: z.literal('tone'), id: z.uuid(), after: ToneSchema.nullable() }),
  z.object({ entity: z.literal('frame'), id: z.uuid(), after: FrameSchema.nullable() }),
  z.object({ entity: z.literal('preparation'), id: z.uuid(), after: PreparationSchema.nullable() }),
]);
export type Edit = z.infer<typeof EditSchema>;

/** What a writer sends: the version it saw, what it calls the change, and the records after it. */
export const ChangeSchema = z.object({
  version: z.int().min(0),
  label: z.string().trim().min(1).max(120),
  edits: z.array(EditSchema).min(1).max(5000),
});
export type Change = z.infer<typeof ChangeSchema>;

/** One record before and after, as the log keeps it. */
export const DeltaSchema = z.discriminatedUnion('entity', [
  z.object({
    entity: z.literal('layer'),
    id: z.uuid(),
    before: LayerSchema.nullable(),
    after: LayerSchema.nullable(),
  }),
  z.object({
    entity: z.literal('repair'),
    id: z.uuid(),
    before: RepairSchema.nullable(),
    after: RepairSchema.nullable(),
  }),
  z.object({
    entity: z.literal('tone'),
    id: z.uuid(),
    before: ToneSchema.nullable(),
    after: ToneSchema.nullable(),
  }),
  z.object({
    entity: z.literal('frame'),
    id: z.uuid(),
    before: FrameSchema.nullable(),
    after: FrameSchema.nullable(),
  }),
  z.object({
    entity: z.literal('preparation'),
    id: z.uuid(),
    before: PreparationSchema.nullable(),
    after: PreparationSchema.nullable(),
  }),
]);
export type Delta = z.infer<typeof DeltaSchema>;

/** An entry of the append-only log: something was done, or an earlier entry was undone or done again. */
export const LogEntrySchema = z.object({
  version: z.int().min(1),
  kind: z.enum(['do', 'undo', 'redo']),
  /** The entry that was undone or redone; its own version for 'do'. */
  of: z.int().min(1),
  label: z.string(),
  at: z.iso.datetime(),
});
export type LogEntry = z.infer<typeof LogEntrySchema>;
