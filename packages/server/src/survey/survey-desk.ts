import { FINDING_KINDS, GATHERINGS, studiedFor, studiesFor } from '@tersum/core';
import type { SurveyAnswer } from '@tersum/document';
import type { Logger } from 'pino';
import type { WorkPool } from '../pool/pool.js';
import type { Bases } from '../render/bases.js';
import type { FindingStore } from '../store/findings.js';
import type { RecordStore } from '../store/records.js';

interface Run {
  share: number;
  cancelled: boolean;
}

/** Surveys under way: their studies run side by side on the pool. One that a restart cut off is begun again when asked for. */
export class SurveyDesk {
  private readonly runs = new Map<string, Run>();
  private readonly failures = new Map<string, string>();

  constructor(
    private readonly findings: FindingStore,
    private readonly records: RecordStore,
    private readonly bases: Bases,
    private readonly pool: WorkPool,
    private readonly log: Logger,
  ) {}

  describe(pictureId: string): SurveyAnswer {
    this.records.picture(pictureId);
    const { state, settings } = this.findings.survey(pictureId);
    if (state === 'surveying' && !this.runs.has(pictureId)) this.begin(pictureId);
    const run = this.runs.get(pictureId);
    const failure = this.failures.get(pictureId);
    return {
      state: run ? 'surveying' : failure ? 'failed' : state,
      share: run?.share ?? 0,
      message: failure ?? null,
      settings,
      findings: this.findings.list(pictureId),
    };
  }

  /** Begins a survey; one that is under way goes on. */
  begin(pictureId: string): void {
    if (this.runs.has(pictureId)) return;
    const run: Run = { share: 0, cancelled: false };
    this.runs.set(pictureId, run);
    this.failures.delete(pictureId);
    this.findings.setSurvey(pictureId, { state: 'surveying' });
    this.perform(pictureId, run)
      .catch((error: unknown) => {
        this.log.error({ err: error, pictureId }, 'survey failed');
        this.failures.set(pictureId, 'The survey could not be finished. Try it again.');
        this.findings.setSurvey(pictureId, { state: 'none' });
      })
      .finally(() => this.runs.delete(pictureId));
  }

  cancel(pictureId: string): void {
    const run = this.runs.get(pictureId);
    if (!run) return;
    run.cancelled = true;
    this.runs.delete(pictureId);
    const before = this.findings.list(pictureId).length > 0;
    this.findings.setSurvey(pictureId, { state: before ? 'ready' : 'none' });
  }

  private async perform(pictureId: string, run: Run): Promise<void> {
    const { raster } = (await this.bases.get(pictureId)).picture;
    const studies = studiesFor(raster, FINDING_KINDS);
    const steps = studies.length + GATHERINGS.length + 1;
    let done = 0;
    const told = async <R>(answer: Promise<R>): Promise<R> => {
      const result = await answer;
      run.share = ++done / steps;
      return result;
    };
    const studied = (
      await Promise.all(
        studies.map((work) => told(this.pool.run({ kind: 'study', original: raster, work }))),
      )
    ).flat();
    if (run.cancelled) return;
    const gathered = await Promise.all(
      GATHERINGS.map((of) => {
        const own = studiedFor(of, studied);
        return told(this.pool.run({ kind: 'gather', original: raster, studied: own, of }));
      }),
    );
    if (run.cancelled) return;
    const candidates = gathered.flat();
    const found = await this.pool.run({ kind: 'findings', original: raster, candidates });
    if (!run.cancelled) this.findings.replace(pictureId, found);
  }
}
