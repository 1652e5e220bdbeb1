import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { build } from 'esbuild';
import { engineDigest } from './engine-digest.js';

test('a fill and a graft come out the same, byte for byte, in Node and in Chromium', async ({
  page,
}) => {
  const bundle = await build({
    entryPoints: [join(import.meta.dirname, 'engine-digest.ts')],
    bundle: true,
    write: false,
    format: 'iife',
    globalName: 'engine',
    target: 'es2022',
  });
  await page.goto('about:blank');
  await page.addScriptTag({ content: bundle.outputFiles[0]!.text });
  const there = await page.evaluate(() =>
    (globalThis as unknown as { engine: { engineDigest(): unknown } }).engine.engineDigest(),
  );
  expect(there).toEqual(engineDigest());
});
