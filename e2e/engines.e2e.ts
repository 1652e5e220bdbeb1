import { spawnSync } from 'node:child_process';
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

test('the command line says how it went by its code, and what is wrong where errors are said', () => {
  const run = (...args: string[]) =>
    spawnSync(process.execPath, ['bin/tersum.js', ...args], { encoding: 'utf8' });
  const help = run('help');
  expect([help.status, help.stderr]).toEqual([0, '']);
  expect(help.stdout).toContain('fill IN --mask M');
  expect(run().status).toBe(2);
  const missing = run('fill', 'no-such.png', '--mask', 'm.png', '--out', 'o.png');
  expect([missing.status, missing.stdout]).toEqual([2, '']);
  expect(missing.stderr).toBe("tersum: there is no file 'no-such.png'\n");
});
