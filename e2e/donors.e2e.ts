import { ciede2000, labOfSrgb, type Raster } from '@tersum/core';
import { expect, test } from '@playwright/test';
import { addPicture, BenchPage } from './bench-page.js';
import { changed, count, photo, pixelsOf } from './pixels.js';
import { RunningServer } from './server.js';

const JOB = 'Allotment behind the fence';
const HEAD = { width: 1200, height: 1500 };
const PRINT = { width: 3000, height: 2100 };

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

test('blemishes beside the painted lip and eye go, and no paint is dragged in', async ({
  page,
}, info) => {
  await addPicture(page, server.url, JOB, photo('head-blemished.jpg'));
  const bench = new BenchPage(page, HEAD);
  await bench.settled(0);
  // Five actions: method, shape, width, and a click on each blemish.
  await bench.choose('Graft');
  await bench.choose('Dab');
  const width = page.getByRole('textbox', { name: 'Width' });
  await width.fill('14');
  await width.press('Enter');
  const spots = [
    { at: [382, 883], radius: 5 },
    { at: [406, 586], radius: 4 },
  ] as const;
  for (const [k, { at }] of spots.entries()) {
    await bench.click(at[0], at[1]);
    await bench.settled(k + 1);
  }
  const file = info.outputPath('head.png');
  await bench.export('PNG', file);
  const [before, out, truth] = await Promise.all(
    [photo('head-blemished.jpg'), file, photo('head-truth.jpg')].map(pixelsOf),
  );
  for (const { at, radius } of spots) {
    expect(meanDifference(before!, truth!, at, radius + 2)).toBeGreaterThan(4);
    expect(meanDifference(out!, truth!, at, radius + 2)).toBeLessThan(3);
    // Within its whole site no pixel stands as far off as paint from skin would.
    expect(worstDifference(out!, truth!, at, 6)).toBeLessThan(12);
  }
});

test('a brick course runs on in phase through a mended scratch', async ({ page }, info) => {
  await addPicture(page, server.url, JOB, photo('quay-print-heavy.jpg'));
  const bench = new BenchPage(page, PRINT);
  await bench.settled(0);
  // Five actions: method, shape, two ends, Enter.
  await bench.choose('Graft');
  await bench.choose('Chain');
  await bench.click(1252, 650);
  await bench.click(1178, 838);
  await page.keyboard.press('Enter');
  await bench.settled(1);
  const file = info.outputPath('bricks.png');
  await bench.export('PNG', file);
  const [before, out, truth] = await Promise.all(
    [photo('quay-print-heavy.jpg'), file, photo('quay-print-truth.jpg')].map(pixelsOf),
  );
  // Where the scratch laid the paper bare: bricks and joints are back in their places. The print has faded
  // since, so likeness is told by how bright and dark go together.
  const bare = bareIn(before!, changed(before!, out!));
  expect(count(bare)).toBeGreaterThan(200);
  expect(likeness(before!, truth!, bare)).toBeLessThan(0.2);
  expect(likeness(out!, truth!, bare)).toBeGreaterThan(0.5);
});

test('the far house that the crease cuts through is rebuilt from its neighbour', async ({
  page,
}, info) => {
  await addPicture(page, server.url, JOB, photo('quay-print-heavy.jpg'));
  const bench = new BenchPage(page, PRINT);
  await bench.settled(0);
  // Five actions: method, shape, two ends of the crease within the house's wall and roof, Enter.
  await bench.choose('Graft');
  await bench.choose('Chain');
  await bench.click(2462, 882);
  await bench.click(2516, 908);
  await page.keyboard.press('Enter');
  await bench.settled(1);
  const file = info.outputPath('house.png');
  await bench.export('PNG', file);
  const [before, out, truth] = await Promise.all(
    [photo('quay-print-heavy.jpg'), file, photo('quay-print-truth.jpg')].map(pixelsOf),
  );
  const site = changed(before!, out!);
  const bare = bareIn(before!, site);
  expect(count(bare)).toBeGreaterThan(200);
  // Roof and wall have the tones they had, as the faded print shows them: within its grain.
  const around = site.map((inside, p) =>
    inside && !bare[p] && before!.data[3 * p]! < 190 ? 1 : 0,
  );
  const grain = offTruth(before!, before!, truth!, around, site);
  expect(offTruth(before!, before!, truth!, bare, site)).toBeGreaterThan(5 * grain);
  expect(offTruth(out!, before!, truth!, bare, site)).toBeLessThan(2 * grain);
  expect(count(bareIn(out!, site))).toBeLessThan(20);
});

test('donors are offered, walked through by keys, and one is taken', async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Carnival head.jpg' }).click();
  const bench = new BenchPage(page, HEAD);
  await bench.settled(6);
  await bench.row(/^Graft A/).click();
  await bench.press('Find donors');
  const donors = page.getByRole('listbox', { name: 'Donors' });
  await expect(donors.getByRole('option')).toHaveCount(5);
  await expect(donors.getByRole('option', { selected: true })).toHaveAccessibleName(/^Donor 1/);
  await bench.table.focus();
  await page.keyboard.press('ArrowRight');
  await expect(donors.getByRole('option', { selected: true })).toHaveAccessibleName(/^Donor 2/);
  await bench.press('Take this donor');
  await expect(page.getByRole('button', { name: 'Undo: Choose a donor' })).toBeVisible();
  await bench.settled(6);
  // Turned, mirrored and scaled by keys; each is one step of undo.
  await bench.table.focus();
  for (const [key, label] of [
    [']', 'Turn a donor'],
    ['=', 'Scale a donor'],
    ['x', 'Mirror a donor'],
  ] as const) {
    await page.keyboard.press(key);
    await expect(page.getByRole('button', { name: `Undo: ${label}` })).toBeVisible();
    await bench.settled(6);
  }
  await expect(page.getByRole('textbox', { name: 'Turn' })).toHaveValue('-1');
  await expect(page.getByRole('textbox', { name: 'Scale' })).toHaveValue('101');
  await expect(page.getByText(/mirrored/)).toBeVisible();
});

test('the card measures the site and says what suits it; one click takes the advice', async ({
  page,
}) => {
  await addPicture(page, server.url, JOB, photo('head-blemished.jpg'));
  const bench = new BenchPage(page, HEAD);
  await bench.settled(0);
  await bench.choose('Fill');
  await bench.choose('Dab');
  await bench.click(382, 883);
  await bench.settled(1);
  await bench.row(/^Fill A, dab/).click();
  const card = page.getByRole('region', { name: 'Method card' });
  await expect(card.getByRole('note')).toContainText('Defect');
  await card.getByRole('button', { name: /^(Clone|Graft) it/ }).click();
  await expect(page.getByRole('button', { name: 'Undo: Take the advice' })).toBeVisible();
  await bench.settled(1);
  // Choosing otherwise keeps the card quiet.
  await card.getByRole('radio', { name: 'Fill' }).click();
  await bench.settled(1);
  await expect(card.getByRole('note')).toHaveCount(0);
});

/** Where bare paper shows within a mask. */
function bareIn(r: Raster, mask: Uint8Array): Uint8Array {
  return mask.map((inside, p) => (inside && r.data[p * r.channels]! > 215 ? 1 : 0));
}

function lab(r: Raster, p: number) {
  const i = p * r.channels;
  return labOfSrgb(r.data[i]! / 255, r.data[i + 1]! / 255, r.data[i + 2]! / 255);
}

function differencesNear(a: Raster, b: Raster, [x, y]: readonly [number, number], radius: number) {
  const found: number[] = [];
  for (let dy = -radius; dy <= radius; dy++)
    for (let dx = -radius; dx <= radius; dx++) {
      if (dx * dx + dy * dy > radius * radius) continue;
      const p = (y + dy) * a.width + x + dx;
      found.push(ciede2000(lab(a, p), lab(b, p)));
    }
  return found;
}

function meanDifference(a: Raster, b: Raster, at: readonly [number, number], radius: number) {
  const all = differencesNear(a, b, at, radius);
  return all.reduce((sum, v) => sum + v, 0) / all.length;
}

function worstDifference(a: Raster, b: Raster, at: readonly [number, number], radius: number) {
  return Math.max(...differencesNear(a, b, at, radius));
}

/**
 * Mean difference of luma from the truth as the faded print would show it, 8-bit codes: the truth's tones are
 * brought to the print's by a line through the undamaged pixels around the site.
 */
function offTruth(
  out: Raster,
  print: Raster,
  truth: Raster,
  mask: Uint8Array,
  site: Uint8Array,
): number {
  const at = mask.indexOf(1);
  const [cx, cy] = [at % print.width, Math.floor(at / print.width)];
  let [n, sx, sy, sxx, sxy] = [0, 0, 0, 0, 0];
  for (let y = cy - 60; y < cy + 80; y++)
    for (let x = cx - 60; x < cx + 80; x++) {
      const p = y * print.width + x;
      const [u, v] = [luma(truth, p), luma(print, p)];
      if (site[p] || v > 215) continue;
      n++;
      sx += u;
      sy += v;
      sxx += u * u;
      sxy += u * v;
    }
  const gain = (n * sxy - sx * sy) / (n * sxx - sx * sx);
  let sum = 0;
  mask.forEach((inside, p) => {
    if (inside) sum += Math.abs(luma(out, p) - (gain * (luma(truth, p) - sx / n) + sy / n));
  });
  return sum / count(mask);
}

function luma(r: Raster, p: number): number {
  const i = p * r.channels;
  return r.channels >= 3
    ? 0.3 * r.data[i]! + 0.6 * r.data[i + 1]! + 0.1 * r.data[i + 2]!
    : r.data[i]!;
}

/** Correlation of luma over a mask, -1..1. */
function likeness(a: Raster, b: Raster, mask: Uint8Array): number {
  let n = 0;
  let sa = 0;
  let sb = 0;
  let saa = 0;
  let sbb = 0;
  let sab = 0;
  for (let p = 0; p < mask.length; p++) {
    if (!mask[p]) continue;
    const [u, v] = [luma(a, p), luma(b, p)];
    n++;
    sa += u;
    sb += v;
    saa += u * u;
    sbb += v * v;
    sab += u * v;
  }
  return (n * sab - sa * sb) / Math.sqrt((n * saa - sa * sa) * (n * sbb - sb * sb));
}
