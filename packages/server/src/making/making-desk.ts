import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { UserProblem } from '@tersum/codec';
import { Cancelled } from '@tersum/core';
import { fileFor } from '@tersum/demo';
import type { Making, MakingStatus } from '@tersum/document';
import type { Logger } from 'pino';
import type { WorkPool } from '../pool/pool.js';
import type { Originals } from '../render/originals.js';
import type { Renderer } from '../render/renderer.js';
import type { Intake } from '../store/intake.js';
import type { RecordStore } from '../store/records.js';

/** Makes new pictures of a job from others, or has a simulated device deliver them. */
export class MakingDesk {
  private readonly under = new Map<string, { status: MakingStatus; stop: AbortController }>();

  constructor(
    private readonly records: RecordStore,
    private readonly originals: Originals,
    private readonly renderer: Renderer,
    private readonly intake: Intake,
    private readonly pool: WorkPool,
    /** Folder for files on their way in, and the one of the made-up photographs. */
    private readonly folders: { readonly incoming: string; readonly photos: string },
    private readonly log: Logger,
  ) {}

  begin(jobId: string, making: Making): MakingStatus {
    const status: MakingStatus = {
      id: randomUUID(),
      share: 0,
      state: 'working',
      message: null,
      pictures: [],
    };
    const stop = new AbortController();
    this.under.set(status.id, { status, stop });
    this.make(jobId, making, status.id, stop.signal).catch((error: unknown) => {
      if (error instanceof Cancelled) return this.note(status.id, { state: 'stopped' });
      const known = error instanceof UserProblem;
      if (!known) this.log.error({ err: error, job: jobId }, 'making failed');
      this.note(status.id, {
        state: 'failed',
        message: known ? error.message : 'This could not be made. Nothing was changed; try again.',
      });
    });
    return status;
  }

  status(id: string): MakingStatus {
    return this.entry(id).status;
  }

  stop(id: string): void {
    this.entry(id).stop.abort();
  }

  private entry(id: string) {
    const entry = this.under.get(id);
    if (!entry) throw new UserProblem(404, 'This is not under way any more. Begin it again.');
    return entry;
  }

  private async make(
    jobId: string,
    making: Making,
    id: string,
    signal: AbortSignal,
  ): Promise<void> {
    const stem = join(this.folders.incoming, id);
    const made = await this.pool.search<'make'>(
      { kind: 'make', stem, ...(await this.sourcesOf(jobId, making)) },
      { signal, progress: (share) => this.note(id, { share: 0.95 * share }) },
    );
    try {
      const pictures = [];
      for (const { path, name } of made) pictures.push(await this.intake.take(jobId, path, name));
      this.note(id, { share: 1, state: 'ready', pictures });
    } finally {
      await Promise.all(made.map(({ path }) => rm(path, { force: true })));
    }
  }

  /** What the worker needs: pictures as repaired, or the file a simulated device looks at. */
  private async sourcesOf(jobId: string, making: Making) {
    if (making.kind === 'simulated') {
      const photo = join(this.folders.photos, fileFor(making.order));
      return { making, sources: [], photo };
    }
    const sources = [];
    for (const id of making.pictures) {
      const row = this.records.picture(id);
      if (row.jobId !== jobId) throw new UserProblem(400, 'Choose pictures of one job.');
      const { picture, patches } = await this.renderer.newest(id);
      const path = this.originals.pathOf(row.original);
      sources.push({ name: row.name, ppi: row.ppi, original: picture.raster, patches, path });
    }
    return { making, sources, photo: null };
  }

  private note(id: string, news: Partial<MakingStatus>): void {
    const entry = this.under.get(id);
    if (entry) entry.status = { ...entry.status, ...news };
  }
}
