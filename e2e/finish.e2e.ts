import { execFileSync } from 'node:child_process';
import { readFile, writeFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { decodeOpenRaster, encode } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import { createRaster, neutralCube } from '@tersum/core';
import { strFromU8, unzipSync } from 'fflate';
import { addPicture, BenchPage } from './bench-page.js';
import { changed, count, photo, pixelsOf } from './pixels.js';
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
    timeout: 240_000,
  });
  await page.getByRole('button', { name: 'Add step' }).click();
  await page.getByRole('menuitem', { name: /Toning/ }).click();
  await expect(page.getByRole('heading', { name: 'Toning' })).toBeVisible();
  await page.getByRole('radio', { name: 'Frame' }).click();
  await page.getByRole('button', { name: 'By level lines' }).click();
  await expect(page.getByRole('button', { name: 'Whole picture' })).toBeEnabled({
    timeout: 240_000,
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
  const bench = new BenchPage(page, { width: 1200, height: 1500 });
  await page.getByRole('link', { name: 'Open Carnival head.jpg' }).click();
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
  expect([read.width, read.height]).toEqual([1200, 1500]);

  // Taken in again its layers are layers, and together they come to the very samples.
  await addPicture(page, server.url, 'Carnival head, condition picture', layered);
  await bench.settled(2);
  const docket = page.getByLabel('Docket', { exact: true });
  await expect(docket.getByText('Along the lip')).toBeVisible();
  const back = await pixelsOf(await bench.saved('PNG', info.outputPath('back.png')));
  const expected = read.layers[0]!.raster;
  const laid = { ...expected, data: expected.data.slice() };
  for (const { x, y, raster } of read.layers.slice(1))
    for (let p = 0; p < raster.width * raster.height; p++)
      if (raster.data[4 * p + 3])
        laid.data.set(
          raster.data.subarray(4 * p, 4 * p + 3),
          3 * ((y + Math.floor(p / raster.width)) * laid.width + x + (p % raster.width)),
        );
  expect(count(changed(back, laid))).toBe(0);
  for (const layer of ['Along the lip', 'Round the eyes'])
    await page.getByRole('button', { name: `Hide layer ${layer}` }).click();
  await bench.settled();
  const hidden = await pixelsOf(await bench.saved('PNG', info.outputPath('hidden.png')));
  expect(count(changed(hidden, expected))).toBe(0);

  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Regatta print.jpg' }).click();
  await bench.settled();
  // A job that was toned and framed, rendered again by the command line, gives the same samples.
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

test('levels clip no more than asked, a clicked paper turns neutral, and a table picture gives its look', async ({
  page,
}, info) => {
  await page.goto(server.url);
  const bench = new BenchPage(page, { width: 1200, height: 1500 });
  await page.getByRole('link', { name: 'Open Carnival head.jpg' }).click();
  await bench.settled();
  await page.getByRole('link', { name: 'Finish' }).click();
  const add = async (name: RegExp): Promise<void> => {
    await page.getByRole('button', { name: 'Add step' }).click();
    await page.getByRole('menuitem', { name }).click();
  };
  const view = page.getByTestId('finish-picture');
  await expect(view).toBeVisible();
  await add(/^Levels/);
  await page.getByRole('button', { name: 'Each channel' }).click();
  await expect(page.getByRole('button', { name: 'Undo: Automatic levels' })).toBeEnabled();
  const file = info.outputPath('levelled.png');
  await bench.export('PNG', file);
  const levelled = await pixelsOf(file);
  const received = await pixelsOf(photo('head-blemished.jpg'));
  const share = ({ data }: Raster, c: number, code: number): number => {
    let n = 0;
    for (let i = c; i < data.length; i += 3) if (data[i] === code) n++;
    return (3 * n) / data.length;
  };
  for (const c of [0, 1, 2])
    for (const end of [0, 255]) {
      const now = share(levelled, c, end);
      // The ends are reached, and little beyond the tenth of a percent that was asked for lies there, but for what did before.
      expect(now).toBeGreaterThan(0);
      expect(now).toBeLessThan(Math.max(0.004, 1.2 * share(received, c, end)));
    }

  // The ruff is cloth that was white: clicked, it has no cast.
  await page.getByText('Paper white', { exact: true }).click();
  const box = (await view.boundingBox())!;
  const at = { x: Math.round(0.4 * 1200), y: Math.round(0.905 * 1500) };
  await page.mouse.click(box.x + (0.4 + 0.5 / 1200) * box.width, box.y + 0.905 * box.height);
  await expect(
    page.getByRole('button', { name: 'Undo: Take the white from the picture' }),
  ).toBeEnabled();
  await bench.export('PNG', file);
  const neutral = await pixelsOf(file);
  /** Mean of a place, and how far its channels lie apart. */
  const cast = ({ data }: Raster): { light: number; apart: number } => {
    const mean = [0, 1, 2].map((c) => {
      let sum = 0;
      for (let y = at.y - 5; y <= at.y + 5; y++)
        for (let x = at.x - 5; x <= at.x + 5; x++) sum += data[3 * (y * 1200 + x) + c]!;
      return sum / 121;
    });
    return { light: mean[1]!, apart: Math.max(...mean) - Math.min(...mean) };
  };
  expect(cast(neutral).apart).toBeLessThan(0.6 * cast(levelled).apart);
  expect(cast(neutral).light).toBeGreaterThan(cast(levelled).light);

  // A table in which red and blue change places.
  const { values } = neutralCube(64);
  const table = createRaster(512, 512, 3);
  for (let p = 0; p < 512 * 512; p++)
    [2, 1, 0].forEach((c, k) => (table.data[3 * p + k] = Math.round(255 * values[3 * p + c]!)));
  const path = info.outputPath('swapped.png');
  await writeFile(path, await encode(table, 'png', 90, { icc: null, exif: null, ppi: null }));
  await add(/^Colour look/);
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Take a table picture' }).click();
  await (await chooser).setFiles(path);
  await expect(page.getByText('Colours of “swapped”.')).toBeVisible();
  const strength = page.getByRole('textbox', { name: 'Strength of the step' });
  // Half strength is where a look begins.
  await expect(strength).toHaveValue('50');
  await strength.fill('100');
  await strength.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo: Strength of a tone step' })).toBeEnabled();
  await bench.export('PNG', file);
  const looked = await pixelsOf(file);
  let [off, n] = [0, 0];
  for (let i = 0; i < looked.data.length; i += 999) {
    off += Math.abs(looked.data[i]! - neutral.data[i + 2]!);
    n++;
  }
  expect(off / n).toBeLessThan(1);
});
