import { randomUUID } from 'node:crypto';
import type { KeptDonor, KeptDonorDraft } from '@tersum/document';
import { UserProblem } from '@tersum/codec';
import { and, asc, eq } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { keptDonors, pictures } from '../db/schema.js';

/** Donors kept at hand, by job. */
export class KeptDonorStore {
  constructor(private readonly db: Db) {}

  list(jobId: string): KeptDonor[] {
    return this.db
      .select()
      .from(keptDonors)
      .where(eq(keptDonors.jobId, jobId))
      .orderBy(asc(keptDonors.keptAt))
      .all()
      .map(({ id, data }) => ({ id, ...data }));
  }

  /** @throws UserProblem when the donor's picture is not in the job */
  keep(jobId: string, draft: KeptDonorDraft): KeptDonor {
    const there = this.db
      .select({ id: pictures.id })
      .from(pictures)
      .where(and(eq(pictures.id, draft.pictureId), eq(pictures.jobId, jobId)))
      .get();
    if (!there) throw new UserProblem(422, 'A donor must lie in a picture of the same job.');
    const id = randomUUID();
    const keptAt = new Date().toISOString();
    this.db.insert(keptDonors).values({ id, jobId, data: draft, keptAt }).run();
    return { id, ...draft };
  }

  drop(jobId: string, id: string): void {
    this.db
      .delete(keptDonors)
      .where(and(eq(keptDonors.id, id), eq(keptDonors.jobId, jobId)))
      .run();
  }
}
