import type { Page } from '@playwright/test';
import { quantile } from './figures.js';

/** A frame of a screen at 60 Hz, ms. */
const FRAME = 1000 / 60;

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

/** Prints after how many frames of the screen a page's next picture came: 1 where none was missed. */
export function printFrames(what: string, ms: readonly number[], bar?: number): void {
  const show = (share: number): string => `${Math.round(quantile(ms, share) / FRAME)}`.padStart(4);
  const against = bar ? `   (bar: p95 ${bar})` : '';
  const missed = ms.filter((t) => t > 1.5 * FRAME).length;
  console.log(
    `${what.padEnd(46)} median ${show(0.5)}  p95 ${show(0.95)}  max ${show(1)} frames  late ${missed} of ${ms.length}${against}`,
  );
}
