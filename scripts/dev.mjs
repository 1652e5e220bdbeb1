// npm run dev: server from source, restarted on change, and pages with hot reload.
import { installPackages, run } from './ready.mjs';

installPackages();
run('npx', [
  'concurrently',
  '--kill-others',
  '--names',
  'server,pages',
  'npx tsx watch packages/server/src/main.ts',
  'npx vite packages/web',
]);
