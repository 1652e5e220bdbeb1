import type {
  Change,
  Delta,
  Edit,
  Layer,
  Picture,
  PictureRecords,
  Preparation,
  Records,
} from '@tersum/document';
import {
  deltasOf,
  FrameSchema,
  historyOf,
  PreparationSchema,
  repeat,
  RepairSchema,
  reverse,
  ToneSchema,
} from '@tersum/document';
import { and, asc, eq } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { changes, finishing, jobs, layers, pictures, repairs } from '../db/schema.js';
import { UserProblem } from '@tersum/codec';
import { Lru } from '../render/lru.js';
import { edited } from './edited.js';

/** Repairs, of all pictures together, whose records are kept in memory. */
const LATELY = 200_000;

type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];

/** A picture's records and their append-only log. Every method is one transaction. */
export class RecordStore {
  /** Records read last, by picture. Nobody else writes them, so they hold as long as the version does. */
  private readonly lately = new Lru<{ readonly version: number; readonly records: Records }>(
    LATELY,
  );

  constructor(private readonly db: Db) {}

  picture(id: string): Picture {
    return findPicture(this.db, id);
  }

  /** A picture, if there is one of this name. */
  find(id: string): Picture | undefined {
    return this.db.select().from(pictures).where(eq(pictures.id, id)).get() as Picture | undefined;
  }

  /** A fact of the print, not of its treatment: it is no change that could be undone. */
  setDensity(id: string, ppi: number | null): void {
    this.picture(id);
    this.db.update(pictures).set({ ppi }).where(eq(pictures.id, id)).run();
  }

  /** All pictures' preparations, with the originals they are made of. */
  preparations(): { readonly original: string; readonly how: Preparation }[] {
    return this.db
      .select({ original: pictures.original, data: finishing.data })
      .from(finishing)
      .innerJoin(pictures, eq(pictures.id, finishing.pictureId))
      .where(eq(finishing.entity, 'preparation'))
      .all()
      .map(({ original, data }) => ({ original, how: PreparationSchema.parse(data) }));
  }

  records(id: string): Records {
    return this.recordsAt(this.db, id, this.picture(id).version);
  }

  /** The records of a version; objects of unchanged records are shared between versions. */
  private recordsAt(tx: Tx | Db, id: string, version: number): Records {
    const known = this.lately.get(id);
    if (known?.version === version) return known.records;
    const records = readRecords(tx, id);
    this.lately.set(id, { version, records }, records.repairs.length + 1);
    return records;
  }

  describe(id: string): PictureRecords {
    return this.db.transaction((tx) => {
      const picture = findPicture(tx, id);
      const job = tx
        .select({ title: jobs.title })
        .from(jobs)
        .where(eq(jobs.id, picture.jobId))
        .get();
      const log = readLog(tx, id);
      const { undo, redo } = historyOf(log);
      const labelOf = (version: number | undefined): string | null =>
        log.find((entry) => entry.version === version)?.label ?? null;
      return {
        picture,
        jobTitle: job?.title ?? '',
        ...this.recordsAt(tx, id, picture.version),
        undo: labelOf(undo.at(-1)),
        redo: labelOf(redo.at(-1)),
        savedAt: log.at(-1)?.at ?? null,
      };
    });
  }

  /** Does a change. @throws UserProblem 409 when the writer had not seen the newest version */
  change(id: string, change: Change): PictureRecords {
    let after: { version: number; records: Records } | null = null;
    this.db.transaction((tx) => {
      const picture = findPicture(tx, id);
      expectVersion(picture, change.version);
      const before = this.recordsAt(tx, id, change.version);
      const deltas = deltasOf(before, change.edits);
      if (!deltas.length) return;
      const version = change.version + 1;
      after = { version, records: perform(tx, picture, before, change.edits) };
      append(tx, id, { version, kind: 'do', of: version, label: change.label, deltas });
    });
    this.remember(id, after);
    return this.describe(id);
  }

  undo(id: string, seen: number): PictureRecords {
    return this.move(id, seen, 'undo', reverse);
  }

  redo(id: string, seen: number): PictureRecords {
    return this.move(id, seen, 'redo', repeat);
  }

  private move(
    id: string,
    seen: number,
    kind: 'undo' | 'redo',
    editsOf: (deltas: Delta[]) => Edit[],
  ): PictureRecords {
    let after: { version: number; records: Records } | null = null;
    this.db.transaction((tx) => {
      const picture = findPicture(tx, id);
      expectVersion(picture, seen);
      const target = historyOf(readLog(tx, id))[kind].at(-1);
      if (target === undefined) throw new UserProblem(422, `There is nothing to ${kind}.`);
      const entry = tx
        .select()
        .from(changes)
        .where(and(eq(changes.pictureId, id), eq(changes.version, target)))
        .get()!;
      const before = this.recordsAt(tx, id, seen);
      after = { version: seen + 1, records: perform(tx, picture, before, editsOf(entry.deltas)) };
      append(tx, id, { version: seen + 1, kind, of: target, label: entry.label, deltas: [] });
    });
    this.remember(id, after);
    return this.describe(id);
  }

  /** Called when a change is on disk, never before. */
  private remember(id: string, after: { version: number; records: Records } | null): void {
    if (after) this.lately.set(id, after, after.records.repairs.length + 1);
  }
}

function findPicture(tx: Tx | Db, id: string): Picture {
  const row = tx.select().from(pictures).where(eq(pictures.id, id)).get();
  if (!row)
    throw new UserProblem(404, 'This picture is not here any more. Go back to the job board.');
  return row as Picture;
}

function readRecords(tx: Tx | Db, id: string): Records {
  const dataOf = (table: typeof layers | typeof repairs): unknown[] =>
    tx
      .select({ data: table.data })
      .from(table)
      .where(eq(table.pictureId, id))
      .orderBy(asc(table.id))
      .all()
      .map((row) => row.data);
  const finish = tx
    .select({ entity: finishing.entity, data: finishing.data })
    .from(finishing)
    .where(eq(finishing.pictureId, id))
    .orderBy(asc(finishing.id))
    .all();
  const finishOf = (entity: 'tone' | 'frame' | 'preparation'): unknown[] =>
    finish.filter((row) => row.entity === entity).map((row) => row.data);
  return {
    layers: dataOf(layers) as Layer[],
    // Records of older versions lack what came later: the schema fills it in.
    repairs: dataOf(repairs).map((data) => RepairSchema.parse(data)),
    tones: finishOf('tone').map((data) => ToneSchema.parse(data)),
    frames: finishOf('frame').map((data) => FrameSchema.parse(data)),
    preparations: finishOf('preparation').map((data) => PreparationSchema.parse(data)),
  };
}

function readLog(tx: Tx, id: string) {
  return tx
    .select({
      version: changes.version,
      kind: changes.kind,
      of: changes.of,
      label: changes.label,
      at: changes.at,
    })
    .from(changes)
    .where(eq(changes.pictureId, id))
    .orderBy(asc(changes.version))
    .all();
}

function expectVersion(picture: Picture, seen: number): void {
  if (picture.version !== seen)
    throw new UserProblem(
      409,
      'This picture was changed in another window. It has been refreshed; please do your change again.',
    );
}

/** Writes edits to the tables. @returns the records after them */
function perform(tx: Tx, picture: Picture, before: Records, edits: readonly Edit[]): Records {
  const after = edited(picture, before, edits);
  for (const edit of edits) write(tx, picture.id, edit);
  return after;
}

const TABLES = {
  layer: layers,
  repair: repairs,
  tone: finishing,
  frame: finishing,
  preparation: finishing,
} as const;

function write(tx: Tx, pictureId: string, { entity, id, after }: Edit): void {
  const table = TABLES[entity];
  const owner = tx.select({ of: table.pictureId }).from(table).where(eq(table.id, id)).get();
  if (owner && owner.of !== pictureId)
    throw new UserProblem(422, 'This record belongs to another picture.');
  if (after === null) return void tx.delete(table).where(eq(table.id, id)).run();
  const place = { id, pictureId };
  if (entity === 'layer')
    tx.insert(layers)
      .values({ ...place, data: after })
      .onConflictDoUpdate({ target: layers.id, set: { data: after } })
      .run();
  else if (entity === 'repair')
    tx.insert(repairs)
      .values({ ...place, data: after })
      .onConflictDoUpdate({ target: repairs.id, set: { data: after } })
      .run();
  else
    tx.insert(finishing)
      .values({ ...place, entity, data: after })
      .onConflictDoUpdate({ target: finishing.id, set: { data: after } })
      .run();
}

function append(
  tx: Tx,
  pictureId: string,
  entry: {
    version: number;
    kind: 'do' | 'undo' | 'redo';
    of: number;
    label: string;
    deltas: Delta[];
  },
): void {
  tx.insert(changes)
    .values({ ...entry, pictureId, at: new Date().toISOString() })
    .run();
  tx.update(pictures).set({ version: entry.version }).where(eq(pictures.id, pictureId)).run();
}
