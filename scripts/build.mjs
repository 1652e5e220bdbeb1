// Builds the pages (Vite) and bundles server and command line (esbuild).
import { cp, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { root, run } from './ready.mjs';

const { build } = await import('esbuild');

/** Packages with native parts, or that look for files of their own; the others are bundled, so that starting is quick. */
const OUTSIDE = ['sharp', 'better-sqlite3', 'piscina', 'pino'];
/** What packages of the older kind expect to find. */
const OLDER = [
  "import { createRequire as requireFrom } from 'node:module';",
  'const require = requireFrom(import.meta.url);',
  'const { dirname: __dirname, filename: __filename } = import.meta;',
].join('\n');

await rm(join(root, 'dist'), { recursive: true, force: true });
await build({
  absWorkingDir: root,
  entryPoints: {
    'server/main': 'packages/server/src/main.ts',
    'server/worker': 'packages/server/src/pool/worker.ts',
    'cli/begin': 'packages/cli/src/begin.ts',
    'cli/main': 'packages/cli/src/main.ts',
    'cli/study': 'packages/cli/src/study.ts',
  },
  outdir: 'dist',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
  external: OUTSIDE,
  banner: { js: OLDER },
});
await cp(join(root, 'packages/server/migrations'), join(root, 'dist/migrations'), {
  recursive: true,
});
await cp(join(root, 'packages/demo/photos'), join(root, 'dist/photos'), { recursive: true });
run('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: join(root, 'packages/web') });
