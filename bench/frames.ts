import type { Page } from '@playwright/test';

/** Notes the time between a page's frames from now on. @returns what takes those noted since it was last asked, ms */
export async function watchFrames(page: Page): Promise<() => Promise<number[]>> {
  // The bundler's helper for function names is not there in the page.
  await page.evaluate('globalThis.__name = (f) => f');
  await page.evaluate(() => {
    const frames: number[] = [];
    Object.assign(window, { frames });
    let last = performance.now();
    const tick = (now: number): void => {
      frames.push(now - last);
      last = now;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  return () =>
    page.evaluate(() => {
      const { frames } = window as unknown as { frames: number[] };
      return frames.splice(0);
    });
}
