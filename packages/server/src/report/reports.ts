import { randomUUID } from 'node:crypto';
import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Report } from '@tersum/document';
import { NO_RECORDS, reportOf } from '@tersum/document';
import type { WorkPool } from '../pool/pool.js';
import type { ProofDesk } from '../proof/proof-desk.js';
import type { Originals } from '../render/originals.js';
import type { Renderer } from '../render/renderer.js';
import type { DeliveryStore } from '../store/deliveries.js';
import type { FindingStore } from '../store/findings.js';
import type { JobStore } from '../store/jobs.js';
import type { RecordStore } from '../store/records.js';
import type { ContactPicture } from './contact-pdf.js';
import { contactPdf } from './contact-pdf.js';
import { contactPng } from './contact-png.js';
import { reportHtml } from './report-html.js';
import { reportPdf } from './report-pdf.js';

type State = 'before' | 'after' | 'key';

/** Where a report's facts stand. */
export interface ReportStores {
  readonly jobs: JobStore;
  readonly records: RecordStore;
  readonly findings: FindingStore;
  readonly deliveries: DeliveryStore;
  readonly proofDesk: ProofDesk;
}

/** Treatment reports and contact sheets, made when they are asked for. */
export class Reports {
  constructor(
    private readonly folder: string,
    private readonly stores: ReportStores,
    private readonly renderer: Renderer,
    private readonly originals: Originals,
    private readonly pool: WorkPool,
  ) {}

  async report(pictureId: string): Promise<Report> {
    const { jobId } = this.stores.records.picture(pictureId);
    const { picture } = this.stores.records.describe(pictureId);
    const { patches, owners } = await this.renderer.current(pictureId);
    const records = this.stores.records.records(pictureId);
    const more = {
      policy: this.stores.findings.survey(pictureId).settings.policy,
      proof: this.proofOf(pictureId),
      delivered: this.stores.deliveries.list(pictureId),
    };
    const job = this.stores.jobs.get(jobId);
    return reportOf(job, picture, records, patches, owners, new Date(), more);
  }

  /** How many tells there are, and how many of them were let stand; those of grain alone are left out. */
  private proofOf(pictureId: string): Report['proof'] {
    const { proof } = this.stores.proofDesk.kept(pictureId);
    if (!proof) return null;
    const tells = proof.tells.filter(({ faint }) => !faint);
    const standing = tells.filter(({ stands }) => stands).length;
    return { open: tells.length - standing, standing };
  }

  async reportPdf(pictureId: string): Promise<Uint8Array> {
    const report = await this.report(pictureId);
    const [before, after, key] = await Promise.all(
      (['before', 'after', 'key'] as const).map((s) => this.shown(pictureId, s, 1500)),
    );
    return reportPdf(report, { before: before!, after: after!, key: key! });
  }

  /** The report as one page that needs nothing else: its pictures are in it. */
  async reportHtml(pictureId: string): Promise<string> {
    const report = await this.report(pictureId);
    const [before, after, key] = await Promise.all(
      (['before', 'after', 'key'] as const).map((s) => this.shown(pictureId, s, 1100)),
    );
    return reportHtml(report, { before: before!, after: after!, key: key! });
  }

  async contactPdf(jobId: string): Promise<Uint8Array> {
    const { title, client } = this.stores.jobs.get(jobId);
    return contactPdf(title, client, await this.pairs(jobId, 900));
  }

  async contactPng(jobId: string): Promise<Buffer> {
    const { title, client } = this.stores.jobs.get(jobId);
    return contactPng(title, client, await this.pairs(jobId, 640));
  }

  /** Every picture of a job as received and as delivered. */
  private async pairs(jobId: string, longest: number): Promise<ContactPicture[]> {
    const pictures: ContactPicture[] = [];
    for (const { id, name, width, height, bits, repairs } of this.stores.jobs.get(jobId).pictures)
      pictures.push({
        name,
        facts: `${width} x ${height} px, ${bits} bits, ${repairs} ${repairs === 1 ? 'repair' : 'repairs'}`,
        before: await this.shown(id, 'before', longest),
        after: await this.shown(id, 'after', longest),
      });
    return pictures;
  }

  /** A state of a picture as a small JPEG file. */
  private async shown(id: string, state: State, longest: number): Promise<Uint8Array> {
    const row = this.stores.records.picture(id);
    const { picture, patches } = await this.renderer.current(id);
    const received = state === 'before' ? await this.originals.get(row.original) : picture;
    const to = join(this.folder, randomUUID());
    try {
      const task = {
        kind: 'export',
        source: this.originals.pathOf(row.original),
        original: received.raster,
        patches: state === 'before' ? [] : patches,
        layers: [],
        below: '',
        finishing: {
          ...(state === 'after' ? this.stores.records.records(id) : NO_RECORDS),
          size: row,
        },
        longest,
        format: 'jpeg',
        quality: 88,
        ppi: row.ppi,
        profile: 'kept',
        xmp: null,
        to,
      } as const;
      await this.pool.search<'export'>(task, { signal: new AbortController().signal });
      return await readFile(to);
    } finally {
      await rm(to, { force: true });
    }
  }
}
