import { expect, test } from '@playwright/test';
import { Actions } from './actions.js';
import { addPicture, BenchPage } from './bench-page.js';
import { both, changed, count, gain, maskOf, photo, pixelsOf } from './pixels.js';
import { RunningServer } from './server.js';

const SIZE = { width: 1800, height: 1200 };
/** The long wire from the pole down to the trees, where somebody would click. */
const WIRE = [
  [1212, 88],
  [988, 574],
] as const;

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.beginWarm();
});
test.afterAll(() => server.dispose());

test('a wire goes in six actions with nothing but visible labels, and is gone after a restart', async ({
  page,
}, info) => {
  const actions = new Actions();
  const { act } = actions;
  await page.goto(server.url);
  const bench = new BenchPage(page, SIZE);
  await act(page.getByRole('link', { name: 'Open Lane with wires.jpg' }).click());
  await bench.settled(1);
  await act(bench.choose('Chain'));
  await act(bench.click(...WIRE[0]));
  await act(bench.click(...WIRE[1]));
  await expect(page.getByText(/Line .* px wide/)).toBeVisible();
  await act(bench.press('End and mend'));
  await bench.settled(2);
  expect(actions.count).toBeLessThanOrEqual(6);

  const file = info.outputPath('mended.png');
  await bench.export('PNG', file);
  await server.stop();
  await server.start();
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Lane with wires.jpg' }).click();
  await bench.settled(2);
  const again = info.outputPath('again.png');
  await bench.export('PNG', again);
  const [first, second] = [await pixelsOf(file), await pixelsOf(again)];
  expect(count(changed(first, second))).toBe(0);
});

test('import, mend, change, hide, undo, reload, export: the mended wire is at least 10 dB nearer to the truth', async ({
  page,
}, info) => {
  await addPicture(page, server.url, 'Allotment behind the fence', photo('wires.jpg'));
  const bench = new BenchPage(page, SIZE);
  await bench.settled(0);

  await bench.choose('Fill');
  await bench.choose('Chain');
  await bench.click(...WIRE[0]);
  await bench.click(...WIRE[1]);
  await page.keyboard.press('Enter');
  await bench.settled(1);

  await bench.row(/^Fill A, chain/).click();
  const strength = page.getByRole('textbox', { name: 'Strength' });
  await strength.fill('60');
  await strength.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo: Set strength' })).toBeVisible();
  await bench.settled();
  const weaker = info.outputPath('weaker.png');
  await bench.export('PNG', weaker);

  await bench.press('Hide layer Repairs');
  await expect(page.getByText('hidden')).toBeVisible();
  await bench.settled();
  const hidden = info.outputPath('hidden.png');
  await bench.export('PNG', hidden);
  await bench.press('Show layer Repairs');
  await bench.press('Undo');
  await bench.press('Undo');
  await bench.press('Undo');
  await expect(page.getByRole('button', { name: 'Redo: Set strength' })).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Strength' })).toHaveValue('100');
  await bench.press('Redo');
  await expect(page.getByRole('textbox', { name: 'Strength' })).toHaveValue('60');
  await bench.press('Undo');

  await page.reload();
  await bench.settled(1);
  await expect(page.getByRole('button', { name: 'Redo: Set strength' })).toBeVisible();
  await bench.row(/^Fill A, chain/).click();
  await expect(page.getByRole('textbox', { name: 'Strength' })).toHaveValue('100');
  const file = info.outputPath('mended.png');
  const name = await bench.export('PNG', file);
  expect(name).toMatch(/^Allotment-behind-the-fence-wires-\d{4}-\d\d-\d\d\.png$/);

  const input = await pixelsOf(photo('wires.jpg'));
  const truth = await pixelsOf(photo('wires-truth-no-wires.jpg'));
  const wires = await maskOf(photo('wires-mask.png'));
  const mended = await pixelsOf(file);
  const site = changed(input, mended);
  const wire = both(site, wires);
  expect(count(wire)).toBeGreaterThan(2000);
  expect(gain(input, mended, truth, wire)).toBeGreaterThanOrEqual(10);
  // All else is identical: what changed lies along the wire, a band not much wider than it.
  expect(count(site)).toBeLessThan(25 * Math.hypot(224, 486));
  expect(count(changed(input, await pixelsOf(hidden)))).toBe(0);
  const less = gain(input, await pixelsOf(weaker), truth, wire);
  expect(less).toBeGreaterThan(3);
  expect(less).toBeLessThan(gain(input, mended, truth, wire));
});
