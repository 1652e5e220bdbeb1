import type { Raster, ToneAct } from '@tersum/core';
import {
  boxMean,
  convertRaster,
  layerAt,
  plainStep,
  seededRandom,
  throughMap,
  toned,
} from '@tersum/core';
import { printTimes } from './figures.js';
import { demoPicture } from './pictures.js';

/** What a view shows, px. */
const VIEW = [720, 600] as const;
const MOVES = 40;

/** The tone stack on a view and on 14 megapixels at 16 bits. */
export async function benchPrint(): Promise<void> {
  const print = await demoPicture('quay-print-truth.jpg');
  const [w, h] = VIEW;
  const quad = [
    [0, 0],
    [print.width - 1, 0],
    [print.width - 1, print.height - 1],
    [0, print.height - 1],
  ] as const;
  const view = convertRaster(throughMap(print, quad, w, h), 3, 'u16');
  const acts: Record<string, (v: number) => ToneAct[]> = {
    'slider, point-wise (bar 33 ms)': (v) => [
      { kind: 'light', exposure: v, contrast: 0.1, warmth: 0, tint: 0 },
      { kind: 'saturation', amount: -0.2 },
    ],
    'slider, neighbourhood (bar 150 ms)': (v) => [
      { kind: 'sharpen', radius: 1.2, amount: 0.5 + v, limit: 0.06 },
    ],
  };
  for (const [name, act] of Object.entries(acts)) {
    const times: number[] = [];
    for (let k = 0; k < MOVES; k++) {
      const steps = act(k / MOVES).map((a) => plainStep(a));
      const start = performance.now();
      toned(view, steps);
      if (k >= 4) times.push(performance.now() - start);
    }
    printTimes(name, times);
  }
  const whole = noise(4583, 3055);
  const steps = Object.values(acts).flatMap((act) => act(0.3).map((a) => plainStep(a)));
  const start = performance.now();
  toned(whole, steps);
  const ms = performance.now() - start;
  const { grey } = layerAt(whole, 0);
  const begin = performance.now();
  boxMean(grey, 2);
  const plain = performance.now() - begin;
  console.log(
    `14 MP, 16 bits, three steps: ${(ms / 1000).toFixed(1)} s (bar: 4 s), ${(ms / plain).toFixed(0)} times a 5 x 5 mean`,
  );
  const same = toned(view, []);
  const equal = same.data.every((v, i) => v === view.data[i]);
  console.log(`no step: ${equal ? 'identical samples' : 'samples differ'}`);
}

function noise(width: number, height: number): Raster {
  const random = seededRandom(2);
  const data = new Uint16Array(width * height * 3);
  for (let i = 0; i < data.length; i++) data[i] = 20_000 + (random.next() >>> 17);
  return { width, height, channels: 3, data };
}
