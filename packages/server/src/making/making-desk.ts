import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { UserProblem } from '@tersum/codec';
import { Cancelled } from '@tersum/core';
import { fileFor } from '@tersum/demo';
import type { Guide, JoinPlan, JoinQuery, Making, MakingStatus, Repair } from '@tersum/document';
import { plainFill } from '@tersum/document';
import type { Logger } from 'pino';
import type { WorkPool } from '../pool/pool.js';
import type { Bare } from '../pool/tasks.js';
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
      for (const { path, name, bare } of made) {
        const picture = await this.intake.take(jobId, path, name);
        if (bare) this.fillBare(picture.id, bare);
        pictures.push(picture);
      }
      this.note(id, { share: 1, state: 'ready', pictures });
    } finally {
      await Promise.all(made.map(({ path }) => rm(path, { force: true })));
    }
  }

  /** Fills what no frame showed, as a record on a layer of its own: it can be searched again, touched up or taken away. */
  private fillBare(id: string, { outlines, guides }: Bare): void {
    const layer = { id: randomUUID(), name: 'Ragged edges', visible: true, position: 1 };
    const repair: Repair = {
      id: randomUUID(),
      layerId: layer.id,
      position: 0,
      enabled: true,
      site: {
        kind: 'parts',
        parts: outlines.map((points) => ({
          shape: { kind: 'outline', points: points.map(([x, y]) => [x, y]) },
          width: 1,
        })),
      },
      width: 1,
      softness: 0,
      flow: 1,
      strength: 1,
      method: { ...plainFill(randomUUID()), guides: guides.slice(0, 24) as Guide[] },
      reason: 'shown by no frame',
      createdAt: new Date().toISOString(),
    };
    this.records.change(id, {
      version: this.records.picture(id).version,
      label: 'Fill the ragged edges',
      edits: [
        { entity: 'layer', id: layer.id, after: layer },
        { entity: 'repair', id: repair.id, after: repair },
      ],
    });
    this.renderer.changed(id);
  }

  /** What joined frames will come to. @throws UserProblem, Cancelled */
  async joinPlan(jobId: string, query: JoinQuery, signal: AbortSignal): Promise<JoinPlan> {
    const making = { kind: 'join', edges: 'leave', reach: 1, ...query } as const;
    const { sources } = await this.sourcesOf(jobId, making);
    const { projection } = query;
    return this.pool.search<'join plan'>({ kind: 'join plan', sources, projection }, { signal });
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
