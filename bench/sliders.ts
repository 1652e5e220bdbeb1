import { openLarge } from './browser.js';
import { printTimes } from './figures.js';

const MOVES = 100;

/** From the pointer on a tone dial to the picture painted anew, in the application, 14 megapixels. */
export async function benchSliders(): Promise<void> {
  const { page, close } = await openLarge(14);
  try {
    await page.getByRole('link', { name: 'Finish', exact: true }).click();
    await page.getByTestId('finish-picture').waitFor();
    await page.waitForTimeout(2000);
    await page.evaluate('globalThis.__name = (f) => f');
    await page.evaluate(() => {
      const times: { pressed: number; painted: number[] } = { pressed: 0, painted: [] };
      Object.assign(window, { times });
      const put = CanvasRenderingContext2D.prototype.putImageData;
      CanvasRenderingContext2D.prototype.putImageData = function (
        this: CanvasRenderingContext2D,
        ...args: Parameters<typeof put>
      ) {
        put.apply(this, args);
        if (times.pressed) times.painted.push(performance.now() - times.pressed);
        times.pressed = 0;
      } as typeof put;
      addEventListener('pointermove', () => (times.pressed = performance.now()), true);
    });
    for (const [step, dial, bar, zoom] of [
      [/^Exposure/, 'Exposure', 33, 'Fit'],
      [/^Sharpen/, 'Amount', 150, '1 : 1'],
    ] as const) {
      await page.getByRole('radio', { name: zoom, exact: true }).click();
      await page.waitForTimeout(1000);
      await page.getByRole('button', { name: 'Add step' }).click();
      await page.getByRole('menuitem', { name: step }).click();
      const track = page.getByRole('group', { name: `${dial} slider` });
      await track.scrollIntoViewIfNeeded();
      const box = (await track.boundingBox())!;
      const at = (share: number) => [box.x + share * box.width, box.y + box.height / 2] as const;
      await page.mouse.move(...at(0.5));
      await page.mouse.down();
      await page.waitForTimeout(1500);
      await page.evaluate('times.painted.splice(0)');
      for (let k = 0; k < MOVES + 4; k++) {
        await page.mouse.move(...at(0.5 + (0.4 * k) / MOVES));
        await page.waitForTimeout(300);
      }
      await page.mouse.up();
      const painted = await page.evaluate(() => {
        const { times } = window as unknown as { times: { painted: number[] } };
        return times.painted.splice(0);
      });
      printTimes(`${dial}, ${zoom}: dial to painted picture`, painted.slice(4), bar);
    }
  } finally {
    await close();
  }
}
