import { execFileSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { decodeOpenRaster } from '@tersum/codec';
import { strFromU8, unzipSync } from 'fflate';
import { BenchPage } from './bench-page.js';
import { pixelsOf } from './pixels.js';
import { RunningServer } from './server.js';

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

/** The value below which a share of one channel lies. */
function quantile(data: ArrayLike<number>, channels: number, c: number, share: number): number {
  const counts = new Array<number>(256).fill(0);
  for (let i = c; i < data.length; i += channels) counts[data[i]!]!++;
  let left = (share * data.length) / channels;
  for (let v = 0; v < 256; v++) if ((left -= counts[v]!) <= 0) return v;
  return 255;
}

test('a faded, skewed print is opened, toned, framed and delivered', async ({ page }, info) => {
  await page.goto(server.url);
  const bench = new BenchPage(page, { width: 3000, height: 2100 });
  await page.getByRole('link', { name: 'Open Regatta print.jpg' }).click();
  await bench.settled();
  const plain = info.outputPath('plain.png');
  await bench.export('PNG', plain);
  const before = await pixelsOf(plain);

  await page.getByRole('link', { name: 'Finish' }).click();
  await page.getByRole('button', { name: 'Undo fading' }).click();
  await expect(page.getByRole('button', { name: /Levels/ }).first()).toBeVisible({
    timeout: 60_000,
  });
  await page.getByRole('button', { name: 'Add step' }).click();
  await page.getByRole('menuitem', { name: /Toning/ }).click();
  await expect(page.getByRole('heading', { name: 'Toning' })).toBeVisible();
  await page.getByRole('radio', { name: 'Frame' }).click();
  await page.getByRole('button', { name: 'By level lines' }).click();
  await expect(page.getByRole('button', { name: 'Whole picture' })).toBeEnabled({
    timeout: 60_000,
  });
  await page.reload();
  await expect(page.getByRole('button', { name: /Toning/ }).first()).toBeVisible();

  const file = info.outputPath('finished.png');
  await bench.export('PNG', file);
  const after = await pixelsOf(file);
  // The range is open: black near black, white near white, where the faded print had neither.
  expect(quantile(before.data, before.channels, 0, 0.005)).toBeGreaterThan(30);
  expect(quantile(after.data, after.channels, 0, 0.005)).toBeLessThan(30);
  expect(quantile(after.data, after.channels, 1, 0.995)).toBeGreaterThan(220);
  // Toned warm: the middle is redder than it is blue.
  expect(quantile(after.data, after.channels, 0, 0.5)).toBeGreaterThan(
    quantile(after.data, after.channels, 2, 0.5) + 5,
  );
  expect(after.width).toBeLessThan(3000);
});

test('it is delivered layered, and as a job that renders to the same samples', async ({
  page,
}, info) => {
  await page.goto(server.url);
  const bench = new BenchPage(page, { width: 3000, height: 2100 });
  await page.getByRole('link', { name: 'Open Regatta print.jpg' }).click();
  await bench.settled();
  const layered = info.outputPath('layered.ora');
  await bench.export('OpenRaster', layered);
  const bytes = new Uint8Array(await readFile(layered));
  // Read independently of our own reader: the type stands first, every layer named in the stack is there.
  expect(Buffer.from(bytes.subarray(30, 38)).toString()).toBe('mimetype');
  const files = unzipSync(bytes);
  expect(strFromU8(files['mimetype']!)).toBe('image/openraster');
  const named = [...strFromU8(files['stack.xml']!).matchAll(/src="([^"]+)"/g)].map((m) => m[1]!);
  expect(named.length).toBeGreaterThan(0);
  for (const name of [...named, 'mergedimage.png', 'Thumbnails/thumbnail.png'])
    expect(files[name]).toBeDefined();
  const read = await decodeOpenRaster(bytes);
  expect(read.layers[0]!.name).toBe('Original');
  expect([read.width, read.height]).toEqual([3000, 2100]);

  // The job itself, rendered again by the command line, gives the same samples.
  const job = info.outputPath('job.zip');
  await bench.export('Job', job);
  const file = info.outputPath('finished.png');
  await bench.export('PNG', file);
  const after = await pixelsOf(file);
  const again = info.outputPath('again.png');
  execFileSync(process.execPath, ['bin/tersum.js', 'render', job, '--out', again]);
  const rendered = await pixelsOf(again);
  expect([rendered.width, rendered.height]).toEqual([after.width, after.height]);
  expect(Buffer.compare(rendered.data as Uint8Array, after.data as Uint8Array)).toBe(0);
});
