import { root } from './ready.mjs';

/** Packages with native parts, or that look for files of their own; the others are bundled, so that starting is quick. */
const OUTSIDE = ['sharp', 'better-sqlite3', 'piscina', 'pino'];
/** What packages of the older kind expect to find. */
const OLDER = [
  "import { createRequire as requireFrom } from 'node:module';",
  'const require = requireFrom(import.meta.url);',
  'const { dirname: __dirname, filename: __filename } = import.meta;',
].join('\n');

/**
 * Bundles what runs on Node into one file each.
 * @param {Record<string, string>} entryPoints sources by the names they are given
 * @param {string} outdir folder, in the project's root
 */
export async function bundle(entryPoints, outdir) {
  // Packages may have to be installed before there is a bundler.
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints,
    outdir,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    logLevel: 'warning',
    external: OUTSIDE,
    banner: { js: OLDER },
  });
}
