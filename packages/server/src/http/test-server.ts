import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { Express } from 'express';
import { pino } from 'pino';
import type { Services } from '../services.js';
import { createServices } from '../services.js';
import { createApp } from './app.js';

const here = join(__dirname, '..', '..');

/** A server for tests over a folder of data, without pages and without a port. */
export async function beginServer(data: string): Promise<{ services: Services; app: Express }> {
  const services = await createServices({
    warm: false,
    data,
    migrations: join(here, 'migrations'),
    // Bundled before the tests begin.
    worker: pathToFileURL(join(here, '../../.cache/tests/worker.js')),
    photos: join(here, '..', 'demo', 'photos'),
    log: pino({ level: 'silent' }),
  });
  return { services, app: createApp(services, null, null) };
}
