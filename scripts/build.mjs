// Builds the pages (Vite) and bundles server and command line (esbuild); packages stay outside the bundles.
import { cp, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { root, run } from './ready.mjs';

const { build } = await import('esbuild');

/** Everything that is not ours is loaded from node_modules when it runs. */
const packagesOutside = {
  name: 'packages-outside',
  setup(builder) {
    builder.onResolve({ filter: /^[^./]/ }, ({ path }) =>
      path.startsWith('@tersum/') ? undefined : { path, external: true },
    );
  },
};

await rm(join(root, 'dist'), { recursive: true, force: true });
await build({
  absWorkingDir: root,
  entryPoints: {
    'server/main': 'packages/server/src/main.ts',
    'server/worker': 'packages/server/src/pool/worker.ts',
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
  plugins: [packagesOutside],
});
await cp(join(root, 'packages/server/migrations'), join(root, 'dist/migrations'), {
  recursive: true,
});
await cp(join(root, 'packages/demo/photos'), join(root, 'dist/photos'), { recursive: true });
run('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: join(root, 'packages/web') });
