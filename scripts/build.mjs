// Builds the pages (Vite) and bundles server and command line.
import { cp, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { bundle } from './bundle.mjs';
import { root, run } from './ready.mjs';

await rm(join(root, 'dist'), { recursive: true, force: true });
await bundle(
  {
    'server/main': 'packages/server/src/main.ts',
    'server/worker': 'packages/server/src/pool/worker.ts',
    'cli/begin': 'packages/cli/src/begin.ts',
    'cli/main': 'packages/cli/src/main.ts',
    'cli/study': 'packages/cli/src/study.ts',
  },
  'dist',
);
await cp(join(root, 'packages/server/migrations'), join(root, 'dist/migrations'), {
  recursive: true,
});
await cp(join(root, 'packages/demo/photos'), join(root, 'dist/photos'), { recursive: true });
run('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: join(root, 'packages/web') });
