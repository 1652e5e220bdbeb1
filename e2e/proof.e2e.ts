import { expect, test } from '@playwright/test';
import { Actions } from './actions.js';
import { addPicture, BenchPage } from './bench-page.js';
import { photo, pixelsOf } from './pixels.js';
import { RunningServer } from './server.js';

const SIZE = { width: 800, height: 600 };

let server: RunningServer;
test.beforeAll(async () => {
  server = await RunningServer.begin();
});
test.afterAll(() => server.dispose());

test('proof finds what was copied within sight, leads to it, and one click takes another donor', async ({
  page,
}) => {
  await addPicture(
    page,
    server.url,
    'Carnival head, condition picture',
    photo('quay-print-light-crop16.png'),
  );
  const bench = new BenchPage(page, SIZE);
  await bench.settled(0);
  await bench.choose('Clone');
  await bench.choose('Rectangle');
  await page.keyboard.down('d');
  await bench.click(430, 330);
  await page.keyboard.up('d');
  const softness = page.getByRole('textbox', { name: 'Softness' });
  await softness.fill('0');
  await softness.press('Enter');
  await bench.drag([300, 200], [370, 260]);
  await bench.settled(1);

  await bench.press('Prove repairs');
  const proof = page.getByLabel('Proof', { exact: true });
  await expect(page.getByRole('button', { name: 'Prove again' })).toBeVisible({ timeout: 240_000 });
  const twice = proof.getByRole('button', { name: /^A Seen twice/ });
  await expect(twice).toBeVisible();
  await twice.click();
  // Both places are marked, and the repair's card is open.
  await expect(page.getByLabel('Mark of the tell').locator('rect')).toHaveCount(2);
  await expect(page.getByRole('heading', { name: /Clone A/ })).toBeVisible();

  await proof.getByRole('button', { name: /^Other donor: Seen twice/ }).click();
  await expect(page.getByRole('button', { name: 'Undo: Other donor' })).toBeVisible({
    timeout: 240_000,
  });
  // It is proved again by itself: what is listed then is of the picture as it is now.
  await page.waitForTimeout(500);
  await expect(proof.getByRole('button', { name: 'Prove again' })).toBeVisible({
    timeout: 240_000,
  });
  await expect(proof.getByText('Something changed since; prove again.')).toHaveCount(0);
  await expect(twice).toHaveCount(0);
  // The tell is gone because the donor is another one, and one undo brings both back.
  await page.getByRole('button', { name: 'Undo: Other donor' }).click();
  await expect(proof.getByText('Something changed since; prove again.')).toBeVisible();
  await bench.press('Prove again');
  await expect(twice).toBeVisible({ timeout: 240_000 });

  // What was measured is still there after a reload.
  await page.reload();
  await expect(twice).toBeVisible();
});

test('the sweep goes frame by frame, counts only what was seen, and is due again where something changed', async ({
  page,
}) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Carnival head.jpg' }).click();
  await page.getByRole('link', { name: 'Proof', exact: true }).click();
  const sweep = page.getByLabel('Sweep', { exact: true });
  const frame = (n: number, state: string) =>
    sweep.getByRole('button', { name: `Frame ${n}, ${state}` });
  await expect(sweep.getByText('0 of 8 seen')).toBeVisible();
  await sweep.getByRole('button', { name: 'Begin' }).click();
  const pass = sweep.getByRole('button', { name: 'Pass', exact: true });
  // A frame that just came up cannot be passed unseen.
  await expect(pass).toBeDisabled();
  await page.keyboard.press('Enter');
  await expect(frame(1, 'not looked at yet')).toBeVisible();
  await expect(pass).toBeEnabled();
  await page.keyboard.press('Enter');
  await expect(frame(1, 'passed')).toBeVisible();
  await expect(pass).toBeDisabled();
  await expect(pass).toBeEnabled();
  await page.keyboard.press('m');
  await expect(frame(2, 'marked')).toBeVisible();

  await page.reload();
  await expect(sweep.getByText('2 of 8 seen')).toBeVisible();
  await expect(frame(2, 'marked')).toBeVisible();
  await sweep.getByRole('button', { name: 'Go on' }).click();
  await expect(frame(3, 'not looked at yet')).toHaveAttribute('data-here', 'true');

  // The last change of this picture lies in frames further down: those passed above stay so.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(frame(1, 'passed')).toBeVisible();
  // The way to mend leads to the bench, close to the place.
  await sweep.getByRole('link', { name: 'Mend' }).click();
  await expect(page.getByRole('main').getByText('100 %', { exact: true })).toBeVisible();
});

test('before and after are compared in six ways, in register', async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Lane with wires.jpg' }).click();
  await page.getByRole('link', { name: 'Proof', exact: true }).click();
  const view = page.getByRole('application', { name: 'The picture, compared' });
  await expect(view).toHaveAttribute('data-complete', 'true', { timeout: 240_000 });
  const middle = async (): Promise<number> => {
    const path = test.info().outputPath('view.png');
    await view.locator('canvas').first().screenshot({ path });
    const { data } = await pixelsOf(path);
    let sum = 0;
    for (const v of data) sum += v;
    return sum / data.length;
  };
  /** Mean square of the step from a sample to the next pixel's. */
  const slopes = async (): Promise<number> => {
    await page.waitForTimeout(300);
    const path = test.info().outputPath('slopes.png');
    await view.locator('canvas').first().screenshot({ path });
    const { data, channels } = await pixelsOf(path);
    let sum = 0;
    for (let i = channels; i < data.length; i++) sum += (data[i]! - data[i - channels]!) ** 2;
    return sum / data.length;
  };
  const choose = async (name: string): Promise<void> => {
    await page.getByRole('radio', { name, exact: true }).click();
    await expect(view).toHaveAttribute('data-complete', 'true');
    await page.waitForTimeout(200);
  };
  const plain = await middle();
  await choose('Difference');
  // Only the repairs differ: nearly all of the picture is black.
  const difference = await middle();
  expect(difference).toBeLessThan(plain / 4);
  await choose('Side by side');
  await expect(view.getByText('As received')).toBeVisible();
  await expect(view.getByText('As repaired')).toBeVisible();
  await choose('Overlaid');
  expect(Math.abs((await middle()) - plain)).toBeLessThan(4);
  await choose('Flip');
  await page.keyboard.down('v');
  await expect(view.getByText('As received')).toBeVisible();
  await page.keyboard.up('v');
  await expect(view.getByText('As repaired')).toBeVisible();
  // At use: as large on screen as the print is to the eye.
  await page.getByRole('button', { name: /^At use/ }).click();
  await expect(page.getByText(/As a print of \d+ mm looks from 30 cm/)).toBeVisible();
  // As eyes see it: much enlarged, what is finer than they resolve from there is gone.
  await page.getByRole('button', { name: '1:1' }).click();
  await view.hover();
  for (let k = 0; k < 4; k++) await page.mouse.wheel(0, -300);
  const sharp = await slopes();
  await page.getByRole('button', { name: 'As the eye sees it' }).click();
  await expect(page.getByText(/Blurred as eyes blur a print of \d+ mm from 30 cm/)).toBeVisible();
  expect(await slopes()).toBeLessThan(0.8 * sharp);
});

test('the treatment report can be had from the export window', async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Carnival head.jpg' }).click();
  await new BenchPage(page, { width: 1200, height: 1500 }).settled();
  await page.getByRole('button', { name: 'Export' }).click();
  const coming = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Treatment report (PDF)' }).click();
  const stream = await (await coming).createReadStream();
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  expect(Buffer.concat(parts).subarray(0, 5).toString()).toBe('%PDF-');
});

test('the damaged print comes to an empty proof and a report, going by the labels', async ({
  page,
}, info) => {
  const actions = new Actions();
  const { act } = actions;
  const bench = new BenchPage(page, { width: 3000, height: 2100 });
  const proof = page.getByLabel('Proof', { exact: true });
  await page.goto(server.url);
  await act(page.getByRole('link', { name: 'Open Regatta print.jpg' }).click());
  await bench.settled();
  await act(bench.press('Survey'));
  await page.getByRole('button', { name: 'Survey again' }).waitFor({ timeout: 240_000 });
  const mendAll = page.getByRole('button', { name: /^Mend all (?!as)/ });
  while (await mendAll.count()) {
    const name = (await mendAll.first().getAttribute('aria-label')) ?? '';
    await act(mendAll.first().click());
    await expect(page.getByRole('button', { name, exact: true })).toHaveCount(0);
    await bench.settled();
  }
  await act(page.getByRole('link', { name: 'Proof', exact: true }).click());
  await act(bench.press('Prove repairs'));
  const told = async (): Promise<number> => {
    await expect(proof.getByRole('button', { name: 'Prove again' })).toBeEnabled({
      timeout: 240_000,
    });
    await expect(proof.getByRole('status')).toHaveCount(0);
    return Number(/(\d+) tell/.exec(await proof.innerText())![1]);
  };
  const first = await told();
  expect(first).toBeGreaterThan(0);
  // Mended as advised for as long as that helps; what did not is undone.
  let left = first;
  for (let round = 0; round < 3 && left > 1; round++) {
    const before = left;
    await act(proof.getByRole('button', { name: 'Mend all as advised' }).click());
    const undo = page.getByRole('button', { name: /^Undo: Mend/ });
    await expect(undo).toBeVisible();
    left = await told();
    if (left < before) continue;
    await act(undo.click());
    await expect(proof.getByText(/Something changed since/)).toBeVisible();
    await act(proof.getByRole('button', { name: 'Prove again' }).click());
    left = await told();
    break;
  }
  expect(left).toBeLessThan(0.5 * first);
  // What is left was looked at, and is let stand.
  for (; left > 0; left--) {
    await act(
      proof
        .getByRole('button', { name: /^Let stand/ })
        .first()
        .click(),
    );
    await expect(proof.getByText(new RegExp(`^${left - 1} tells?$`))).toBeVisible();
  }
  await expect(proof.getByText(/gives these repairs away/)).toBeVisible();
  info.annotations.push({ type: 'actions', description: String(actions.count) });

  await page.reload();
  await expect(proof.getByText(/gives these repairs away/)).toBeVisible();
  await bench.press('Export');
  const link = page.getByRole('link', { name: 'Treatment report (JSON)' });
  const report = (await (
    await page.request.get(new URL((await link.getAttribute('href'))!, server.url).href)
  ).json()) as { proof: { open: number; standing: number }; layers: unknown[] };
  expect(report.proof.open).toBe(0);
  expect(report.layers.length).toBeGreaterThan(2);
});
