import { randomUUID } from 'node:crypto';
import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Report } from '@tersum/document';
import { NO_RECORDS, reportOf } from '@tersum/document';
import type { WorkPool } from '../pool/pool.js';
import type { Originals } from '../render/originals.js';
import type { Renderer } from '../render/renderer.js';
import type { JobStore } from '../store/jobs.js';
import type { RecordStore } from '../store/records.js';
import { contactPdf } from './contact-pdf.js';
import { reportPdf } from './report-pdf.js';

type State = 'before' | 'after' | 'key';

/** Treatment reports and contact sheets, made when they are asked for. */
export class Reports {
  constructor(
    private readonly folder: string,
    private readonly jobs: JobStore,
    private readonly records: RecordStore,
    private readonly renderer: Renderer,
    private readonly originals: Originals,
    private readonly pool: WorkPool,
  ) {}

  async report(pictureId: string): Promise<Report> {
    const { jobId } = this.records.picture(pictureId);
    const { picture } = this.records.describe(pictureId);
    const { patches, owners } = await this.renderer.current(pictureId);
    const records = this.records.records(pictureId);
    return reportOf(this.jobs.get(jobId), picture, records, patches, owners, new Date());
  }

  async reportPdf(pictureId: string): Promise<Uint8Array> {
    const report = await this.report(pictureId);
    const [before, after, key] = await Promise.all(
      (['before', 'after', 'key'] as const).map((s) => this.shown(pictureId, s, 1500)),
    );
    return reportPdf(report, { before: before!, after: after!, key: key! });
  }

  async contactPdf(jobId: string): Promise<Uint8Array> {
    const job = this.jobs.get(jobId);
    const pictures = [];
    for (const { id, name, width, height, bits, repairs } of job.pictures)
      pictures.push({
        name,
        facts: `${width} x ${height} px, ${bits} bits, ${repairs} ${repairs === 1 ? 'repair' : 'repairs'}`,
        before: await this.shown(id, 'before', 900),
        after: await this.shown(id, 'after', 900),
      });
    return contactPdf(job.title, job.client, pictures);
  }

  /** A state of a picture as a small JPEG file. */
  private async shown(id: string, state: State, longest: number): Promise<Uint8Array> {
    const row = this.records.picture(id);
    const { picture, patches } = await this.renderer.current(id);
    const to = join(this.folder, randomUUID());
    try {
      await this.pool.run({
        kind: 'export',
        source: this.originals.pathOf(row.original),
        original: picture.raster,
        patches: state === 'before' ? [] : patches,
        layers: [],
        finishing: state === 'after' ? this.records.records(id) : NO_RECORDS,
        longest,
        format: 'jpeg',
        quality: 88,
        ppi: row.ppi,
        xmp: null,
        to,
      });
      return await readFile(to);
    } finally {
      await rm(to, { force: true });
    }
  }
}
