import { createServer } from 'node:http';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { pino } from 'pino';
import { seedDemo } from './demo/seed.js';
import { createApp } from './http/app.js';
import { closeServices, createServices } from './services.js';

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: '4680' },
    host: { type: 'string', default: '127.0.0.1' },
    data: { type: 'string', default: 'data' },
    pages: { type: 'string' },
    'no-demo': { type: 'boolean', default: false },
    cold: { type: 'boolean', default: false },
  },
});

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));
const bundled = import.meta.url.endsWith('.js');
const log = pino({ level: process.env['TERSUM_LOG'] ?? 'warn' });
const photos = here(bundled ? '../photos' : '../../demo/photos');
const services = await createServices({
  data: resolve(values.data),
  migrations: here('../migrations'),
  worker: new URL(bundled ? './worker.js' : './pool/worker.ts', import.meta.url),
  // Run from source, a quick start matters more.
  warm: bundled && !values.cold,
  photos,
  log,
});
if (!values['no-demo']) await seedDemo(services, photos);

const foreign = values.host === '127.0.0.1' ? null : values.host;
const app = createApp(services, values.pages ? resolve(values.pages) : null, foreign);
const server = createServer(app);
server.on('error', (error: NodeJS.ErrnoException) => {
  const busy = error.code === 'EADDRINUSE';
  console.error(
    busy
      ? `Port ${values.port} is in use. Choose another: npm start -- --port ${Number(values.port) + 1}`
      : `The server cannot listen: ${error.message}`,
  );
  process.exit(1);
});
server.listen(Number(values.port), values.host, () => {
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : values.port;
  console.log(`Tersum is ready at http://${values.host}:${port}`);
});

let stopping = false;
function stop(): void {
  if (stopping) return;
  stopping = true;
  server.close(() => void closeServices(services).then(() => process.exit(0)));
  server.closeAllConnections();
}
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
