import type { DocketFinding, FindingRecord, SurveySettings } from '@tersum/document';
import { SurveySettingsSchema } from '@tersum/document';
import { and, eq, inArray } from 'drizzle-orm';
import { UserProblem } from '@tersum/codec';
import type { Db } from '../db/open.js';
import { findings, jobs, pictures, surveys } from '../db/schema.js';

/** Rows written or named at once; SQLite takes only so many values in a statement. */
const BATCH = 400;

/** What was found in pictures, what became of it, and how they are surveyed. */
export class FindingStore {
  private readonly revisions = new Map<string, number>();

  constructor(private readonly db: Db) {}

  /** Changes whenever a picture's findings or its survey's settings do. */
  revision(pictureId: string): number {
    return this.revisions.get(pictureId) ?? 0;
  }

  /** Says that what holds for all pictures of a job was changed. */
  jobTouched(jobId: string): void {
    for (const { id } of this.db.select().from(pictures).where(eq(pictures.jobId, jobId)).all())
      this.touched(id);
  }

  private jobOf(pictureId: string): { id: string; policy: SurveySettings['policy'] } {
    const row = this.db
      .select({ id: jobs.id, policy: jobs.policy })
      .from(jobs)
      .innerJoin(pictures, eq(pictures.jobId, jobs.id))
      .where(eq(pictures.id, pictureId))
      .get();
    if (!row)
      throw new UserProblem(404, 'This picture is not here any more. Go back to the job board.');
    return row;
  }

  private touched(pictureId: string): void {
    this.revisions.set(pictureId, this.revision(pictureId) + 1);
  }

  list(pictureId: string): DocketFinding[] {
    return this.db
      .select()
      .from(findings)
      .where(eq(findings.pictureId, pictureId))
      .all()
      .map(({ data, dismissed, repairId }) => ({ ...data, dismissed, repairId }))
      .sort((a, b) => a.advice.order - b.advice.order || b.score - a.score);
  }

  survey(pictureId: string): { state: 'none' | 'surveying' | 'ready'; settings: SurveySettings } {
    const row = this.db.select().from(surveys).where(eq(surveys.pictureId, pictureId)).get();
    const { policy } = this.jobOf(pictureId);
    return {
      state: row?.state ?? 'none',
      settings: SurveySettingsSchema.parse({ ...row?.settings, policy }),
    };
  }

  setSurvey(
    pictureId: string,
    change: { state?: 'none' | 'surveying' | 'ready'; settings?: SurveySettings },
  ): void {
    const next = { ...this.survey(pictureId), ...change };
    const { id, policy } = this.jobOf(pictureId);
    if (next.settings.policy !== policy) {
      this.db.update(jobs).set({ policy: next.settings.policy }).where(eq(jobs.id, id)).run();
      this.jobTouched(id);
    }
    this.db
      .insert(surveys)
      .values({ pictureId, ...next })
      .onConflictDoUpdate({ target: surveys.pictureId, set: next })
      .run();
    this.touched(pictureId);
  }

  /**
   * Puts a new survey's findings in the place of the old ones. What a person decided on stays, and stands for what was
   * found there again.
   */
  replace(pictureId: string, found: readonly FindingRecord[]): void {
    this.db.transaction((tx) => {
      const decided = this.list(pictureId).filter(
        (f) => f.dismissed || f.repairId || f.by === 'hand',
      );
      const kept = new Set(decided.map(({ id }) => id));
      const stale = this.list(pictureId).filter(({ id }) => !kept.has(id));
      inBatches(stale, (part) =>
        tx
          .delete(findings)
          .where(
            inArray(
              findings.id,
              part.map(({ id }) => id),
            ),
          )
          .run(),
      );
      const fresh = found.filter(
        (f) => !decided.some((d) => d.kind === f.kind && sameSite(d.box, f.box)),
      );
      inBatches(fresh, (part) =>
        tx
          .insert(findings)
          .values(
            part.map((data) => ({
              id: data.id,
              pictureId,
              data,
              dismissed: false,
              repairId: null,
            })),
          )
          .run(),
      );
      this.setSurvey(pictureId, { state: 'ready' });
    });
  }

  add(pictureId: string, data: FindingRecord): void {
    this.db
      .insert(findings)
      .values({ id: data.id, pictureId, data, dismissed: false, repairId: null })
      .run();
    this.touched(pictureId);
  }

  /** Takes up a finding that a person pointed at: nobody doubts it any more. */
  confirm(pictureId: string, { id, dismissed: _, repairId: __, ...data }: DocketFinding): void {
    this.db
      .update(findings)
      .set({ dismissed: false, data: { ...data, id, score: 1, by: 'hand' } })
      .where(and(eq(findings.pictureId, pictureId), eq(findings.id, id)))
      .run();
    this.touched(pictureId);
  }

  dismiss(pictureId: string, ids: readonly string[], dismissed: boolean): void {
    this.update(pictureId, ids, { dismissed });
  }

  /** Says which repair mends some findings; null for none. */
  link(pictureId: string, ids: readonly string[], repairId: string | null): void {
    this.update(pictureId, ids, { repairId });
  }

  private update(
    pictureId: string,
    ids: readonly string[],
    change: { dismissed?: boolean; repairId?: string | null },
  ): void {
    this.db.transaction((tx) =>
      inBatches(ids, (part) =>
        tx
          .update(findings)
          .set(change)
          .where(and(eq(findings.pictureId, pictureId), inArray(findings.id, [...part])))
          .run(),
      ),
    );
    this.touched(pictureId);
  }
}

function inBatches<T>(list: readonly T[], act: (part: readonly T[]) => void): void {
  for (let k = 0; k < list.length; k += BATCH) act(list.slice(k, k + BATCH));
}

type Box = FindingRecord['box'];

/** Whether two boxes are about the same place: what they share is a good part of the larger one. */
function sameSite(a: Box, b: Box): boolean {
  const w = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const h = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  if (w <= 0 || h <= 0) return false;
  return w * h > 0.4 * Math.max(a.width * a.height, b.width * b.height);
}
