import type { Halves, SurveyPart, SurveyPartDone } from '@tersum/core';
import { candidatesBy, Cancelled, FINDING_KINDS } from '@tersum/core';
import type { SurveyAnswer } from '@tersum/document';
import type { Logger } from 'pino';
import type { WorkPool } from '../pool/pool.js';
import type { Bases } from '../render/bases.js';
import type { FindingStore } from '../store/findings.js';
import type { RecordStore } from '../store/records.js';

interface Run {
  share: number;
  readonly stop: AbortController;
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
    const run: Run = { share: 0, stop: new AbortController() };
    this.runs.set(pictureId, run);
    this.failures.delete(pictureId);
    this.findings.setSurvey(pictureId, { state: 'surveying' });
    this.perform(pictureId, run)
      .catch((error: unknown) => {
        if (error instanceof Cancelled) return;
        this.log.error({ err: error, pictureId }, 'survey failed');
        this.failures.set(pictureId, 'The survey could not be finished. Try it again.');
        this.findings.setSurvey(pictureId, { state: 'none' });
      })
      .finally(() => {
        if (this.runs.get(pictureId) === run) this.runs.delete(pictureId);
      });
  }

  cancel(pictureId: string): void {
    const run = this.runs.get(pictureId);
    if (!run) return;
    run.stop.abort();
    this.runs.delete(pictureId);
    const before = this.findings.list(pictureId).length > 0;
    this.findings.setSurvey(pictureId, { state: before ? 'ready' : 'none' });
  }

  private async perform(pictureId: string, run: Run): Promise<void> {
    const { raster } = (await this.bases.get(pictureId)).picture;
    const candidates = await candidatesBy(
      <P extends SurveyPart>(halves: Halves, part: P) =>
        this.pool.run({ kind: 'survey part', halves, part }) as Promise<SurveyPartDone<P>>,
      raster,
      FINDING_KINDS,
      {
        signal: run.stop.signal,
        progress: (share) => (run.share = share),
      },
    );
    const found = await this.pool.run({ kind: 'findings', original: raster, candidates });
    if (!run.stop.signal.aborted) this.findings.replace(pictureId, found);
  }
}
