import { expect, test } from '@playwright/test';
import type { Raster } from '@tersum/core';
import sharp from 'sharp';
import { addPicture, BenchPage } from './bench-page.js';
import { both, changed, count, gain, maskOf, photo, pixelsOf } from './pixels.js';
import { RunningServer } from './server.js';

const SIZE = { width: 1800, height: 1200 };
/** Round the litter bin and its shadow. */
const BIN = [
  [222, 1010],
  [250, 982],
  [392, 982],
  [416, 1060],
  [412, 1198],
  [152, 1198],
  [152, 1150],
  [222, 1120],
] as const;

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

test('the litter bin is filled in portions, with a forbidden area, a bent guide and a chosen variant', async ({
  page,
}, info) => {
  await addPicture(page, server.url, 'Allotment behind the fence', photo('wires.jpg'));
  const bench = new BenchPage(page, SIZE);
  await bench.settled(0);
  await bench.choose('Fill');
  await bench.choose('Outline');
  for (const [x, y] of BIN) await bench.click(x, y);
  await page.keyboard.press('Enter');
  await bench.settled(1);
  const plain = info.outputPath('plain.png');
  await bench.export('PNG', plain);

  await bench.row(/^Fill A, outline/).click();
  await bench.choose('Forbid');
  await bench.drag([300, 800], [290, 960]);
  await expect(page.getByRole('button', { name: 'Undo: Forbid an area' })).toBeVisible();
  await bench.settled();

  await bench.choose('Guide');
  await bench.drag([140, 1185], [440, 1090]);
  await expect(page.getByRole('button', { name: 'Undo: Add a guide' })).toBeVisible();
  await bench.settled();
  const handle = page.getByRole('button', { name: 'Guide 1, point 2' });
  const box = (await handle.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 3, box.y + box.height / 2 + 6, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Undo: Bend a guide' })).toBeVisible();
  await bench.settled();
  const steered = info.outputPath('steered.png');
  await bench.export('PNG', steered);

  await bench.press('Cut into portions');
  await expect(page.getByText('Portion 2 of').first()).toBeVisible();
  await bench.settled();
  await bench.press('Done');
  await bench.row(/^Fill B, outline/).click();
  await bench.press('Variants');
  const variants = page.getByRole('listbox', { name: 'Variants' });
  await expect(variants.getByRole('option')).toHaveCount(3, { timeout: 240_000 });
  await variants.getByRole('option', { name: /^Variant 2/ }).click();
  await expect(variants.getByRole('option', { name: /^Variant 2/ })).toHaveAttribute(
    'aria-selected',
    'true',
  );
  await page.keyboard.press('ArrowRight');
  await expect(variants.getByRole('option', { name: /^Variant 3/ })).toHaveAttribute(
    'aria-selected',
    'true',
  );
  await page.keyboard.press('ArrowRight');
  await expect(variants.getByRole('option', { name: /^Variant 1/ })).toHaveAttribute(
    'aria-selected',
    'true',
  );
  await bench.press('Take this variant');
  await expect(page.getByRole('button', { name: 'Undo: Choose a variant' })).toBeVisible();
  await bench.settled();
  const file = info.outputPath('mended.png');
  await bench.export('PNG', file);

  const input = await pixelsOf(photo('wires.jpg'));
  const truth = await pixelsOf(photo('wires-truth-no-bin.jpg'));
  const bin = await maskOf(photo('wires-bin-mask.png'));
  const mended = await pixelsOf(file);
  const site = changed(input, mended);
  // All of the bin was replaced, and nothing else: the outline holds about 48,000 px.
  expect(count(both(site, bin))).toBeGreaterThan(0.97 * count(bin));
  expect(count(site)).toBeLessThan(52_000);
  const away = site.map((v, p) =>
    v && (p % SIZE.width > 420 || Math.floor(p / SIZE.width) < 978) ? 1 : 0,
  );
  expect(count(away)).toBe(0);
  // Steering changed what came out, and what came out is nearer to the lane without its bin.
  expect(count(changed(await pixelsOf(plain), await pixelsOf(steered)))).toBeGreaterThan(2000);
  // Behind it stand a pot and a step that nothing in the picture tells of.
  expect(gain(input, mended, truth, bin)).toBeGreaterThan(1.5);
});

test('grounds are forbidden and allowed by a click; doubtful places are on the docket and are mended from there', async ({
  page,
}) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Lane with wires.jpg' }).click();
  const bench = new BenchPage(page, SIZE);
  await bench.settled(1);
  await bench.choose('Fill');
  await bench.choose('Rectangle');
  await bench.drag([420, 700], [560, 830]);
  await bench.settled(2);
  await bench.row(/^Fill B, rectangle/).click();
  await bench.press('Grounds');
  const allowed = page.getByRole('button', { name: /^Ground \d+, .* may be copied$/ });
  await expect(allowed.first()).toBeVisible();
  await bench.settled();
  const before = await allowed.count();
  await allowed.first().focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo: Forbid a ground' })).toBeVisible();
  await bench.settled();
  await expect(allowed).toHaveCount(before - 1);
  await bench.press('Undo');
  await bench.settled();
  await expect(allowed).toHaveCount(before);

  await bench.press('How sure');
  await expect(page.getByRole('button', { name: 'How sure' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  const todo = page.getByRole('group', { name: 'To do' });
  await expect(todo).toBeVisible();
  if ((await todo.getAttribute('open')) === null) await todo.locator('summary').click();
  const places = page.getByRole('button', { name: /^Touch up place/ });
  const doubtful = await places.count();
  expect(doubtful).toBeGreaterThan(0);
  await places.last().click();
  await bench.settled(3);
  await expect(page.getByRole('button', { name: /^(Graft|Clone|Fill) C, dab/ })).toBeVisible();
  await expect(places).toHaveCount(doubtful - 1);
});

test('a fill has the grain that it lacks, in its site alone; without it is smoother, and undone to the byte', async ({
  page,
}, info) => {
  const [width, height] = [480, 360];
  const noise = { type: 'gaussian', mean: 128, sigma: 14 } as const;
  const grainy = info.outputPath('grainy.png');
  const plate = { channels: 3, background: '#808080' } as const;
  // Grain round the site alone: what is copied into its middle can only be smooth.
  const patch = await sharp({ create: { ...plate, width: 124, height: 124, noise } })
    .png()
    .toBuffer();
  await sharp({ create: { ...plate, width, height } })
    .composite([{ input: patch, left: 178, top: 118 }])
    .png()
    .toFile(grainy);
  await addPicture(page, server.url, 'Allotment behind the fence', grainy);
  const bench = new BenchPage(page, { width, height });
  await bench.settled(0);
  await bench.choose('Fill');
  await bench.choose('Rectangle');
  await bench.drag([200, 140], [280, 220]);
  await bench.settled(1);
  const [given, plain, undone] = ['given', 'plain', 'undone'].map((n) =>
    info.outputPath(`${n}.png`),
  );
  await bench.export('PNG', given!);
  await bench.row(/^Fill A, rectangle/).click();
  await bench.press('Give grain back');
  await expect(page.getByRole('button', { name: 'Undo: No grain given back' })).toBeVisible();
  await bench.settled();
  await bench.export('PNG', plain!);
  await bench.press('Undo');
  await bench.settled();
  await bench.export('PNG', undone!);

  const [before, after, again] = await Promise.all([plain!, given!, undone!].map(pixelsOf));
  const mask = changed(before!, after!);
  const outside = mask.filter((v, p) => {
    const [x, y] = [p % width, Math.floor(p / width)];
    return v && (x < 198 || x > 282 || y < 138 || y > 222);
  });
  expect(outside).toHaveLength(0);
  const [wanted, smooth, rough] = [await pixelsOf(grainy), before!, after!].map(roughness);
  expect(smooth!).toBeLessThan(0.8 * wanted!);
  expect(rough!).toBeGreaterThan(1.3 * smooth!);
  expect(rough!).toBeLessThan(1.2 * wanted!);
  expect(count(changed(after!, again!))).toBe(0);
});

/** Mean size of the difference of neighbours in the middle of the site. */
function roughness({ width, channels, data }: Raster): number {
  const side = 50;
  let sum = 0;
  for (let y = 155; y < 155 + side; y++)
    for (let x = 215; x < 215 + side; x++) {
      const i = (y * width + x) * channels;
      sum += Math.abs(data[i]! - data[i + channels]!);
    }
  return sum / side ** 2;
}

test('while a large fill is searched a coarse filling lies in its site, and is gone when it is done', async ({
  page,
}, info) => {
  const [width, height] = [2100, 1400];
  const noise = { type: 'gaussian', mean: 150, sigma: 20 } as const;
  const marked = info.outputPath('marked.png');
  const red = { channels: 3, background: '#e01010', width: 620, height: 620 } as const;
  const square = await sharp({ create: red }).png().toBuffer();
  await sharp({ create: { channels: 3, background: '#969696', width, height, noise } })
    .composite([{ input: square, left: 740, top: 390 }])
    .png()
    .toFile(marked);
  await addPicture(page, server.url, 'Allotment behind the fence', marked);
  const bench = new BenchPage(page, { width, height });
  await bench.settled(0);
  await bench.choose('Fill');
  await bench.choose('Rectangle');
  const [middle, table] = [await bench.at(1050, 700), (await bench.table.boundingBox())!];
  await page.evaluate(watchCanvas, { x: middle.x - table.x, y: middle.y - table.y });
  await bench.drag([730, 380], [1370, 1020]);
  await bench.settled(1);
  const seen = await page.evaluate(() => (window as unknown as { seen: Seen[] }).seen);
  // Red before, grey while coarse levels are shown, grey in the end.
  const [first, ...coarse] = [seen[0]!, ...seen.filter(({ rough }) => rough)];
  expect(first.red - first.green).toBeGreaterThan(150);
  expect(coarse.length).toBeGreaterThan(0);
  for (const { red, green } of coarse) expect(Math.abs(red - green)).toBeLessThan(40);
  await expect(bench.table.locator('canvas').first()).toHaveAttribute('data-rough', 'false');
});

interface Seen {
  readonly rough: boolean;
  readonly red: number;
  readonly green: number;
}

/** Runs in the page: notes what a spot of the table shows now, and whenever a coarse filling has been drawn. */
function watchCanvas({ x, y }: { x: number; y: number }): void {
  const canvas = document.querySelector<HTMLCanvasElement>('canvas[data-rough]')!;
  const seen: Seen[] = [];
  const look = (): void => {
    const by = canvas.width / canvas.clientWidth;
    const [red, green] = canvas.getContext('2d')!.getImageData(x * by, y * by, 1, 1).data;
    seen.push({ rough: canvas.dataset.rough === 'true', red: red!, green: green! });
  };
  look();
  const later = (): void => void requestAnimationFrame(() => requestAnimationFrame(look));
  new MutationObserver(later).observe(canvas, { attributeFilter: ['data-rough'] });
  Object.assign(window, { seen });
}
