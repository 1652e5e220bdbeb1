import { randomUUID } from 'node:crypto';
import type { Job, JobDraft, Picture } from '@tersum/document';
import { asc, count, eq, isNull } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { jobs, layers, pictures, repairs } from '../db/schema.js';
import { UserProblem } from '@tersum/codec';
import type { FindingStore } from './findings.js';
import type { WorkStore } from './work.js';

/** Jobs and which pictures they hold. */
export class JobStore {
  constructor(
    private readonly db: Db,
    private readonly work: WorkStore,
    private readonly findings: FindingStore,
  ) {}

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
    const works = this.work.worksOf(rows as Picture[]);
    return this.db
      .select()
      .from(jobs)
      .where(isNull(jobs.deletedAt))
      .all()
      .sort(
        (a, b) =>
          (a.due ?? '9').localeCompare(b.due ?? '9') || a.createdAt.localeCompare(b.createdAt),
      )
      .map(({ deletedAt: _, ...row }) => {
        const own = rows.filter((p) => p.jobId === row.id) as Picture[];
        return {
          ...(row as Omit<Job, 'pictures' | 'work'>),
          work: own.reduce(
            (sum, { id }) => ({
              spent: sum.spent + works.get(id)!.spent,
              remaining: sum.remaining + works.get(id)!.remaining,
            }),
            { spent: 0, remaining: 0 },
          ),
          pictures: own.map((p) => ({
            ...p,
            repairs: counts.get(p.id) ?? 0,
            coverKey: `${p.original.slice(0, 12)}-${p.version}`,
          })),
        };
      });
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
    this.findings.jobTouched(id);
    return this.get(id);
  }

  /** Puts a job away among the finished ones, or back. */
  archive(id: string, archived: boolean): Job {
    this.get(id);
    this.db.update(jobs).set({ archived }).where(eq(jobs.id, id)).run();
    return this.get(id);
  }

  /** Throws a job away; {@link restore} takes it back. */
  drop(id: string): void {
    this.get(id);
    this.db.update(jobs).set({ deletedAt: new Date().toISOString() }).where(eq(jobs.id, id)).run();
  }

  restore(id: string): Job {
    this.db.update(jobs).set({ deletedAt: null }).where(eq(jobs.id, id)).run();
    return this.get(id);
  }

  /** A new job with the same pictures as received and what is written about it; repairs stay with the old one. */
  duplicate(id: string): Job {
    const { title, client, due, notes, policy, pictures: own } = this.get(id);
    const name = `${title}, again`.slice(0, 120);
    return this.db.transaction(() => {
      const copy = this.create({ title: name, client, due, notes, policy, state: 'new' });
      for (const { id: _, jobId: __, version: ___, addedAt: ____, ...picture } of own)
        this.addPicture({ ...withoutCover(picture), jobId: copy.id });
      return this.get(copy.id);
    });
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

function withoutCover<T extends { repairs: number; coverKey: string }>(
  picture: T,
): Omit<T, 'repairs' | 'coverKey'> {
  const { repairs: _, coverKey: __, ...rest } = picture;
  return rest;
}
