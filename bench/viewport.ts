import { openLarge } from './browser.js';
import { quantile } from './figures.js';
import { printFrames, watchFrames } from './frames.js';

/** Opening, panning and zooming a 24-megapixel picture in headless Chromium. */
export async function benchViewport(): Promise<void> {
  const { page, bench, openMs, close } = await openLarge(24);
  try {
    console.log(
      `24 MP: file chosen to sharp first view ${openMs.toFixed(0)} ms, upload included (bar: 3000 ms)`,
    );
    const middle = (await bench.table.boundingBox())!;
    const x = middle.x + middle.width / 2;
    const y = middle.y + middle.height / 2;
    await page.mouse.move(x, y);
    const take = await watchFrames(page);
    const idle = await page.waitForTimeout(1000).then(take);
    await page.mouse.down({ button: 'right' });
    for (let k = 0; k < 120; k++)
      await page.mouse.move(x + 220 * Math.sin(k / 9), y + 120 * Math.cos(k / 7));
    await page.mouse.up({ button: 'right' });
    const pan = await take();
    for (let k = 0; k < 100; k++) await page.mouse.wheel(0, k % 50 < 25 ? -60 : 60);
    const zoom = await take();
    printFrames('next picture, nothing moving', idle.slice(5));
    printFrames('next picture while panning', pan, 1);
    printFrames('next picture while zooming', zoom, 1);
    const ratio = quantile(pan, 0.95) / quantile(idle.slice(5), 0.95);
    console.log(`panning p95 over idle p95: ${ratio.toFixed(2)}`);
  } finally {
    await close();
  }
}
