import { readFile } from 'node:fs/promises';
import { decode, decodeOpenRaster } from '@tersum/codec';
import { expect, test } from '@playwright/test';
import { Actions } from './actions.js';
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
  const actions = new Actions();
  const { act } = actions;
  await page.goto(server.url);
  await act(page.getByRole('button', { name: /^Simulated devices for Regatta/ }).click());
  await act(page.getByRole('button', { name: 'Scan', exact: true }).click());
  const made = page.getByRole('dialog').getByRole('link', { name: /^Simulated scan/ });
  await act(made.click({ timeout: 240_000 }));

  const bench = new BenchPage(page, { width: 1590, height: 1140 });
  await bench.settled();
  const plain = info.outputPath('plain.tif');
  await bench.export('TIFF', plain);
  await act(bench.press('Survey'));
  await expect(page.getByRole('button', { name: 'Survey again' })).toBeVisible({
    timeout: 240_000,
  });
  for (const kind of ['creases', 'lines', 'specks']) {
    await act(bench.press(`Mend all ${kind}`));
    await bench.settled();
  }

  await act(page.getByRole('link', { name: 'Finish' }).click());
  await act(page.getByRole('radio', { name: 'Frame' }).click());
  await act(page.getByRole('button', { name: 'By the print’s edge' }).click());
  await expect(page.getByRole('button', { name: 'Whole picture' })).toBeEnabled({
    timeout: 240_000,
  });
  await act(page.getByRole('radio', { name: 'Tone' }).click());
  await act(page.getByRole('button', { name: 'Undo fading' }).click());
  await expect(page.getByRole('button', { name: /Levels/ }).first()).toBeVisible({
    timeout: 240_000,
  });
  await act(page.getByRole('button', { name: 'Add step' }).click());
  await act(page.getByRole('menuitem', { name: /Toning/ }).click());
  await expect(page.getByRole('heading', { name: 'Toning' })).toBeVisible();

  const flat = info.outputPath('print.tif');
  actions.count += 4;
  await bench.export('TIFF', flat);
  const layered = info.outputPath('print.ora');
  actions.count += 4;
  await bench.export('OpenRaster', layered);
  info.annotations.push({ type: 'actions', description: String(actions.count) });
  expect(actions.count).toBeLessThanOrEqual(22);

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
