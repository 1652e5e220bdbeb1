import type { Browser, Page } from '@playwright/test';
import { chromium } from '@playwright/test';
import config from '../playwright.config.js';
import { BenchPage } from '../e2e/bench-page.js';
import { RunningServer } from '../e2e/server.js';
import { largePicture } from './pictures.js';

export interface Opened {
  readonly page: Page;
  readonly bench: BenchPage;
  /** From choosing the file to a sharp first view, ms. */
  readonly openMs: number;
  close(): Promise<void>;
}

/** Starts the application in Chromium and opens a picture of so many megapixels on the bench. */
export async function openLarge(megapixels: number): Promise<Opened> {
  const file = await largePicture(megapixels);
  const server = await RunningServer.beginWarm();
  const browser: Browser = await chromium.launch(config.use!.launchOptions!);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(server.url);
  const job = page.getByRole('article', { name: 'Allotment behind the fence' });
  const chooser = page.waitForEvent('filechooser');
  await job.getByRole('button', { name: 'Add picture' }).click();
  const begin = performance.now();
  await (await chooser).setFiles(file);
  const height = Math.round(Math.sqrt((megapixels * 1e6) / 1.5));
  const bench = new BenchPage(page, { width: Math.round(height * 1.5), height });
  await bench.settled(0);
  await page.waitForLoadState('networkidle').catch(() => undefined);
  const openMs = performance.now() - begin - 500; // networkidle waits half a second of quiet
  return {
    page,
    bench,
    openMs,
    async close() {
      await browser.close();
      await server.dispose();
    },
  };
}
