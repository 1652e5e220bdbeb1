import { expect, test } from '@playwright/test';
import { decode } from '@tersum/codec';
import { BenchPage } from './bench-page.js';
import { RunningServer } from './server.js';

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

test('intake tells print sizes, takes the print’s width for its density, and says each caution once', async ({
  page,
}) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Regatta print.jpg' }).click();
  await page.getByRole('link', { name: 'Intake', exact: true }).click();
  const facts = page.getByLabel('Facts', { exact: true });
  await expect(facts.getByText('3000 × 2100')).toBeVisible();
  // 3000 px at 300 ppi are 10 in, 254 mm.
  await expect(facts.getByText('254 × 178 mm')).toBeVisible();
  await expect(facts.getByText('The file does not say.')).toBeVisible();
  await facts.getByLabel('Unit').selectOption('mm');
  await facts.getByLabel('Density or width of the print').fill('127');
  await expect(facts.getByText('makes 600 ppi')).toBeVisible();
  await facts.getByRole('button', { name: 'Set' }).click();
  await expect(facts.getByText('127.0 × 88.9 mm')).toBeVisible();
  // The way it is seen follows: twice as large, 300 ppi are left.
  const use = page.getByLabel('Intended use', { exact: true });
  await expect(use.getByText('600 ppi')).toBeVisible();

  await expect(page.getByRole('note')).toHaveCount(2);
  await page.getByRole('note').first().getByRole('button', { name: 'Known' }).click();
  await page.reload();
  await expect(page.getByRole('note')).toHaveCount(1);
  await expect(facts.getByText('127.0 × 88.9 mm')).toBeVisible();
});

test('two recipes make two files at once, each as its recipe says', async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Lane with wires.jpg' }).click();
  const bench = new BenchPage(page, { width: 1800, height: 1200 });
  await bench.settled();
  await bench.press('Export');
  const name = page.getByLabel('Name of the recipe');
  const keep = async (words: string): Promise<void> => {
    await name.fill(words);
    await bench.press('Keep as a recipe');
    await expect(name).toHaveValue('');
  };
  await bench.choose('JPEG');
  await page.getByLabel(/^Longest side/).fill('900');
  await page.getByLabel(/^ppi; empty/).fill('96');
  await page.getByLabel(/^File name/).fill('{picture}-web');
  await keep('For the web');
  await bench.choose('TIFF');
  await page.getByLabel(/^Longest side/).fill('');
  await page.getByLabel(/^ppi; empty/).fill('600');
  await page.getByLabel(/^File name/).fill('{picture}-archive');
  await keep('For the archive');
  await page.getByText('For the web', { exact: true }).click();
  await page.getByText('For the archive', { exact: true }).click();
  await bench.press('Make 2 files');
  const save = async (file: string) => {
    const coming = page.waitForEvent('download');
    await page.getByRole('link', { name: `Save ${file}` }).click({ timeout: 240_000 });
    const path = test.info().outputPath(file);
    await (await coming).saveAs(path);
    return decode(path);
  };
  const web = await save('Lane-with-wires-web.jpg');
  expect([web.format, web.raster.width, web.raster.height, web.ppi]).toEqual([
    'jpeg',
    900,
    600,
    96,
  ]);
  const archive = await save('Lane-with-wires-archive.tif');
  expect([archive.format, archive.raster.width, archive.ppi]).toEqual(['tiff', 1800, 600]);
  // Recipes are the house's, not the window's.
  await page.reload();
  await bench.press('Export');
  await expect(page.getByText('JPEG, 900 px, 96 ppi')).toBeVisible();
});

test('the board plans, searches and takes a deleted job back', async ({ page }) => {
  await page.goto(server.url);
  await expect(page.getByText('Survey pictures, and their work is planned here.')).toBeVisible();
  await page.getByPlaceholder('Search title, client, picture').fill('regatta');
  await expect(page.getByRole('article')).toHaveCount(1);
  await page.getByRole('button', { name: /^More about Regatta/ }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByText('No job matches.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('article')).toHaveCount(1);
  await page.getByRole('button', { name: 'Hours and rate' }).click();
  await page.getByLabel(/^Hours a day/).fill('30');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('A day has 24 hours.')).toBeVisible();
  await page.getByLabel(/^Hours a day/).fill('4');
  await page.getByLabel('Seconds for stains').fill('-3');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Set at least a tenth of a second.')).toBeVisible();
  await page.getByLabel('Seconds for stains').fill('45');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('img', { name: /4 h a day/ })).toBeVisible();
  await page.getByRole('button', { name: 'Hours and rate' }).click();
  await expect(page.getByLabel('Seconds for stains')).toHaveValue('45');
  await page.getByLabel('Seconds for stains').fill('');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('button', { name: 'Hours and rate' }).click();
  await expect(page.getByLabel('Seconds for stains')).toHaveValue('');
});
