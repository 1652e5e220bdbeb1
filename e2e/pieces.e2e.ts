import type { Raster } from '@tersum/core';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { addPicture, BenchPage } from './bench-page.js';
import { changed, count, photo, pixelsOf } from './pixels.js';
import { RunningServer } from './server.js';

const SIZE = { width: 800, height: 600 };
const PICTURE = 'quay-print-light-crop16.png';

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

test.beforeEach(async ({ page }) => {
  await addPicture(page, server.url, 'Carnival head, condition picture', photo(PICTURE));
  await new BenchPage(page, SIZE).settled(0);
});

test('patch, good area first: outlined, slid onto the bad one, copied exactly', async ({
  page,
}, info) => {
  const bench = new BenchPage(page, SIZE);
  await bench.choose('Patch');
  await bench.choose('Rectangle');
  await bench.choose('Outline the good area');
  await bench.choose('As it is');
  await setField(page, 'Softness', '0');
  await bench.drag([300, 120], [360, 160]);
  await bench.settled(1);
  await expect(page.getByRole('heading', { name: 'Patch A' })).toBeVisible();
  // It lies beside what was outlined; dragging it moves the site and leaves the donor.
  await slide(page, 'A', 40, 60);
  await expect(page.getByRole('button', { name: 'Undo: Move a repair' })).toBeVisible();
  await bench.settled(1);
  const [dx, dy] = await shiftOf(page);
  const file = info.outputPath('patch.png');
  await bench.export('PNG', file);
  const input = await pixelsOf(photo(PICTURE));
  const out = await pixelsOf(file);
  const site = changed(input, out);
  expect(count(site)).toBeGreaterThan(1000);
  expect(wrongCopies(input, out, site, (x, y) => [x + dx, y + dy])).toBe(0);
});

test('a piece is mirrored, laid down, partly hidden, and found as it was after a restart', async ({
  page,
}, info) => {
  const bench = new BenchPage(page, SIZE);
  await bench.choose('Piece');
  await bench.choose('Rectangle');
  await setField(page, 'Softness', '0');
  await bench.drag([300, 120], [360, 160]);
  await bench.settled(1);
  await expect(page.getByRole('textbox', { name: 'Strength' })).toHaveValue('50');
  await page.getByRole('button', { name: 'Mirror left and right' }).click();
  await bench.settled(1);
  await bench.press('Lay down');
  await expect(page.getByRole('textbox', { name: 'Strength' })).toHaveValue('100');
  await bench.settled(1);
  const [dx, dy] = await shiftOf(page);
  const whole = info.outputPath('piece.png');
  await bench.export('PNG', whole);
  const input = await pixelsOf(photo(PICTURE));
  const out = await pixelsOf(whole);
  const site = changed(input, out);
  const box = boxOf(site, SIZE.width);
  // The box of the piece mirrored about its own middle, then fetched from where it was lifted.
  expect(wrongCopies(input, out, site, (x, y) => [box.x0 + box.x1 - x + dx, y + dy])).toBe(0);

  await bench.choose('Hide');
  const edge = (await page.locator('[data-site="A"] .edge').boundingBox())!;
  await page.mouse.move(edge.x + 6, edge.y + edge.height / 2);
  await page.mouse.down();
  await page.mouse.move(edge.x + edge.width / 2, edge.y + edge.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Undo: Hide part of a piece' })).toBeVisible();
  await bench.settled(1);
  const part = info.outputPath('part.png');
  await bench.export('PNG', part);
  const hidden = count(changed(input, await pixelsOf(part)));
  expect(hidden).toBeLessThan(count(site) - 100);

  const address = page.url();
  await server.stop();
  await server.start();
  await page.goto(address);
  await bench.settled(1);
  const again = info.outputPath('again.png');
  await bench.export('PNG', again);
  expect(count(changed(await pixelsOf(part), await pixelsOf(again)))).toBe(0);
});

test('push carries pixels along; give back returns the original exactly', async ({
  page,
}, info) => {
  const bench = new BenchPage(page, SIZE);
  await bench.choose('Push');
  await bench.drag([400, 300], [430, 300]);
  await bench.settled(1);
  const input = await pixelsOf(photo(PICTURE));
  const pushed = info.outputPath('pushed.png');
  await bench.export('PNG', pushed);
  const site = changed(input, await pixelsOf(pushed));
  expect(count(site)).toBeGreaterThan(100);
  const box = boxOf(site, SIZE.width);
  expect(box.x0).toBeGreaterThan(380);
  expect(box.x1).toBeLessThan(450);

  await bench.choose('Give back');
  await bench.choose('Rectangle');
  await setField(page, 'Softness', '0');
  await bench.drag([370, 260], [460, 340]);
  await bench.settled(2);
  const back = info.outputPath('back.png');
  await bench.export('PNG', back);
  expect(count(changed(input, await pixelsOf(back)))).toBe(0);
});

test('several repairs are weakened together, joined, and split again', async ({ page }) => {
  const bench = new BenchPage(page, SIZE);
  await bench.choose('Fill');
  await bench.choose('Dab');
  await bench.click(120, 80);
  await bench.settled(1);
  await bench.click(200, 90);
  await bench.settled(2);
  await bench.row(/^Fill A, dab/).click();
  await bench.row(/^Fill B, dab/).click({ modifiers: ['Shift'] });
  await expect(page.getByRole('heading', { name: '2 repairs' })).toBeVisible();
  const strength = page.getByRole('textbox', { name: 'Strength of all' });
  await strength.fill('70');
  await strength.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo: Set strength of several' })).toBeVisible();
  await bench.settled(2);
  await bench.press('Join into one');
  await bench.settled(1);
  await expect(bench.row(/^Fill A, several parts/)).toBeVisible();
  await bench.press('More for repair A');
  await page.getByRole('menuitem', { name: 'Split in two' }).click();
  await bench.settled(2);
});

async function setField(page: Page, name: string, value: string): Promise<void> {
  const field = page.getByRole('textbox', { name });
  await field.fill(value);
  await field.press('Enter');
}

async function slide(page: Page, letter: string, dx: number, dy: number): Promise<void> {
  const box = (await page.locator(`[data-site="${letter}"] .edge`).boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + dx, y + dy, { steps: 6 });
  await page.mouse.up();
}

/** Donor minus site, as the card's fields say. */
async function shiftOf(page: Page): Promise<[number, number]> {
  const value = async (name: string): Promise<number> =>
    Number(await page.getByRole('textbox', { name }).inputValue());
  return [await value('Across'), await value('Down')];
}

function boxOf(mask: Uint8Array, width: number) {
  let [x0, x1, y0, y1] = [Infinity, -1, Infinity, -1];
  mask.forEach((v, p) => {
    if (!v) return;
    x0 = Math.min(x0, p % width);
    x1 = Math.max(x1, p % width);
    y0 = Math.min(y0, Math.floor(p / width));
    y1 = Math.max(y1, Math.floor(p / width));
  });
  return { x0, x1, y0, y1 };
}

/** Samples of a site that are not the input's at the place they should come from. */
function wrongCopies(
  input: Raster,
  out: Raster,
  site: Uint8Array,
  from: (x: number, y: number) => [number, number],
): number {
  let wrong = 0;
  site.forEach((inside, p) => {
    if (!inside) return;
    const [x, y] = from(p % input.width, Math.floor(p / input.width));
    for (let c = 0; c < input.channels; c++)
      if (out.data[p * out.channels + c] !== input.data[(y * input.width + x) * input.channels + c])
        wrong++;
  });
  return wrong;
}
