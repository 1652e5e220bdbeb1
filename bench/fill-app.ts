import type { Page } from '@playwright/test';
import type { BenchPage } from '../e2e/bench-page.js';
import { openLarge } from './browser.js';
import { printTimes } from './figures.js';

/** Widths of the sites, px, the milliseconds in which they should stand filled, how many are made, and where. */
const SITES = [
  { px: 60, bar: 300, rounds: 30, columns: 8, apart: [440, 300], top: 400 },
  { px: 400, bar: 1500, rounds: 6, columns: 4, apart: [900, 900], top: 1900 },
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
    for (const site of SITES) {
      const { px, bar } = site;
      const times = await filled(page, bench, site);
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

async function filled(
  page: Page,
  bench: BenchPage,
  { px, rounds, columns, apart, top }: (typeof SITES)[number],
): Promise<Shown[]> {
  const width = page.getByRole('textbox', { name: 'Width' });
  await width.fill(String(px));
  await width.press('Enter');
  const times: Shown[] = [];
  for (let k = -2; k < rounds; k++) {
    const [column, row] = [(k + 2) % columns, Math.floor((k + 2) / columns)];
    await bench.click(600 + column * apart[0], top + row * apart[1]);
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
