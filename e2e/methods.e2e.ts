import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { addPicture, BenchPage } from './bench-page.js';
import { changed, photo, pixelsOf } from './pixels.js';
import { RunningServer } from './server.js';

const SIZE = { width: 800, height: 600 };
const PICTURE = 'quay-print-light-crop16.png';

/** Where the clone that is shown before it is made copies from, and where to: light and dark ground. */
const DONOR = [500, 150] as const;
const HERE = [350, 420] as const;

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

test.beforeEach(async ({ page }) => {
  await addPicture(page, server.url, 'Carnival head, condition picture', photo(PICTURE));
  await new BenchPage(page, SIZE).settled(0);
});

test('clone copies the donor exactly at 16 bits, and the donor can be moved', async ({
  page,
}, info) => {
  const bench = new BenchPage(page, SIZE);
  await bench.choose('Clone');
  await bench.choose('Rectangle');
  // Where to copy from is said by holding D and clicking.
  await page.keyboard.down('d');
  await bench.click(500, 150);
  await page.keyboard.up('d');
  await expect(page.getByText('Donor chosen for the next stroke.')).toBeVisible();
  const softness = page.getByRole('textbox', { name: 'Softness' });
  await softness.fill('0');
  await softness.press('Enter');
  await bench.drag([200, 120], [260, 160]);
  await bench.settled(1);
  const file = info.outputPath('clone.png');
  await bench.export('PNG', file);
  const input = await pixelsOf(photo(PICTURE));
  const out = await pixelsOf(file);
  expect(out.data.BYTES_PER_ELEMENT).toBe(2);
  const at = copiedArea(changed(input, out), SIZE.width);
  expect(at.width).toBeGreaterThan(55);
  expect(at.width).toBeLessThan(66);
  // The shift is told by the card; every sample of the rectangle is the donor's, every other the original's.
  await bench.row(/^Clone A, rectangle/).click();
  const words = await page.getByText(/^Donor \d+ px/).textContent();
  const dx = Number(/(\d+) px right/.exec(words!)![1]);
  const dy =
    Number(/(\d+) px (?:up|down)/.exec(words!)?.[1] ?? 0) * (words!.includes('up') ? -1 : 1);
  let wrong = 0;
  for (let y = at.y; y < at.y + at.height; y++)
    for (let x = at.x; x < at.x + at.width; x++)
      for (let c = 0; c < input.channels; c++) {
        const from = ((y + dy) * SIZE.width + x + dx) * input.channels + c;
        if (out.data[(y * SIZE.width + x) * input.channels + c] !== input.data[from]) wrong++;
      }
  expect(wrong).toBe(0);

  await page.locator('[data-donor]').hover();
  await page.mouse.down();
  await page.mouse.move(600, 420, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Undo: Move a donor' })).toBeVisible();
  await bench.settled(1);
  const moved = info.outputPath('moved.png');
  await bench.export('PNG', moved);
  expect(copiedArea(changed(input, await pixelsOf(moved)), SIZE.width)).toEqual(at);
});

test('what a clone is about to copy shows under the pointer and along the stroke', async ({
  page,
}) => {
  const bench = new BenchPage(page, SIZE);
  await bench.choose('Clone');
  await bench.choose('Stroke');
  await page.keyboard.down('d');
  await bench.click(...DONOR);
  await page.keyboard.up('d');
  const width = page.getByRole('textbox', { name: 'Width' });
  await width.fill('60');
  await width.press('Enter');
  await page.mouse.move(0, 0);
  await bench.settled(0);
  const donor = await seenAt(bench, DONOR);
  const before = await seenAt(bench, HERE);
  expect(apart(donor, before)).toBeGreaterThan(40);

  const at = await bench.at(...HERE);
  await page.mouse.move(at.x, at.y, { steps: 3 });
  await expect.poll(async () => apart(await seenAt(bench, HERE), donor)).toBeLessThan(4);

  await page.mouse.down();
  await page.mouse.move(at.x + 90, at.y + 40, { steps: 6 });
  // The stroke keeps what lies under its beginning: the pointer has gone on.
  await expect.poll(async () => apart(await seenAt(bench, HERE), donor)).toBeLessThan(12);
  await page.mouse.move(0, 0);
  await page.keyboard.press('Escape');
  await page.mouse.up();
});

test('graft finds a donor by itself and leaves no step of tone at its border', async ({
  page,
}, info) => {
  const bench = new BenchPage(page, SIZE);
  await bench.choose('Graft');
  await bench.choose('Dab');
  await bench.click(120, 80);
  await bench.settled(1);
  await bench.row(/^Graft A, dab/).click();
  await expect(page.getByText(/^Donor \d+ px/)).toBeVisible();
  const file = info.outputPath('graft.png');
  await bench.export('TIFF', file);
  const input = await pixelsOf(photo(PICTURE));
  const out = await pixelsOf(file);
  const site = changed(input, out);
  const at = copiedArea(site, SIZE.width);
  expect(at.width).toBeLessThan(30);
  // The mean over the ring and over the site's rim agree within the sky's own grain.
  const mean = (inside: boolean): number => {
    let sum = 0;
    let n = 0;
    for (let y = at.y - 4; y < at.y + at.height + 4; y++)
      for (let x = at.x - 4; x < at.x + at.width + 4; x++) {
        const p = y * SIZE.width + x;
        if ((site[p] === 1) !== inside) continue;
        sum += out.data[p * out.channels]!;
        n++;
      }
    return sum / n / 65535;
  };
  expect(Math.abs(mean(true) - mean(false))).toBeLessThan(0.02);
});

test('a stroke, an outline and a moved site are mended, switched off and deleted', async ({
  page,
}) => {
  const bench = new BenchPage(page, SIZE);
  await bench.choose('Stroke');
  await bench.drag([300, 420], [360, 450]);
  await bench.settled(1);
  await bench.choose('Outline');
  for (const [x, y] of [
    [500, 420],
    [540, 420],
    [540, 460],
    [505, 455],
  ] as const)
    await bench.click(x, y);
  await page.keyboard.press('Enter');
  await bench.settled(2);
  await bench.choose('Pick');
  await bench.click(520, 440);
  await expect(page.getByRole('heading', { name: 'Fill B' })).toBeVisible();
  await bench.drag([520, 440], [600, 470]);
  await expect(page.getByRole('button', { name: 'Undo: Move a repair' })).toBeVisible();
  await bench.settled(2);
  await bench.press('More for repair B');
  await page.getByRole('menuitem', { name: 'Switch off' }).click();
  await expect(bench.row(/^Fill B, outline, off/)).toBeVisible();
  await page.keyboard.press('Escape');
  await bench.row(/^Fill A, stroke/).click();
  await bench.table.focus();
  await page.keyboard.press('Delete');
  await bench.settled(1);
});

test('layers are added, named, ordered and deleted, and repairs go to the chosen one', async ({
  page,
}) => {
  const bench = new BenchPage(page, SIZE);
  await bench.press('Layer');
  await expect(page.getByRole('button', { name: 'Layer 2', exact: true })).toBeVisible();
  await bench.press('More for layer Layer 2');
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByRole('textbox', { name: 'Layer name' }).fill('Dust');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Dust', exact: true })).toBeVisible();
  await bench.choose('Dab');
  await bench.click(400, 300);
  await bench.settled(1);
  await expect(
    page.getByRole('region', { name: 'Layer Dust' }).getByRole('button', { name: /^Fill A, dab/ }),
  ).toBeVisible();
  await bench.press('More for layer Dust');
  await page.getByRole('menuitem', { name: 'Move down' }).click();
  const names = page.getByRole('region', { name: /^Layer / });
  await expect(names.first()).toHaveAccessibleName('Layer Repairs');
  await bench.press('More for layer Dust');
  await page.getByRole('menuitem', { name: 'Delete with its repairs' }).click();
  await bench.settled(0);
  await bench.press('Undo');
  await bench.settled(1);
});

function copiedArea(mask: Uint8Array, width: number) {
  let x0 = width;
  let y0 = Infinity;
  let x1 = -1;
  let y1 = -1;
  mask.forEach((v, p) => {
    if (!v) return;
    x0 = Math.min(x0, p % width);
    x1 = Math.max(x1, p % width);
    y0 = Math.min(y0, Math.floor(p / width));
    y1 = Math.max(y1, Math.floor(p / width));
  });
  return { x: x0, y: y0, width: x1 - x0 + 1, height: y1 - y0 + 1 };
}

/** Red, green and blue of a small square of the table round a picture point. */
async function seenAt(bench: BenchPage, point: readonly [number, number]): Promise<Buffer> {
  const { x, y } = await bench.at(...point);
  const clip = { x: Math.round(x) - 6, y: Math.round(y) - 6, width: 12, height: 12 };
  return sharp(await bench.page.screenshot({ clip }))
    .removeAlpha()
    .raw()
    .toBuffer();
}

/** Mean difference of two pictures' samples, codes. */
function apart(one: Buffer, two: Buffer): number {
  return one.reduce((sum, v, i) => sum + Math.abs(v - two[i]!), 0) / one.length;
}
