import { openLarge } from './browser.js';
import { printFrames, watchFrames } from './frames.js';

/** Frames while what a clone is about to copy is shown under the pointer, and along a stroke being drawn, in 14 megapixels. */
export async function benchCopyPreview(): Promise<void> {
  const { page, bench, close } = await openLarge(14);
  try {
    await bench.choose('Stroke');
    await bench.choose('Clone');
    await page.keyboard.down('d');
    await bench.click(2300, 500);
    await page.keyboard.up('d');
    await bench.settled();
    const take = await watchFrames(page);
    const { x, y } = await bench.at(1500, 1200);
    const wander = async (): Promise<void> => {
      for (let k = 0; k < 120; k++)
        await page.mouse.move(x + 120 * Math.sin(k / 9), y + 80 * Math.cos(k / 7));
    };
    await page.mouse.move(x, y);
    const idle = await page.waitForTimeout(1000).then(take);
    await wander();
    const under = await take();
    await page.mouse.down();
    await wander();
    const along = await take();
    await page.mouse.up();
    printFrames('next picture, nothing moving', idle.slice(5));
    printFrames('next picture, clone shown under the pointer', under, 1);
    printFrames('next picture, clone shown along a stroke', along, 1);
  } finally {
    await close();
  }
}
