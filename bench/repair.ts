import {
  coverageOf,
  frameOf,
  laplacian,
  relaxPlainly,
  searchWindow,
  solveSystem,
} from '@tersum/core';
import type { Method, Repair } from '@tersum/document';
import { plainFill, replay, searchDonorMap, siteMask } from '@tersum/document';
import { donorQuality, donorSpeed, edgeQuality } from './quality.js';
import { openLarge } from './browser.js';
import { benchCopyPreview } from './copy-preview.js';
import { printTimes } from './figures.js';
import { graftQuality, graftSpeed } from './graft.js';
import { demoPicture } from './pictures.js';

const ROUNDS = 20;

/** Strokes in the application, the graft's solver against relaxation, and the fill's search. */
export async function benchRepair(): Promise<void> {
  solver();
  await engine();
  await graftSpeed();
  await graftQuality();
  await donorSpeed();
  await edgeQuality();
  await donorQuality();
  await benchCopyPreview();
  await strokes();
}

/** 512x512 site, to the same residual, in one run. */
function solver(): void {
  const side = 514;
  const mask = new Uint8Array(side * side);
  for (let y = 1; y < side - 1; y++) mask.fill(1, y * side + 1, y * side + side - 1);
  const system = laplacian(mask, side, side);
  const b = Float64Array.from(system.own, (own, i) => own * (((i * 7919) % 255) - 90));
  const lanes = new Float64Array(4 * b.length).map((_, i) => b[i >> 2]!);
  solveSystem(system, lanes, { tolerance: 1e-4 });
  let begin = performance.now();
  const fast = solveSystem(system, lanes, { tolerance: 1e-4 });
  const ours = performance.now() - begin;
  begin = performance.now();
  const budget = ours * 40;
  let reached = 1;
  const sweeps = relaxPlainly(system, b, new Float64Array(system.cells), (residual) => {
    reached = residual;
    return residual <= fast.residual || performance.now() - begin > budget;
  });
  const theirs = performance.now() - begin;
  const more = reached > fast.residual ? ' (stopped there, not yet at our residual)' : '';
  console.log(
    `graft solver, 512x512: ${ours.toFixed(0)} ms to ${fast.residual.toExponential(1)}; Gauss-Seidel ${theirs.toFixed(0)} ms, ${sweeps} sweeps to ${reached.toExponential(1)}${more}: ${(theirs / ours).toFixed(0)} times faster (bar: 20)`,
  );
}

function repairOf(method: Method, site: Repair['site'], width: number): Repair {
  return {
    id: crypto.randomUUID(),
    layerId: crypto.randomUUID(),
    position: 0,
    enabled: true,
    site,
    width,
    softness: 0,
    flow: 1,
    strength: 1,
    method,
    reason: '',
    createdAt: new Date().toISOString(),
  };
}

/** The search alone, on one thread. */
async function engine(): Promise<void> {
  const picture = await demoPicture('mesh-fence.jpg');
  const sites: readonly (readonly [string, Repair['site'], number])[] = [
    ['dab of 60 px', { kind: 'dab', at: [900, 640] }, 60],
    [
      'stroke of 300 x 40 px',
      {
        kind: 'stroke',
        points: [
          [700, 500],
          [960, 650],
        ],
      },
      40,
    ],
    [
      'rectangle of 200 x 150 px',
      { kind: 'rectangle', x: 600, y: 500, width: 200, height: 150 },
      10,
    ],
  ];
  for (const [name, site, width] of sites) {
    const fill: Method = plainFill(crypto.randomUUID());
    const repair = repairOf(fill, site, width);
    searchDonorMap({ repair, original: picture, below: [], others: [], later: [], damage: [] });
    const begin = performance.now();
    const map = searchDonorMap({
      repair,
      original: picture,
      below: [],
      others: [],
      later: [],
      damage: [],
    });
    const ms = performance.now() - begin;
    const pixels = map.dx.reduce((n, v) => n + (v > -32768 ? 1 : 0), 0);
    const frame = frameOf(picture);
    const { rect } = coverageOf(site, repair, frame);
    const window = searchWindow(rect, frame, (part) => siteMask([repair], part, frame));
    const area = (window.width * window.height) / 1e6;
    const after = performance.now();
    replay({ repair, map, original: picture, below: [], elsewhere: {} });
    console.log(
      `fill, ${name}: search ${ms.toFixed(0)} ms = ${(ms / pixels).toFixed(2)} s a thousand site px = ${(ms / 1000 / area).toFixed(2)} s a megapixel of search area (${area.toFixed(2)} MP); replay ${(performance.now() - after).toFixed(0)} ms`,
    );
  }
}

/** Pointer up to repaired pixels on screen, 300 px stroke of 40 px width in 14 megapixels. */
async function strokes(): Promise<void> {
  const { page, bench, close } = await openLarge(14);
  try {
    await bench.choose('Stroke');
    // The bundler's helper for function names is not there in the page.
    await page.evaluate('globalThis.__name = (f) => f');
    await page.evaluate(watchPixels);
    for (const [method, limit] of [
      ['Clone', 150],
      ['Graft', 150],
      ['Fill', 1000],
    ] as const) {
      await bench.choose(method);
      if (method === 'Clone') {
        await page.keyboard.down('d');
        await bench.click(2300, 500);
        await page.keyboard.up('d');
      }
      const width = page.getByRole('textbox', { name: 'Width' });
      await width.fill('40');
      await width.press('Enter');
      const times: number[] = [];
      const rounds = method === 'Fill' ? ROUNDS / 2 : ROUNDS;
      for (let k = -2; k < rounds; k++) {
        const x = 500 + ((k + 2) % 6) * 350;
        const y =
          600 +
          Math.floor((k + 2) / 6) * 260 +
          (method === 'Graft' ? 130 : 0) +
          (method === 'Fill' ? 1000 : 0);
        await bench.drag([x, y], [x + 280, y + 108]);
        const ms = await page.evaluate(() =>
          (window as unknown as { pixelsShown(): Promise<number> }).pixelsShown(),
        );
        if (k >= 0) times.push(ms);
        await bench.settled();
      }
      printTimes(`${method}: pointer up to pixels on screen`, times, limit);
    }
  } finally {
    await close();
  }
}

/**
 * Runs in the page. Notes the time of each pointer up, and of the end of the drawing that showed everything the
 * server named for it: the table marks itself as settled then.
 */
function watchPixels(): void {
  const canvas = document.querySelector('canvas[data-settled]')!;
  let up = 0;
  let shown: (ms: number) => void = () => undefined;
  let coming: Promise<number> = Promise.resolve(0);
  addEventListener(
    'pointerup',
    () => {
      up = performance.now();
      coming = new Promise((resolve) => (shown = resolve));
    },
    true,
  );
  let busy = false;
  new MutationObserver(() => {
    const settled = canvas.getAttribute('data-settled') === 'true';
    if (settled && busy) shown(performance.now() - up);
    busy = !settled;
  }).observe(canvas, { attributes: true, attributeFilter: ['data-settled'] });
  Object.assign(window, { pixelsShown: () => coming });
}
