import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { ExportRequest, ExportStatus } from '@tersum/document';
import { fileNameOf, NO_RECORDS, patchLayers, reportOf } from '@tersum/document';
import type { Logger } from 'pino';
import { UserProblem, xmpNote } from '@tersum/codec';
import { Cancelled } from '@tersum/core';
import type { WorkPool } from '../pool/pool.js';
import type { Originals } from '../render/originals.js';
import type { Renderer } from '../render/renderer.js';
import type { DeliveryStore } from '../store/deliveries.js';
import type { RecordStore } from '../store/records.js';
import type { SearchStore } from '../store/searches.js';
import { bundleOf } from './bundle.js';

/** Flat files made from a picture, kept until the next start. */
export class Exports {
  private readonly made = new Map<string, ExportStatus>();
  private readonly running = new Map<string, AbortController>();

  constructor(
    private readonly folder: string,
    private readonly records: RecordStore,
    private readonly renderer: Renderer,
    private readonly originals: Originals,
    private readonly searches: SearchStore,
    private readonly deliveries: DeliveryStore,
    private readonly pool: WorkPool,
    private readonly log: Logger,
  ) {}

  /** Forgets files of earlier runs. */
  async prepare(): Promise<void> {
    await rm(this.folder, { recursive: true, force: true });
    await mkdir(this.folder, { recursive: true });
  }

  begin(pictureId: string, request: ExportRequest): ExportStatus {
    const { picture, jobTitle } = this.records.describe(pictureId);
    const date = new Date().toISOString().slice(0, 10);
    const facts = { job: jobTitle, picture: picture.name, date };
    const shallow = request.format === 'jpeg' || request.format === 'webp';
    const status: ExportStatus = {
      id: randomUUID(),
      fileName: fileNameOf(request.rule, facts, request.format),
      share: 0,
      state: 'working',
      message: null,
      warning:
        shallow && picture.bits === 16
          ? `${request.format.toUpperCase()} holds 8 bits a channel; the picture has 16.`
          : null,
    };
    this.made.set(status.id, status);
    const abort = new AbortController();
    this.running.set(status.id, abort);
    this.make(pictureId, status.id, request, abort.signal)
      .catch((error: unknown) => this.fail(pictureId, status.id, error))
      .finally(() => this.running.delete(status.id));
    return status;
  }

  /** Ends an export; what was written of it goes. Only what was made here has a file to remove. */
  async stop(id: string): Promise<void> {
    this.running.get(id)?.abort();
    if (!this.made.delete(id)) return;
    await rm(this.pathOf(id), { force: true });
  }

  private fail(pictureId: string, id: string, error: unknown): void {
    if (error instanceof Cancelled || !this.made.has(id)) return;
    this.log.error({ err: error, picture: pictureId }, 'export failed');
    const message = 'The file could not be written. Check that the disk has room and try again.';
    this.note(id, { state: 'failed', message });
  }

  status(id: string): ExportStatus {
    const status = this.made.get(id);
    if (!status) throw new UserProblem(404, 'This export is not here any more. Export once more.');
    return status;
  }

  pathOf(id: string): string {
    return join(this.folder, id);
  }

  private async make(
    pictureId: string,
    id: string,
    request: ExportRequest,
    signal: AbortSignal,
  ): Promise<void> {
    const row = this.records.picture(pictureId);
    const { picture, patches, owners } = await this.renderer.current(pictureId);
    const records = this.records.records(pictureId);
    const rendered = 0.2;
    this.note(id, { share: rendered });
    const { format } = request;
    if (format === 'zip') {
      const zip = await bundleOf(pictureId, this.records, this.originals, this.searches);
      await writeFile(this.pathOf(id), zip, { flush: true });
      return this.finish(pictureId, id);
    }
    const { picture: facts, jobTitle } = this.records.describe(pictureId);
    const job = { title: jobTitle, client: '' };
    const done = request.finished ? records : { ...records, tones: [], frames: [] };
    const report = reportOf(job, facts, done, patches, owners, new Date());
    const task = {
      kind: 'export',
      source: this.originals.pathOf(row.original),
      original: picture.raster,
      patches,
      layers: patchLayers(records, owners, patches),
      below: records.preparations.length ? 'Prepared original' : 'Original',
      finishing: { ...(request.finished ? records : NO_RECORDS), size: row },
      longest: request.longest,
      format,
      quality: request.quality,
      ppi: request.ppi ?? row.ppi,
      profile: request.profile,
      xmp: xmpNote(report),
      to: this.pathOf(id),
    } as const;
    await this.pool.search<'export'>(task, {
      signal,
      progress: (share) => this.note(id, { share: rendered + (0.98 - rendered) * share }),
    });
    await this.finish(pictureId, id);
  }

  /** Notes the file as delivered, with its checksum; then it can be fetched. */
  private async finish(pictureId: string, id: string): Promise<void> {
    const status = this.made.get(id);
    if (!status) return;
    const hash = createHash('sha256');
    let bytes = 0;
    for await (const part of createReadStream(this.pathOf(id))) {
      hash.update(part as Buffer);
      bytes += (part as Buffer).length;
    }
    const { fileName } = status;
    const at = new Date().toISOString();
    this.deliveries.note(pictureId, { fileName, sha256: hash.digest('hex'), bytes, at });
    this.note(id, { share: 1, state: 'ready' });
  }

  private note(id: string, news: Partial<ExportStatus>): void {
    const status = this.made.get(id);
    if (status) this.made.set(id, { ...status, ...news });
  }
}
