import { execFileSync } from 'node:child_process';
import { expect, test } from '@playwright/test';
import { crop, psnr } from '@tersum/core';
import sharp from 'sharp';
import { addPicture, BenchPage } from './bench-page.js';
import { changed, count, photo, pixelsOf } from './pixels.js';
import { RunningServer } from './server.js';

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

const SIZE = { width: 800, height: 900 };

test('blocks are reduced and grey is made below the repairs, which keep their places; undo brings all back', async ({
  page,
}, info) => {
  const compressed = info.outputPath('Jug, sent by mail.jpg');
  const whole = await pixelsOf(photo('jug.jpg'));
  const truth = crop(whole, { x: 200, y: 700, ...SIZE });
  await sharp(truth.data as Uint8Array, { raw: { ...SIZE, channels: 3 } })
    .jpeg({ quality: 35 })
    .toFile(compressed);
  const received = await pixelsOf(compressed);
  await addPicture(page, server.url, 'Jug for the pottery catalogue', compressed);
  const bench = new BenchPage(page, SIZE);
  await bench.settled();
  await bench.choose('Clone');
  await bench.drag([200, 300], [320, 300]);
  await bench.settled(1);

  await page.getByRole('link', { name: 'Intake', exact: true }).click();
  await expect(page.getByText(/quality about 3[456]/)).toBeVisible({ timeout: 240_000 });
  await bench.press('Reduce blocks');
  await expect(page.getByText('Prepared', { exact: true })).toBeVisible({ timeout: 240_000 });
  const prepared = await pixelsOf(await bench.saved('PNG', info.outputPath('prepared.png')));
  // Nearer to the picture before it was compressed, by more than a repair of 120 px can.
  expect(psnr(prepared, truth)).toBeGreaterThan(psnr(received, truth) + 0.3);

  const grey = page.locator('section', { hasText: /^Green/ });
  await grey.getByRole('button', { name: 'Go on in grey' }).click();
  await expect(grey.getByText('chosen')).toBeVisible();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await bench.settled(1);
  const mended = await pixelsOf(await bench.saved('PNG', info.outputPath('grey.png')));
  for (let i = 0; i < mended.data.length; i += 3 * 997)
    expect([mended.data[i + 1], mended.data[i + 2]]).toEqual([mended.data[i], mended.data[i]]);
  // Outside of the repair it is the prepared picture's green channel.
  const green = { ...prepared, data: prepared.data.map((_, i, all) => all[i - (i % 3) + 1]!) };
  expect(count(changed(green, mended))).toBeLessThan(0.01 * SIZE.width * SIZE.height);

  // The job as a file renders to the same samples.
  const job = info.outputPath('job.zip');
  await bench.export('Job', job);
  const again = info.outputPath('again.png');
  execFileSync(process.execPath, ['bin/tersum.js', 'render', job, '--out', again]);
  expect(count(changed(await pixelsOf(again), mended))).toBe(0);

  // Kept through a restart, and taken back step by step to what was received.
  await server.kill();
  await server.start();
  await page.reload();
  await bench.settled(1);
  for (const label of ['Go on in grey from green', 'Reduce blocks', 'Clone'])
    await page.getByRole('button', { name: `Undo: ${label}` }).click();
  await bench.settled();
  const back = await pixelsOf(await bench.saved('PNG', info.outputPath('back.png')));
  expect(count(changed(back, received))).toBe(0);
});
