// npm start: installs what is missing, builds what is stale, migrates, seeds on first start, serves.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { buildIfStale, installPackages, root } from './ready.mjs';

installPackages();
buildIfStale();
const server = spawn(
  process.execPath,
  [join(root, 'dist/server/main.js'), '--pages', join(root, 'dist/web'), ...process.argv.slice(2)],
  { cwd: root, stdio: 'inherit' },
);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 1));
