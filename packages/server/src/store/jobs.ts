import { randomUUID } from 'node:crypto';
import type { Job, JobDraft, Picture } from '@tersum/document';
import { asc, count, eq } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { jobs, layers, pictures, repairs } from '../db/schema.js';
import { UserProblem } from '@tersum/codec';

/** Jobs and which pictures they hold. */
export class JobStore {
  constructor(private readonly db: Db) {}

  isEmpty(): boolean {
    return this.db.select({ n: count() }).from(jobs).get()!.n === 0;
  }

  /** All jobs, the ones due first on top. */
  list(): Job[] {
    const counts = new Map(
      this.db
        .select({ pictureId: repairs.pictureId, n: count() })
        .from(repairs)
        .groupBy(repairs.pictureId)
        .all()
        .map((row) => [row.pictureId, row.n]),
    );
    const rows = this.db.select().from(pictures).orderBy(asc(pictures.addedAt)).all();
    return this.db
      .select()
      .from(jobs)
      .all()
      .sort(
        (a, b) =>
          (a.due ?? '9').localeCompare(b.due ?? '9') || a.createdAt.localeCompare(b.createdAt),
      )
      .map((row) => ({
        ...(row as Omit<Job, 'pictures'>),
        pictures: rows
          .filter((p) => p.jobId === row.id)
          .map((p) => ({
            ...(p as Picture),
            repairs: counts.get(p.id) ?? 0,
            coverKey: `${p.original.slice(0, 12)}-${p.version}`,
          })),
      }));
  }

  get(id: string): Job {
    const job = this.list().find((j) => j.id === id);
    if (!job)
      throw new UserProblem(404, 'This job is not here any more. Go back to the job board.');
    return job;
  }

  create(draft: JobDraft): Job {
    const id = randomUUID();
    this.db
      .insert(jobs)
      .values({ ...draft, id, createdAt: new Date().toISOString() })
      .run();
    return this.get(id);
  }

  update(id: string, draft: JobDraft): Job {
    this.get(id);
    this.db.update(jobs).set(draft).where(eq(jobs.id, id)).run();
    return this.get(id);
  }

  /** Adds a picture with its first repair layer. */
  addPicture(picture: Omit<Picture, 'id' | 'version' | 'addedAt'>): Picture {
    this.get(picture.jobId);
    const row: Picture = {
      ...picture,
      id: randomUUID(),
      version: 0,
      addedAt: new Date().toISOString(),
    };
    const layer = { id: randomUUID(), name: 'Repairs', visible: true, position: 0 };
    this.db.transaction((tx) => {
      tx.insert(pictures).values(row).run();
      tx.insert(layers).values({ id: layer.id, pictureId: row.id, data: layer }).run();
    });
    return row;
  }
}
