import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Logger } from 'pino';
import type { Db } from './db/open.js';
import { openDatabase } from './db/open.js';
import { Exports } from './export/exports.js';
import { MakingDesk } from './making/making-desk.js';
import { WorkPool } from './pool/pool.js';
import { Bases } from './render/bases.js';
import { Originals } from './render/originals.js';
import { Reports } from './report/reports.js';
import { Renderer } from './render/renderer.js';
import { ProofDesk } from './proof/proof-desk.js';
import { ContentStore } from './store/files.js';
import { DeliveryStore } from './store/deliveries.js';
import { ProofStore } from './store/proofs.js';
import { RecipeStore } from './store/recipes.js';
import { SettingStore } from './store/settings.js';
import { WorkStore } from './store/work.js';
import { Intake } from './store/intake.js';
import { LayeredIntake } from './store/layered-intake.js';
import { JobStore } from './store/jobs.js';
import { KeptDonorStore } from './store/kept-donors.js';
import { FindingStore } from './store/findings.js';
import { RecordStore } from './store/records.js';
import { SearchStore } from './store/searches.js';
import { SurveyDesk } from './survey/survey-desk.js';

/** Everything the server is made of, put together once. */
export interface Services {
  readonly version: string;
  readonly log: Logger;
  readonly folders: { readonly incoming: string };
  readonly db: Db;
  readonly jobs: JobStore;
  readonly keptDonors: KeptDonorStore;
  readonly records: RecordStore;
  readonly findings: FindingStore;
  readonly work: WorkStore;
  readonly settings: SettingStore;
  readonly recipes: RecipeStore;
  readonly proofs: ProofStore;
  readonly proofDesk: ProofDesk;
  readonly surveys: SurveyDesk;
  readonly intake: Intake;
  readonly layeredIntake: LayeredIntake;
  readonly makings: MakingDesk;
  readonly originals: Originals;
  readonly bases: Bases;
  readonly renderer: Renderer;
  readonly exports: Exports;
  readonly reports: Reports;
  readonly pool: WorkPool;
}

export interface ServiceOptions {
  /** Folder of the database and the files. */
  readonly data: string;
  readonly migrations: string;
  readonly worker: URL;
  /** Whether threads are warmed up, for people who wait. */
  readonly warm: boolean;
  /** Folder of the made-up photographs. */
  readonly photos: string;
  readonly log: Logger;
}

export async function createServices(options: ServiceOptions): Promise<Services> {
  const { data, log } = options;
  const incoming = join(data, 'incoming');
  await rm(incoming, { recursive: true, force: true });
  await mkdir(incoming, { recursive: true });
  const db = openDatabase(join(data, 'tersum.sqlite'), options.migrations);
  const pool = new WorkPool(options.worker, options.warm);
  const files = new ContentStore(join(data, 'originals'));
  const findings = new FindingStore(db);
  const settings = new SettingStore(db);
  const work = new WorkStore(db, findings, settings);
  const jobs = new JobStore(db, work, findings);
  const records = new RecordStore(db);
  const originals = new Originals(files, pool);
  const bases = new Bases(join(data, 'prepared'), records, originals, pool);
  const proofs = new ProofStore(db);
  const searches = new SearchStore(db, new ContentStore(join(data, 'maps')));
  const renderer = new Renderer(records, originals, bases, searches, findings, pool, log);
  const intake = new Intake(jobs, files, originals, pool);
  const deliveries = new DeliveryStore(db);
  const exports = new Exports(
    join(data, 'exports'),
    records,
    renderer,
    originals,
    searches,
    deliveries,
    pool,
    log,
  );
  const proofDesk = new ProofDesk(proofs, settings, findings, records, renderer, pool);
  await Promise.all([exports.prepare(), bases.tidy()]);
  return {
    version: '0.1.0',
    log,
    folders: { incoming },
    db,
    jobs,
    keptDonors: new KeptDonorStore(db),
    records,
    findings,
    work,
    settings,
    recipes: new RecipeStore(db),
    proofs,
    proofDesk,
    surveys: new SurveyDesk(findings, records, bases, pool, log),
    intake,
    layeredIntake: new LayeredIntake(intake, records, pool, incoming),
    makings: new MakingDesk(
      records,
      originals,
      renderer,
      intake,
      pool,
      { incoming, photos: options.photos },
      log,
    ),
    originals,
    bases,
    renderer,
    exports,
    reports: new Reports(
      incoming,
      { jobs, records, findings, deliveries, proofDesk },
      renderer,
      originals,
      pool,
    ),
    pool,
  };
}

export async function closeServices(services: Services): Promise<void> {
  await services.pool.close();
  services.db.$client.close();
}
