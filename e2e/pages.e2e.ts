import { readFile } from 'node:fs/promises';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { BenchPage } from './bench-page.js';
import { photo } from './pixels.js';
import { RunningServer } from './server.js';

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

async function expectAccessible(
  page: ConstructorParameters<typeof AxeBuilder>[0]['page'],
): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag22aa'])
    .analyze();
  expect(
    violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`),
  ).toEqual([]);
}

test('the job board: jobs are begun and edited, and refused files are explained', async ({
  page,
}) => {
  await page.goto(server.url);
  await expect(page.getByRole('article')).toHaveCount(5);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByRole('button', { name: 'Begin job' }).click();
  await expect(page.getByText('Give the job a title.')).toBeVisible();
  await page.getByLabel('Title').fill('Chandler’s window');
  await page.getByLabel('Client').fill('Amos Tarr');
  await page.getByRole('button', { name: 'Begin job' }).click();
  const job = page.getByRole('article', { name: 'Chandler’s window' });
  await expect(job).toBeVisible();
  const chooser = page.waitForEvent('filechooser');
  await job.getByRole('button', { name: 'Add picture' }).click();
  await (
    await chooser
  ).setFiles({ name: 'list.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(page.getByText(/not a picture Tersum can read/)).toBeVisible();
  await page.getByRole('button', { name: 'Put away' }).click();
  await expect(page.getByText(/not a picture Tersum can read/)).toBeHidden();
  await page.getByRole('button', { name: 'Edit Chandler’s window' }).click();
  await page.getByLabel('State').selectOption('delivered');
  await page.getByRole('button', { name: 'Save' }).click();
  // What is delivered leaves the open jobs and stands among the delivered ones.
  await expect(job).toHaveCount(0);
  await page.getByRole('radio', { name: 'Delivered' }).click();
  await expect(job.getByText('delivered')).toBeVisible();
});

test('jobs do not move once they are shown, and are shown though prices are not known', async ({
  page,
}) => {
  let answer = (): void => {};
  const held = new Promise<void>((done) => (answer = done));
  await page.route('**/api/house', async (route) => {
    await held;
    await route.continue();
  });
  const [jobs] = await Promise.all([
    page.waitForResponse((response) => response.url().endsWith('/api/jobs')),
    page.goto(server.url),
  ]);
  await jobs.finished();
  // Twice a frame: whatever came has been drawn.
  await page.evaluate(
    () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
  );
  await expect(page.getByLabel('Loading the jobs')).toBeVisible();
  await expect(page.getByRole('article')).toHaveCount(0);
  const search = page.getByRole('searchbox', { name: 'Search jobs' });
  const place = await search.boundingBox();
  answer();
  await expect(page.getByRole('article')).toHaveCount(5);
  expect(await search.boundingBox()).toEqual(place);
  await page.unroute('**/api/house');
  await page.route('**/api/house', (route) => route.fulfill({ status: 500, body: '{}' }));
  await page.reload();
  await expect(page.getByRole('article')).toHaveCount(5);
});

test('a dropped file makes a job and opens on the bench', async ({ page }) => {
  await page.goto(server.url);
  const coded = await readFile(photo('quay-print-light-crop16.png'), 'base64');
  const transfer = await page.evaluateHandle((text) => {
    const bytes = Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
    const carried = new DataTransfer();
    carried.items.add(new File([bytes], 'Dropped.png', { type: 'image/png' }));
    return carried;
  }, coded);
  await page
    .getByRole('heading', { name: 'Jobs' })
    .dispatchEvent('drop', { dataTransfer: transfer });
  await new BenchPage(page, { width: 800, height: 600 }).settled(0);
  await expect(page.getByRole('strong').or(page.locator('strong'))).toHaveText('Dropped.png');
});

test('the bench is accessible, tells when the picture is gone, and compares by key and divider', async ({
  page,
}) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Carnival head.jpg' }).click();
  const bench = new BenchPage(page, { width: 1200, height: 1500 });
  await bench.settled(6);
  await expectAccessible(page);
  await bench.press('Split');
  const divider = page.getByRole('slider', { name: /Divider/ });
  await divider.press('ArrowRight');
  await expect(divider).toHaveAttribute('aria-valuenow', '52');
  await page.getByRole('button', { name: 'Keys' }).click();
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.goto(`${server.url}/bench/${'0'.repeat(8)}-0000-4000-8000-${'0'.repeat(12)}`);
  await expect(page.getByText('The picture cannot be opened')).toBeVisible();
  await page.goto(`${server.url}/nowhere/at/all`);
  await expect(page.getByText('This page is not here')).toBeVisible();
});

test('a second window is told of changes, and a late one is refused without loss', async ({
  page,
  context,
}) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Garden through the fence.jpg' }).click();
  const bench = new BenchPage(page, { width: 1800, height: 1200 });
  await bench.settled(0);
  const other = await context.newPage();
  await other.goto(page.url());
  const second = new BenchPage(other, { width: 1800, height: 1200 });
  await second.settled(0);
  await bench.choose('Dab');
  await bench.click(900, 150);
  await bench.settled(1);
  await second.settled(1);
});
