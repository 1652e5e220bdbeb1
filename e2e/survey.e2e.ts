import type { Page } from '@playwright/test';
import { expect, test } from '@playwright/test';
import { Actions } from './actions.js';
import { addPicture, BenchPage } from './bench-page.js';
import { both, changed, count, gain, maskOf, photo, pixelsOf } from './pixels.js';
import { RunningServer } from './server.js';

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

const surveyed = (page: Page): Promise<void> =>
  page.getByRole('button', { name: 'Survey again' }).waitFor({ timeout: 240_000 });

test('the whole fence goes in four actions', async ({ page }, info) => {
  const actions = new Actions();
  const { act } = actions;
  await page.goto(server.url);
  const bench = new BenchPage(page, { width: 1800, height: 1200 });
  await act(page.getByRole('link', { name: 'Open Garden through the fence.jpg' }).click());
  await bench.settled();
  await act(bench.press('Survey'));
  await surveyed(page);
  await act(bench.choose('Distractions too'));
  await act(bench.press('Mend all mesh'));
  await bench.settled(1);
  expect(actions.count).toBeLessThanOrEqual(6);
  await expect(page.getByText('1 mended')).toBeVisible();

  const file = info.outputPath('garden.png');
  await bench.export('PNG', file);
  const before = await pixelsOf(photo('mesh-fence.jpg'));
  const after = await pixelsOf(file);
  const truth = await pixelsOf(photo('mesh-truth.jpg'));
  const fence = await maskOf(photo('mesh-fence-mask.png'));
  // Nearer to the picture without the fence, in decibels, and most of the fence was touched.
  expect(gain(before, after, truth, fence)).toBeGreaterThan(4);
  const touched = changed(before, after);
  expect(count(both(fence, touched)) / count(fence)).toBeGreaterThan(0.85);
  // The wire along its top, which the mesh hangs on, went with it.
  const top = fence.map((v, p) => (Math.abs(Math.floor(p / 1800) - 184) < 5 ? v : 0));
  expect(count(both(top, touched)) / count(top)).toBeGreaterThan(0.95);
});

test('the heavy print is surveyed, a wrong finding kept, its specks mended in one sweep', async ({
  page,
}) => {
  const actions = new Actions();
  const { act } = actions;
  await page.goto(server.url);
  const bench = new BenchPage(page, { width: 3000, height: 2100 });
  await act(page.getByRole('link', { name: 'Open Regatta print.jpg' }).click());
  await bench.settled();
  await act(bench.press('Survey'));
  await surveyed(page);
  // What is written on it is of another hue than the print.
  await expect(page.getByRole('button', { name: /^Ink [1-9]/ })).toBeVisible();
  const specks = page.getByRole('region', { name: 'Specks' });
  await act(bench.press(/^Specks \d+/));
  const before = Number(
    await specks
      .getByRole('button', { name: /^Specks/ })
      .innerText()
      .then((t) => /\d+/.exec(t)![0]),
  );
  expect(before).toBeGreaterThan(5);
  // Each row shows its place: a bright speck stands in its middle.
  await expect
    .poll(() => specks.locator('canvas').first().evaluate(brighterInTheMiddle))
    .toBeGreaterThan(20);
  // A false one is kept by one key, and stays so.
  await specks
    .getByRole('button', { name: /^Speck / })
    .first()
    .click();
  await page.keyboard.press('k');
  await expect(specks.getByText('Bring back 1')).toBeVisible();
  await act(bench.press('Mend all specks'));
  await bench.settled();
  expect(actions.count).toBeLessThanOrEqual(5);
  await expect(specks.getByText(`${before - 1} mended`)).toBeVisible();
  // The docket empties out; undo fills it again.
  await expect(specks.getByRole('button', { name: /^Specks 0/ })).toBeVisible();
  await bench.press('Undo');
  await expect(
    specks.getByRole('button', { name: new RegExp(`^Specks ${before - 1}`) }),
  ).toBeVisible();
  await page.reload();
  await bench.press(/^Specks \d+/);
  await expect(specks.getByText('Bring back 1')).toBeVisible();
});

test('a kind is kept off an area that is drawn, until the areas are cleared', async ({ page }) => {
  await page.goto(server.url);
  const bench = new BenchPage(page, { width: 3000, height: 2100 });
  await page.getByRole('link', { name: 'Open Regatta print.jpg' }).click();
  await bench.settled();
  // It may have been surveyed already.
  const first = page.getByRole('button', { name: 'Survey', exact: true });
  await first.or(page.getByRole('button', { name: 'Survey again' })).waitFor();
  if (await first.isVisible()) await first.click();
  await surveyed(page);
  const specks = page.getByRole('region', { name: 'Specks' });
  const head = specks.getByRole('button', { name: /^Specks \d+/ });
  const left = async (): Promise<number> => Number(/\d+/.exec(await head.innerText())![0]);
  if ((await head.getAttribute('aria-expanded')) === 'false') await head.click();
  const all = await left();
  await page.getByRole('button', { name: 'Keep off an area: specks' }).click();
  // Round the left half of the sky.
  const corners = [
    [300, 200],
    [1500, 200],
    [1500, 800],
    [300, 800],
    [300, 220],
  ] as const;
  const places = await Promise.all(corners.map(([x, y]) => bench.at(x, y)));
  await page.mouse.move(places[0]!.x, places[0]!.y);
  await page.mouse.down();
  for (const { x, y } of places) await page.mouse.move(x, y, { steps: 6 });
  await page.mouse.up();
  const clear = page.getByRole('button', { name: 'Clear the areas: specks' });
  await expect(clear).toBeVisible();
  expect(await left()).toBeLessThan(all);
  await page.reload();
  await expect(clear.or(head).first()).toBeVisible();
  expect(await left()).toBeLessThan(all);
  if ((await head.getAttribute('aria-expanded')) === 'false') await head.click();
  await clear.click();
  await expect(clear).toHaveCount(0);
  expect(await left()).toBe(all);
});

test('a wire goes by survey in three actions on the bench', async ({ page }, info) => {
  await page.goto(server.url);
  const bench = new BenchPage(page, { width: 1800, height: 1200 });
  await page.getByRole('link', { name: 'Open Lane with wires.jpg' }).click();
  await bench.settled();
  const before = info.outputPath('before.png');
  await bench.export('PNG', before);
  await bench.press('Survey');
  await surveyed(page);
  await bench.choose('Distractions too');
  await bench.press('Mend all wires');
  await bench.settled();
  const after = info.outputPath('after.png');
  await bench.export('PNG', after);
  const wires = await maskOf(photo('wires-mask.png'));
  const touched = changed(await pixelsOf(before), await pixelsOf(after));
  let on = 0;
  for (let p = 0; p < wires.length; p++) if (wires[p] && touched[p]) on++;
  expect(on).toBeGreaterThan(1000);
  expect(on / count(touched)).toBeGreaterThan(0.3);
});

test('the printed mark is taken off the jug’s cloth, its folds stay', async ({ page }, info) => {
  await addPicture(page, server.url, 'Jug for the pottery catalogue', photo('jug-cloth-logo.jpg'));
  const bench = new BenchPage(page, { width: 1200, height: 1800 });
  await bench.settled(0);
  await bench.press('Survey');
  await surveyed(page);
  // A survey tells a few of its letters; the whole mark takes a click.
  const ink = page.getByRole('region', { name: 'Ink' });
  const told = (await ink.isVisible()) ? Number(/\d+/.exec(await ink.innerText())![0]) : 0;
  await page.getByRole('button', { name: 'Add a finding by a click' }).click();
  await bench.click(430, 1200);
  await expect(ink.getByText(String(told + 1), { exact: true })).toBeVisible({ timeout: 240_000 });
  await bench.press('Mend all ink');
  await bench.settled(1);
  const file = info.outputPath('cloth.png');
  await bench.export('PNG', file);
  const [before, after, truth] = await Promise.all(
    [photo('jug-cloth-logo.jpg'), file, photo('jug.jpg')].map(pixelsOf),
  );
  const marks = await maskOf(photo('jug-cloth-logo-mask.png'));
  const { width } = before!;
  // The one on the cloth; the stamp on the board stays.
  const mark = marks.map((m, p) => (m && Math.floor(p / width) > 900 && p % width < 700 ? 1 : 0));
  expect(gain(before!, after!, truth!, mark)).toBeGreaterThan(9);
  const touched = changed(before!, after!);
  expect(count(both(touched, mark)) / count(mark)).toBeGreaterThan(0.85);
});

/** By how much the brightest of a small picture's middle is above the mean of its rim, 8-bit codes. */
function brighterInTheMiddle(canvas: Element): number {
  const { width, height } = canvas as HTMLCanvasElement;
  const { data } = (canvas as HTMLCanvasElement)
    .getContext('2d')!
    .getImageData(0, 0, width, height);
  let [brightest, rim, count] = [0, 0, 0];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const value = data[4 * (y * width + x) + 1]!;
      if (y < 3 || y >= height - 3) [rim, count] = [rim + value, count + 1];
      if (Math.abs(x - width / 2) < 5 && Math.abs(y - height / 2) < 5)
        brightest = Math.max(brightest, value);
    }
  return brightest - rim / count;
}
