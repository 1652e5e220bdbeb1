import { writeFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { encode } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import { ciede2000, labOfSrgb, landmarksOf, registered, through } from '@tersum/core';
import { Actions } from './actions.js';
import { addPicture, BenchPage } from './bench-page.js';
import { photo, pixelsOf } from './pixels.js';
import { RunningServer } from './server.js';

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

/** Side of the squares whose mean colours are compared, px. */
const SQUARE = 60;

type Colour = readonly [number, number, number];

/** Mean colour of a square, and the standard deviation of its green from pixel to pixel beside it. */
function squareOf({ width, channels, data }: Raster, x0: number, y0: number) {
  const sum = [0, 0, 0];
  let steps = 0;
  for (let y = y0; y < y0 + SQUARE; y++)
    for (let x = x0; x < x0 + SQUARE; x++) {
      const i = (y * width + x) * channels;
      for (let c = 0; c < 3; c++) sum[c]! += data[i + c]!;
      if (x > x0) steps += (data[i + 1]! - data[i + 1 - channels]!) ** 2;
    }
  const n = SQUARE * SQUARE;
  return {
    colour: sum.map((v) => v / n / 255) as unknown as Colour,
    texture: Math.sqrt(steps / n),
  };
}

/** Mean CIEDE2000 of squares' colours, and the texture they keep, over columns of a picture and of its truth. */
function beside(picture: Raster, truth: Raster, shift: number, columns: readonly [number, number]) {
  let [off, own, theirs, count] = [0, 0, 0, 0];
  for (let y = 0; y + SQUARE <= picture.height; y += SQUARE)
    for (let x = columns[0]; x + SQUARE <= columns[1]; x += SQUARE) {
      const [one, two] = [squareOf(picture, x, y), squareOf(truth, x + shift, y)];
      off += ciede2000(labOfSrgb(...one.colour), labOfSrgb(...two.colour));
      own += one.texture;
      theirs += two.texture;
      count++;
    }
  return { off: off / count, texture: own / theirs };
}

test('hand-held frames become one picture, and a stranger among them is named', async ({
  page,
}, info) => {
  // Pictures that still come in may move the board below the pointer.
  await page.goto(server.url, { waitUntil: 'networkidle' });
  const job = page.getByRole('article', { name: 'Allotment behind the fence' });
  await job.getByRole('button', { name: /^Simulated devices/ }).click();
  await page.getByRole('radio', { name: 'Camera' }).click();
  await page.getByRole('button', { name: 'Photograph' }).click();
  const window = page.getByRole('dialog');
  await expect(window.getByRole('link', { name: 'Simulated frame 3 of 3.tif' })).toBeVisible({
    timeout: 240_000,
  });
  await window.getByRole('button', { name: 'Close' }).click();
  await job.getByRole('button', { name: /^Combine/ }).click();
  const tick = (name: string) =>
    page.getByRole('checkbox', { name, exact: true }).check({ force: true });
  await tick('Garden through the fence.jpg');
  for (const k of [3, 1, 2]) await tick(`Simulated frame ${k} of 3.tif`);
  await page.getByRole('radio', { name: 'Fill them' }).click();
  // On a plane one map leads back to the view that was photographed.
  await window.getByLabel('Laid on').selectOption('Plane');
  await expect(window.getByText(/cannot be joined|invented/)).toBeVisible({ timeout: 240_000 });
  const make = window.getByRole('button', { name: 'Join frames', exact: true });
  await make.click();
  await expect(window.getByText(/“Garden through the fence.jpg” shows nothing/)).toBeVisible({
    timeout: 240_000,
  });
  await page
    .getByRole('checkbox', { name: 'Garden through the fence.jpg' })
    .uncheck({ force: true });
  await expect(window.getByText(/invented \d+\.\d %/)).toBeVisible({ timeout: 240_000 });
  await make.click();
  const joined = window.getByRole('link', { name: /joined/ });
  await joined.click({ timeout: 240_000 });
  await expect(page.getByText('Up to date')).toBeVisible({ timeout: 240_000 });
  // What no frame showed is filled by a record of its own.
  await expect(page.getByRole('button', { name: /^Fill A, / })).toBeVisible();
  const bench = new BenchPage(page, { width: 2000, height: 800 });
  const made = await pixelsOf(await bench.saved('PNG', info.outputPath('joined.png')));
  expect(made.width).toBeGreaterThan(1500);
  expect(made.height).toBeGreaterThan(400);
  // Laid over the view the simulated camera photographed, it shows the same.
  const truth = await pixelsOf(photo('huts-wide.jpg'));
  const found = registered(landmarksOf(made), landmarksOf(truth))!;
  const pairs: [number, number][][] = [[], [], []];
  for (let y = 0; y < made.height; y += 2)
    for (let x = 0; x < made.width; x += 2) {
      const [u, v] = through(found.map, [x, y]).map(Math.round) as [number, number];
      if (u < 0 || v < 0 || u >= truth.width || v >= truth.height) continue;
      for (let c = 0; c < 3; c++)
        pairs[c]!.push([
          made.data[(y * made.width + x) * made.channels + c]!,
          truth.data[(v * truth.width + u) * truth.channels + c]!,
        ]);
    }
  expect(pairs[0]!.length).toBeGreaterThan(0.7 * ((made.width * made.height) / 4));
  // Frames were exposed differently: one gain a channel is nobody's fault.
  let squares = 0;
  for (const channel of pairs) {
    const gain =
      channel.reduce((s, [a, b]) => s + a * b, 0) / channel.reduce((s, [a]) => s + a * a, 0);
    squares += channel.reduce((s, [a, b]) => s + (a * gain - b) ** 2, 0) / channel.length;
  }
  const nearness = 10 * Math.log10((255 * 255 * 3) / squares);
  expect(nearness).toBeGreaterThan(23);
});

test('the jug becomes square both ways by one record that is reopened, and looks as the wide view does', async ({
  page,
}, info) => {
  const actions = new Actions();
  const { act } = actions;
  await page.goto(server.url);
  await act(page.getByRole('link', { name: 'Open Jug on canvas.jpg' }).click());
  await act(page.getByRole('link', { name: 'Finish' }).click());
  await act(page.getByRole('radio', { name: 'Frame' }).click());
  await act(page.getByRole('button', { name: 'Widen…' }).click());
  const window = page.getByRole('dialog');
  await expect(window.getByText('1800 × 1800 px')).toBeVisible();
  await expect(window.getByText('33 %').first()).toBeVisible();
  await expect(window.getByText('The dashed outline is kept.')).toBeVisible({ timeout: 240_000 });
  // Not one of the actions: both ways can be seen small first, with what would give each away.
  await window.getByRole('button', { name: 'Try both ways' }).click();
  const ways = window.getByRole('group', { name: 'Both ways' });
  await expect(ways.getByRole('button')).toHaveCount(2, { timeout: 240_000 });
  await expect(ways.getByText('advised')).toHaveCount(1);
  await window.getByRole('radio', { name: 'Fill the sides' }).click();
  await act(window.getByRole('button', { name: 'Widen', exact: true }).click());
  const widening = page.getByRole('region', { name: 'Widening' });
  await expect(widening.getByText('Sides filled')).toBeVisible();
  const bench = new BenchPage(page, { width: 1800, height: 1800 });
  const saved = async (name: string): Promise<Raster> => {
    await page.getByRole('link', { name: 'Bench', exact: true }).click();
    await expect(page.getByText('Up to date')).toBeVisible({ timeout: 240_000 });
    return pixelsOf(await bench.saved('PNG', info.outputPath(name)));
  };
  const filled = await saved('filled.png');
  // The record stands on a layer of its own, over the repairs there were.
  await expect(page.getByRole('button', { name: 'Fill A, new sides' })).toBeVisible();
  await page.getByRole('button', { name: 'Fill A, new sides' }).click();
  await act(page.getByRole('link', { name: 'Change the canvas…' }).click());
  await expect(window.getByText('The dashed outline is kept.')).toBeVisible({ timeout: 240_000 });
  await act(window.getByRole('radio', { name: 'Stretch the background' }).click());
  await act(window.getByRole('button', { name: 'Change', exact: true }).click());
  await expect(widening.getByText('Background stretched')).toBeVisible();
  expect(actions.count).toBeLessThan(10);
  const wide = await saved('stretched.png');
  // The wide view was rendered with the same camera: the narrow one begins 600 px into it, the square one 300 px.
  const truth = await pixelsOf(photo('jug-wide-truth.jpg'));
  const received = await pixelsOf(photo('jug-scratched.jpg'));
  for (const picture of [filled, wide]) {
    expect([picture.width, picture.height]).toEqual([1800, 1800]);
    for (const columns of [
      [0, 300],
      [1500, 1800],
    ] as const) {
      const { off, texture } = beside(picture, truth, 300, columns);
      expect(off).toBeLessThan(5);
      expect(texture).toBeGreaterThan(0.8);
      expect(texture).toBeLessThan(1.25);
    }
  }
  // What was there before is there still, to the sample, but for the repairs it had.
  let [same, all] = [0, 0];
  for (let y = 0; y < 1800; y++)
    for (let i = 0; i < 1200 * received.channels; i++, all++)
      if (
        filled.data[(y * 1800 + 300) * filled.channels + i] ===
        received.data[y * 1200 * received.channels + i]
      )
        same++;
  expect(same / all).toBeGreaterThan(0.98);
  // Taken away, the picture has its own frame again; undone, the canvas is back.
  await page.getByRole('link', { name: 'Finish' }).click();
  await page.getByRole('radio', { name: 'Frame' }).click();
  await widening.getByRole('button', { name: 'Take away' }).click();
  await expect(page.getByText('1200 × 1800 px')).toBeVisible();
  const plain = await saved('plain.png');
  expect([plain.width, plain.height]).toEqual([1200, 1800]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('1800 × 1800')).toBeVisible({ timeout: 240_000 });
});

test('edges are dragged with the stretched picture before one’s eyes, and new sides repaired', async ({
  page,
}, info) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Carnival head.jpg' }).click();
  await page.getByRole('link', { name: 'Finish' }).click();
  await page.getByRole('radio', { name: 'Frame' }).click();
  const before = await page
    .getByText(/^\d+ × \d+ px$/)
    .first()
    .innerText();
  const [width, height] = before.match(/\d+/g)!.map(Number) as [number, number];
  await page.getByRole('button', { name: 'Widen…' }).click();
  const window = page.getByRole('dialog');
  await window.getByRole('radio', { name: 'Free' }).click();
  await window.getByRole('radio', { name: 'Stretch the background' }).click();
  const edge = window.getByRole('slider', { name: 'Left edge' });
  const shown = window.getByTestId('sketch-picture');
  await expect(window.getByText(/outline is kept|Nothing stands out/)).toBeVisible({
    timeout: 240_000,
  });
  await expect(shown).toHaveAttribute('data-stretched', 'true', { timeout: 240_000 });
  const box = (await edge.boundingBox())!;
  const seen = new Set<string>();
  const own = await shown.evaluate((c: HTMLCanvasElement) => c.width);
  await page.mouse.move(box.x + 6, box.y + 20);
  await page.mouse.down();
  for (let k = 1; k <= 12; k++) {
    await page.mouse.move(box.x + 6 - 3 * k, box.y + 20);
    await page.waitForTimeout(60);
    seen.add(await shown.evaluate((c: HTMLCanvasElement) => String(c.width)));
  }
  // The copy grew while it was dragged, not only at the end.
  expect(seen.size).toBeGreaterThan(3);
  await page.mouse.up();
  expect(await shown.evaluate((c: HTMLCanvasElement) => c.width)).toBeGreaterThan(own);
  // By number instead: wider at the left alone.
  for (const [name, px] of [
    ['Left, px', 60],
    ['Right, px', 0],
    ['Above, px', 0],
    ['Below, px', 0],
  ] as const) {
    await window.getByLabel(name).fill(String(px));
    await window.getByLabel(name).press('Enter');
  }
  await window.getByRole('button', { name: 'Widen', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Widening' })).toBeVisible();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await expect(page.getByText('Up to date')).toBeVisible({ timeout: 240_000 });
  const bench = new BenchPage(page, { width: width + 60, height });
  const file = await pixelsOf(await bench.saved('PNG', info.outputPath('narrowed.png')));
  expect([file.width, file.height]).toEqual([width + 60, height]);
  // A clone on the new side, counted from the canvas's corner: the same canvas, other pixels there alone.
  await bench.choose('Clone');
  await bench.choose('Dab');
  await bench.click(20, Math.round(height / 2));
  await bench.settled(8);
  const mended = await pixelsOf(await bench.saved('PNG', info.outputPath('touched.png')));
  let [inside, outside] = [0, 0];
  for (let y = 0; y < file.height; y++)
    for (let x = 0; x < file.width; x++) {
      const i = (y * file.width + x) * file.channels;
      if (mended.data[i] === file.data[i] && mended.data[i + 1] === file.data[i + 1]) continue;
      if (Math.hypot(x - 20, y - height / 2) < 30) inside++;
      else outside++;
    }
  expect(inside).toBeGreaterThan(20);
  expect(outside).toBe(0);
});

test('a backdrop that ends inside the frame is extended in one action', async ({ page }, info) => {
  const truth = await pixelsOf(photo('head-truth.jpg'));
  const { width, height, channels } = truth;
  const narrow = { ...truth, data: truth.data.slice() };
  // The room beyond the backdrop's left edge: a lighter wall, a little grainy.
  const end = 66;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < end; x++)
      for (let c = 0; c < channels; c++)
        narrow.data[(y * width + x) * channels + c] = [168, 154, 132][c]! + ((x * 7 + y * 13) % 5);
  const file = info.outputPath('narrow.png');
  await writeFile(file, await encode(narrow, 'png', 100, { icc: null, exif: null, ppi: null }));
  await addPicture(page, server.url, 'Carnival head', file);
  await page.getByRole('link', { name: 'Finish' }).click();
  await page.getByRole('radio', { name: 'Frame' }).click();
  await page.getByRole('button', { name: 'Widen…' }).click();
  const window = page.getByRole('dialog');
  await expect(window.getByText(/outline is kept|Nothing stands out/)).toBeVisible({
    timeout: 240_000,
  });
  await window.getByRole('button', { name: 'Extend the backdrop' }).click();
  await expect(window.getByText('Filled where it ended')).toBeVisible({ timeout: 240_000 });
  await window.getByRole('button', { name: 'Leave it' }).click();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await expect(page.getByText('Up to date')).toBeVisible({ timeout: 240_000 });
  const bench = new BenchPage(page, { width, height });
  const mended = await pixelsOf(await bench.saved('PNG', info.outputPath('extended.png')));
  const above: Raster = {
    ...mended,
    height: 900,
    data: mended.data.subarray(0, width * 900 * channels),
  };
  const { off, texture } = beside(above, truth, 0, [0, end]);
  expect(off).toBeLessThan(6);
  expect(texture).toBeGreaterThan(0.6);
  expect(texture).toBeLessThan(1.4);
  // Well inside the backdrop nothing was touched.
  for (let i = 0; i < mended.data.length; i++) {
    const x = Math.floor(i / channels) % width;
    if (x > end + 60 && mended.data[i] !== narrow.data[i]) throw new Error(`sample ${i} changed`);
  }
});
