import type { Raster } from '@tersum/core';
import { coverageOf, frameOf } from '@tersum/core';
import { expect, test } from '@playwright/test';
import { BenchPage } from './bench-page.js';
import { changed, count, gain, photo, pixelsOf } from './pixels.js';
import { RunningServer } from './server.js';

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

type Path = readonly (readonly [number, number])[];

/** Where a damaged picture is far from the truth, within `reach` px of a line. */
function damageAlong(before: Raster, truth: Raster, line: Path, reach: number): Uint8Array {
  const { width, channels } = before;
  const brush = { width: 2 * reach, softness: 0, flow: 1 };
  const { rect, values } = coverageOf({ kind: 'stroke', points: line }, brush, frameOf(before));
  const damage = new Uint8Array(width * before.height);
  values.forEach((near, i) => {
    if (near < 0.5) return;
    const p = (rect.y + Math.floor(i / rect.width)) * width + rect.x + (i % rect.width);
    for (let c = 0; c < 3; c++)
      if (Math.abs(before.data[p * channels + c]! - truth.data[p * channels + c]!) > 36)
        damage[p] = 1;
  });
  return damage;
}

async function traced(
  bench: BenchPage,
  file: string,
  line: Path,
  reach: number,
): Promise<{ gained: number; covered: number }> {
  await bench.export('PNG', file);
  const [before, after, truth] = await Promise.all(
    [photo('quay-print-heavy.jpg'), file, photo('quay-print-truth.jpg')].map(pixelsOf),
  );
  const damage = damageAlong(before!, truth!, line, reach);
  const touched = changed(before!, after!);
  const on = damage.reduce((n, d, p) => n + (d && touched[p] ? 1 : 0), 0);
  return { gained: gain(before!, after!, truth!, damage), covered: on / count(damage) };
}

test('a scratch is traced from two clicks to both of its ends', async ({ page }, info) => {
  await page.goto(server.url);
  const bench = new BenchPage(page, { width: 3000, height: 2100 });
  await page.getByRole('link', { name: 'Open Regatta print.jpg' }).click();
  await bench.settled();
  const before = await bench.repairs();
  await bench.choose('Chain');
  const scratch: Path = [
    [1907, 1600],
    [1700, 1750],
  ];
  await bench.click(1833, 1651);
  await bench.click(1727, 1724);
  const follow = page.getByRole('button', { name: 'To its ends' });
  await follow.click();
  await expect(page.getByText(/^\d+ runs?\. Line/)).toBeVisible();
  await page.keyboard.press('Enter');
  await bench.settled(before + 1);
  const { gained, covered } = await traced(bench, info.outputPath('scratch.png'), scratch, 14);
  expect(gained).toBeGreaterThan(7);
  expect(covered).toBeGreaterThan(0.9);
});

test('the crease is traced, corner by corner, as wide as it is', async ({ page }, info) => {
  await page.goto(server.url);
  const bench = new BenchPage(page, { width: 3000, height: 2100 });
  await page.getByRole('link', { name: 'Open Regatta print.jpg' }).click();
  await bench.settled();
  const before = await bench.repairs();
  await bench.choose('Chain');
  const crease: Path = [
    [2080, 4],
    [2010, 330],
    [2130, 640],
    [2330, 820],
    [2560, 930],
    [2990, 1010],
  ];
  for (const [x, y] of crease) await bench.click(x, y);
  await page.keyboard.press('Enter');
  await bench.settled(before + 1);
  const { gained, covered } = await traced(bench, info.outputPath('crease.png'), crease, 20);
  expect(gained).toBeGreaterThan(6);
  expect(covered).toBeGreaterThan(0.8);
});
