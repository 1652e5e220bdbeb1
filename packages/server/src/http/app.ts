import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Express } from 'express';
import express from 'express';
import helmet from 'helmet';
import { pinoHttp } from 'pino-http';
import type { Services } from '../services.js';
import { fillRoutes } from './fills.js';
import { finishRoutes } from './finish.js';
import { guard } from './guard.js';
import { jobRoutes } from './jobs.js';
import { exportRoutes, pictureRoutes } from './pictures.js';
import { problems } from './problems.js';
import { houseRoutes } from './house.js';
import { iiifRoutes } from './iiif.js';
import { openApiRoute } from './openapi.js';
import { proofRoutes } from './proof.js';
import { schemaRoutes } from './schemas.js';
import { surveyRoutes } from './survey.js';

/** The HTTP interface, and the built pages when there are any. */
export function createApp(services: Services, pages: string | null, host: string | null): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(pinoHttp({ logger: services.log, useLevel: 'debug' }));
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          workerSrc: ["'self'", 'blob:'],
          imgSrc: ["'self'", 'data:', 'blob:'],
          styleSrc: ["'self'", "'unsafe-inline'"],
          fontSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          objectSrc: ["'none'"],
          baseUri: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      crossOriginOpenerPolicy: { policy: 'same-origin' },
      crossOriginEmbedderPolicy: { policy: 'require-corp' },
      crossOriginResourcePolicy: { policy: 'same-origin' },
      strictTransportSecurity: false,
    }),
  );
  app.use(guard(host));
  app.use(express.json({ limit: '24mb' }));
  app.get('/api/health', (_req, res) => void res.json({ status: 'ok', version: services.version }));
  app.use('/api/jobs', jobRoutes(services));
  app.use('/api/pictures', pictureRoutes(services));
  app.use('/api/pictures', fillRoutes(services));
  app.use('/api/pictures', surveyRoutes(services));
  app.use('/api/pictures', finishRoutes(services));
  app.use('/api/pictures', proofRoutes(services));
  app.use('/api/house', houseRoutes(services));
  app.use('/api/exports', exportRoutes(services));
  app.use('/api/schemas', schemaRoutes());
  app.use('/api/openapi.json', openApiRoute(services.version));
  app.use('/iiif', iiifRoutes(services));
  app.use(
    '/api/{*rest}',
    (_req, res) => void res.status(404).json({ message: 'There is nothing here.' }),
  );
  if (pages && existsSync(pages)) {
    app.use(express.static(pages, { index: false, maxAge: '1h' }));
    app.get('/{*page}', (_req, res) => {
      // Somebody is coming: the threads are ready by the time that a picture is open.
      services.pool.begin();
      res.sendFile(join(pages, 'index.html'));
    });
  }
  app.use(problems(services.log));
  return app;
}
