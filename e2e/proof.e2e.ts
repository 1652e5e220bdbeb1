import { expect, test } from '@playwright/test';
import { addPicture, BenchPage } from './bench-page.js';
import { photo } from './pixels.js';
import { RunningServer } from './server.js';

const SIZE = { width: 800, height: 600 };

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

test('proof finds what was copied within sight, leads to it, and finds it gone once it is mended otherwise', async ({
  page,
}) => {
  await addPicture(
    page,
    server.url,
    'Carnival head, condition picture',
    photo('quay-print-light-crop16.png'),
  );
  const bench = new BenchPage(page, SIZE);
  await bench.settled(0);
  await bench.choose('Clone');
  await bench.choose('Rectangle');
  await page.keyboard.down('d');
  await bench.click(430, 330);
  await page.keyboard.up('d');
  const softness = page.getByRole('textbox', { name: 'Softness' });
  await softness.fill('0');
  await softness.press('Enter');
  await bench.drag([300, 200], [370, 260]);
  await bench.settled(1);

  await bench.press('Prove repairs');
  const proof = page.getByLabel('Proof', { exact: true });
  await expect(page.getByRole('button', { name: 'Prove again' })).toBeVisible({ timeout: 60_000 });
  const twice = proof.getByRole('button', { name: /Seen twice/ });
  await expect(twice).toBeVisible();
  await twice.click();
  // Both places are marked, and the repair's card is open.
  await expect(page.getByLabel('Mark of the tell').locator('rect')).toHaveCount(2);
  await expect(page.getByRole('heading', { name: /Clone A/ })).toBeVisible();

  await bench.choose('Give back');
  await bench.settled(1);
  await expect(proof.getByText('Something changed since; prove again.')).toBeVisible();
  await bench.press('Prove again');
  await expect(proof.getByText('Nothing gives these repairs away.')).toBeVisible({
    timeout: 60_000,
  });
});

test('the treatment report can be had from the export window', async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Carnival head.jpg' }).click();
  await new BenchPage(page, { width: 1200, height: 1500 }).settled();
  await page.getByRole('button', { name: 'Export' }).click();
  const coming = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Treatment report (PDF)' }).click();
  const stream = await (await coming).createReadStream();
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  expect(Buffer.concat(parts).subarray(0, 5).toString()).toBe('%PDF-');
});
