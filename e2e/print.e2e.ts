import { readFile } from 'node:fs/promises';
import { decode, decodeOpenRaster } from '@tersum/codec';
import { expect, test } from '@playwright/test';
import { BenchPage } from './bench-page.js';
import { RunningServer } from './server.js';

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

/** Share of pixels of one channel that are lighter than their neighbours 6 px to both sides by `codes`. */
function ridges(data: ArrayLike<number>, width: number, channels: number, codes: number): number {
  let count = 0;
  for (let p = 6; p < data.length / channels - 6; p++) {
    if (p % width < 6 || p % width >= width - 6) continue;
    const v = data[p * channels]!;
    if (v - data[(p - 6) * channels]! > codes && v - data[(p + 6) * channels]! > codes) count++;
  }
  return count / (data.length / channels);
}

test('a faded, dirty, creased print goes from the simulated scanner to a toned TIFF and a layered file', async ({
  page,
}, info) => {
  let actions = 0;
  const act = async (doing: Promise<unknown>): Promise<void> => {
    actions++;
    await doing;
  };
  await page.goto(server.url);
  await act(page.getByRole('button', { name: /^Simulated devices for Regatta/ }).click());
  await act(page.getByRole('button', { name: 'Scan', exact: true }).click());
  const made = page.getByRole('dialog').getByRole('link', { name: /^Simulated scan/ });
  await act(made.click({ timeout: 90_000 }));

  const bench = new BenchPage(page, { width: 1590, height: 1140 });
  await bench.settled();
  const plain = info.outputPath('plain.tif');
  await bench.export('TIFF', plain);
  await act(bench.press('Survey'));
  await expect(page.getByRole('button', { name: 'Survey again' })).toBeVisible({ timeout: 90_000 });
  for (const kind of ['creases', 'lines', 'specks']) {
    await act(bench.press(`Mend all ${kind}`));
    await bench.settled();
  }

  await act(page.getByRole('link', { name: 'Finish' }).click());
  await act(page.getByRole('radio', { name: 'Frame' }).click());
  await act(page.getByRole('button', { name: 'By the print’s edge' }).click());
  await expect(page.getByRole('button', { name: 'Whole picture' })).toBeEnabled({
    timeout: 60_000,
  });
  await act(page.getByRole('radio', { name: 'Tone' }).click());
  await act(page.getByRole('button', { name: 'Undo fading' }).click());
  await expect(page.getByRole('button', { name: /Levels/ }).first()).toBeVisible({
    timeout: 60_000,
  });
  await act(page.getByRole('button', { name: 'Add step' }).click());
  await act(page.getByRole('menuitem', { name: /Toning/ }).click());
  await expect(page.getByRole('heading', { name: 'Toning' })).toBeVisible();

  const flat = info.outputPath('print.tif');
  actions += 4;
  await bench.export('TIFF', flat);
  const layered = info.outputPath('print.ora');
  actions += 4;
  await bench.export('OpenRaster', layered);
  info.annotations.push({ type: 'actions', description: String(actions) });
  expect(actions).toBeLessThanOrEqual(22);

  const before = await decode(plain);
  const after = await decode(flat);
  expect(after.bits).toBe(16);
  expect(after.ppi).toBe(300);
  // Straightened and cropped to the print: the lid round it is gone.
  expect(after.raster.width).toBeLessThan(before.raster.width - 40);
  // The crease and the scratches were pale ridges; hardly any are left.
  const { data, width, channels } = before.raster;
  const then = ridges(data, width, channels, 50 * 257);
  const now = ridges(after.raster.data, after.raster.width, after.raster.channels, 120 * 257);
  expect(then).toBeGreaterThan(0.001);
  expect(now).toBeLessThan(then / 2);
  // Toned warm and open: redder than blue in the middle, a real black.
  const sorted = (c: number): Float64Array => {
    const values = new Float64Array(after.raster.data.length / channels);
    for (let p = 0; p < values.length; p++) values[p] = after.raster.data[p * channels + c]!;
    return values.sort();
  };
  const [red, blue] = [sorted(0), sorted(2)];
  expect(red[red.length >> 1]! - blue[blue.length >> 1]!).toBeGreaterThan(4 * 257);
  expect(red[Math.floor(0.005 * red.length)]!).toBeLessThan(40 * 257);

  const ora = await decodeOpenRaster(new Uint8Array(await readFile(layered)));
  expect(ora.layers.map((l) => l.name)).toEqual(
    expect.arrayContaining(['Original', 'Creases', 'Lines', 'Specks']),
  );
});

test('hand-held frames become one picture, and a stranger among them is named', async ({
  page,
}) => {
  await page.goto(server.url);
  const job = page.getByRole('article', { name: 'Allotment behind the fence' });
  await job.getByRole('button', { name: /^Simulated devices/ }).click();
  await page.getByRole('radio', { name: 'Camera' }).click();
  await page.getByRole('button', { name: 'Photograph' }).click();
  const window = page.getByRole('dialog');
  await expect(window.getByRole('link', { name: 'Simulated frame 3 of 3.tif' })).toBeVisible({
    timeout: 60_000,
  });
  await window.getByRole('button', { name: 'Close' }).click();
  await job.getByRole('button', { name: /^Combine/ }).click();
  const tick = (name: string) =>
    page.getByRole('checkbox', { name, exact: true }).check({ force: true });
  await tick('Garden through the fence.jpg');
  for (const k of [3, 1, 2]) await tick(`Simulated frame ${k} of 3.tif`);
  const make = window.getByRole('button', { name: 'Join frames', exact: true });
  await make.click();
  await expect(window.getByText(/“Garden through the fence.jpg” shows nothing/)).toBeVisible({
    timeout: 90_000,
  });
  await page
    .getByRole('checkbox', { name: 'Garden through the fence.jpg' })
    .uncheck({ force: true });
  await make.click();
  const joined = window.getByRole('link', { name: /joined/ });
  await joined.click({ timeout: 90_000 });
  await expect(page.getByText('Up to date')).toBeVisible({ timeout: 60_000 });
  // Wider than any frame, and with no gap: it was cropped to what is full.
  const id = page.url().split('/').at(-1)!;
  const facts = (await (await page.request.get(`${server.url}/api/pictures/${id}`)).json()) as {
    picture: { width: number; height: number };
  };
  expect(facts.picture.width).toBeGreaterThan(1500);
  expect(facts.picture.height).toBeGreaterThan(400);
});

test('the jug becomes square both ways, in few actions', async ({ page }) => {
  let actions = 0;
  const act = async (doing: Promise<unknown>): Promise<void> => {
    actions++;
    await doing;
  };
  await page.goto(server.url);
  await act(page.getByRole('link', { name: 'Open Jug on canvas.jpg' }).click());
  await act(page.getByRole('link', { name: 'Finish' }).click());
  await act(page.getByRole('radio', { name: 'Frame' }).click());
  await act(page.getByRole('button', { name: 'Widen…' }).click());
  const window = page.getByRole('dialog');
  await expect(window.getByText('1800 × 1800 px')).toBeVisible();
  await expect(window.getByText('33 %').first()).toBeVisible();
  // Not one of the actions: both ways can be seen small first, with what would give each away.
  await window.getByRole('button', { name: 'Try both ways' }).click();
  const ways = window.getByRole('group', { name: 'Both ways' });
  await expect(ways.getByRole('button')).toHaveCount(2, { timeout: 120_000 });
  await expect(ways.getByText('advised')).toHaveCount(1);
  await window.getByRole('radio', { name: 'Fill the sides' }).click();
  await act(window.getByRole('button', { name: 'Widen' }).click());
  await expect(window.getByRole('link', { name: 'Jug on canvas, widened.tif' })).toBeVisible({
    timeout: 120_000,
  });
  await act(window.getByRole('radio', { name: 'Stretch the background' }).click());
  await act(window.getByRole('button', { name: 'Widen' }).click());
  const stretched = window.getByRole('link', { name: 'Jug on canvas, stretched.tif' });
  await expect(stretched).toBeVisible({ timeout: 120_000 });
  expect(actions).toBeLessThan(10);
  await stretched.click();
  await expect(page.getByText('Up to date')).toBeVisible({ timeout: 60_000 });
});
