import type { Page } from '@playwright/test';
import type { BenchPage } from '../e2e/bench-page.js';
import { openLarge } from './browser.js';
import { printTimes } from './figures.js';

/** Widths of the sites, px, the milliseconds in which they should stand filled, and how many are made. */
const SITES = [
  { px: 60, bar: 300, rounds: 12 },
  { px: 400, bar: 1500, rounds: 6 },
] as const;
const PREVIEW = 300;

/** Round sites filled in the application in 14 megapixels: pointer up to the finished filling, and to its first preview. */
export async function benchFillInApp(): Promise<void> {
  const { page, bench, close } = await openLarge(14);
  try {
    await bench.choose('Dab');
    await bench.choose('Fill');
    await page.evaluate('globalThis.__name = (f) => f');
    await page.evaluate(watchFilling);
    for (const { px, bar, rounds } of SITES) {
      const times = await filled(page, bench, px, rounds);
      printTimes(
        `site of ${px} px: filled`,
        times.map((t) => t.filled),
        bar,
      );
      const previews = times.flatMap((t) => t.preview ?? []);
      if (previews.length) printTimes(`site of ${px} px: first preview`, previews, PREVIEW);
    }
  } finally {
    await close();
  }
}

interface Shown {
  readonly filled: number;
  /** Null where the filling stood before any preview. */
  readonly preview: number | null;
}

async function filled(page: Page, bench: BenchPage, px: number, rounds: number): Promise<Shown[]> {
  const width = page.getByRole('textbox', { name: 'Width' });
  await width.fill(String(px));
  await width.press('Enter');
  const times: Shown[] = [];
  for (let k = -2; k < rounds; k++) {
    const [column, row] = [(k + 2) % 5, Math.floor((k + 2) / 5)];
    await bench.click(600 + column * 2 * 450, 500 + (row + (px > 100 ? 1.2 : 0)) * 900);
    const shown = await page.evaluate(() =>
      (window as unknown as { fillingShown(): Promise<Shown> }).fillingShown(),
    );
    if (k >= 0) times.push(shown);
    await bench.settled();
  }
  return times;
}

/** Runs in the page: notes when the table is settled after each pointer up, and when it first showed a rough filling. */
function watchFilling(): void {
  const canvas = document.querySelector('canvas[data-settled]')!;
  let up = 0;
  let preview: number | null = null;
  let shown: (s: Shown) => void = () => undefined;
  let coming: Promise<Shown> = Promise.resolve({ filled: 0, preview: null });
  addEventListener(
    'pointerup',
    () => {
      up = performance.now();
      preview = null;
      coming = new Promise((resolve) => (shown = resolve));
    },
    true,
  );
  let busy = false;
  new MutationObserver(() => {
    if (canvas.getAttribute('data-rough') === 'true') preview ??= performance.now() - up;
    const settled = canvas.getAttribute('data-settled') === 'true';
    if (settled && busy) shown({ filled: performance.now() - up, preview });
    busy = !settled;
  }).observe(canvas, { attributes: true, attributeFilter: ['data-settled', 'data-rough'] });
  Object.assign(window, { fillingShown: () => coming });
}
