import type { FindingKind } from '@tersum/core';
import { FINDING_KINDS, medianOf } from '@tersum/core';
import type { FindingFacts, JobWork, OwnTimes, Picture, WorkLog, WorkTime } from '@tersum/document';
import { isOpen, WORK_ROOMS } from '@tersum/document';
import { and, asc, desc, eq, gt, inArray, sql } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { changes, findings, repairs, workTimes } from '../db/schema.js';
import type { FindingStore } from './findings.js';
import type { SettingStore } from './settings.js';

/** Own times count from so many on. */
const ENOUGH = 3;
/** The newest measurements of a kind that are looked at. */
const NEWEST = 200;
/** Changes that a log shows, the newest ones. */
const SHOWN = 1000;

interface Known {
  readonly key: string;
  readonly open: ReadonlyMap<FindingKind, { readonly count: number; readonly byHand: number }>;
}

/** Active time, what it went into, and what is still to do. */
export class WorkStore {
  /** Open findings by picture, as long as neither the docket nor the records change. */
  private readonly open = new Map<string, Known>();

  constructor(
    private readonly db: Db,
    private readonly findings: FindingStore,
    private readonly settings: SettingStore,
  ) {}

  add(pictureId: string, time: WorkTime): void {
    this.db
      .insert(workTimes)
      .values({ pictureId, ...time, at: new Date().toISOString() })
      .run();
  }

  /** A picture's log. Days are told in UTC. */
  log(pictureId: string): WorkLog {
    const rows = this.db
      .select()
      .from(workTimes)
      .where(eq(workTimes.pictureId, pictureId))
      .orderBy(asc(workTimes.id))
      .all();
    const kinds = new Map<string, number>();
    const days = new Map<string, number>();
    for (const { kind, seconds, at } of rows) {
      kinds.set(kind, (kinds.get(kind) ?? 0) + seconds);
      const day = at.slice(0, 10);
      // Time for findings is part of that in the rooms.
      if (WORK_ROOMS.some((room) => room === kind)) days.set(day, (days.get(day) ?? 0) + seconds);
    }
    return {
      kinds: Object.fromEntries(kinds),
      days: [...days].map(([day, seconds]) => ({ day, seconds })),
      changes: this.db
        .select({
          version: changes.version,
          kind: changes.kind,
          label: changes.label,
          at: changes.at,
        })
        .from(changes)
        .where(eq(changes.pictureId, pictureId))
        .orderBy(desc(changes.version))
        .limit(SHOWN)
        .all(),
    };
  }

  /** Median seconds a finding by kind, of the newest times that were measured. */
  ownTimes(): OwnTimes {
    const own: OwnTimes = {};
    for (const kind of FINDING_KINDS) {
      const each = this.db
        .select({ seconds: workTimes.seconds, count: workTimes.count })
        .from(workTimes)
        .where(and(eq(workTimes.kind, kind), gt(workTimes.count, 0)))
        .orderBy(sql`${workTimes.id} desc`)
        .limit(NEWEST)
        .all()
        .map(({ seconds, count }) => seconds / count);
      if (each.length >= ENOUGH) own[kind] = { seconds: medianOf(each), times: each.length };
    }
    return own;
  }

  /** What was spent on pictures and is left to do, by their ids. */
  worksOf(pictures: readonly Picture[]): Map<string, JobWork> {
    const spent = new Map(
      this.db
        .select({ id: workTimes.pictureId, sum: sql<number>`sum(${workTimes.seconds})` })
        .from(workTimes)
        .where(inArray(workTimes.kind, [...WORK_ROOMS]))
        .groupBy(workTimes.pictureId)
        .all()
        .map(({ id, sum }) => [id, sum]),
    );
    const own = this.ownTimes();
    const { times } = this.settings.house();
    return new Map(
      pictures.map((picture) => {
        let remaining = 0;
        for (const [kind, { count, byHand }] of this.openIn(picture))
          remaining += secondsFor(times[kind] ?? own[kind]?.seconds, count, byHand);
        return [picture.id, { spent: spent.get(picture.id) ?? 0, remaining }];
      }),
    );
  }

  private openIn(picture: Picture): Known['open'] {
    const key = `${picture.version} ${this.findings.revision(picture.id)}`;
    const known = this.open.get(picture.id);
    if (known?.key === key) return known.open;
    const { settings } = this.findings.survey(picture.id);
    const standing = new Set(
      this.db
        .select({ id: repairs.id })
        .from(repairs)
        .where(eq(repairs.pictureId, picture.id))
        .all()
        .map(({ id }) => id),
    );
    const open = new Map<FindingKind, { count: number; byHand: number }>();
    for (const { byHand, ...finding } of this.factsOf(picture.id)) {
      if (!isOpen(finding, settings, standing, picture.ppi)) continue;
      const sum = open.get(finding.kind) ?? { count: 0, byHand: 0 };
      open.set(finding.kind, { count: sum.count + 1, byHand: sum.byHand + byHand });
    }
    this.open.set(picture.id, { key, open });
    return open;
  }

  /** What counts of each finding, without its outlines. */
  private factsOf(pictureId: string): (FindingFacts & { byHand: number })[] {
    const part = <T>(path: string) => sql<T>`json_extract(${findings.data}, ${path})`;
    return this.db
      .select({
        kind: part<FindingKind>('$.kind'),
        box: part<string>('$.box'),
        by: part<FindingFacts['by']>('$.by'),
        onBoard: part<number | null>('$.onBoard'),
        score: part<number>('$.score'),
        size: part<number>('$.size'),
        contrast: part<number>('$.contrast'),
        byHand: part<number>('$.advice.byHand'),
        dismissed: findings.dismissed,
        repairId: findings.repairId,
      })
      .from(findings)
      .where(eq(findings.pictureId, pictureId))
      .all()
      .map(({ box, onBoard, ...facts }) => ({
        ...facts,
        box: JSON.parse(box) as FindingFacts['box'],
        onBoard: Boolean(onBoard),
      }));
  }
}

/** Seconds for so many findings of a kind. @param each seconds a finding, where they are known @param usual of all of them */
function secondsFor(each: number | undefined, count: number, usual: number): number {
  return each === undefined ? usual : each * count;
}
