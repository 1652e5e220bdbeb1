import { availableParallelism } from 'node:os';
import { sharedRaster } from '@tersum/codec';
import { crop, frameOf, seededRandom } from '@tersum/core';
import { proofBands, proofNames, sealPatch } from '@tersum/document';
import { WorkPool } from '../packages/server/src/pool/pool.js';
import type { Raster } from '@tersum/core';
import type { Patch } from '@tersum/document';
import { demoPicture } from './pictures.js';

const REPAIRS = 500;
/** px */
const RADIUS = { least: 6, most: 30 } as const;
/** Codes by which a repair is off its ground. */
const OFF = 3;
const THREADS = 2;

/** The server's own work on the proof of 14 megapixels with 500 repairs, and of one of them once it changed. */
export async function benchProofSpeed(): Promise<void> {
  const picture = tiled(await demoPicture('quay-print-truth.jpg'), 4800, 3000);
  const patches = repairsOn(picture);
  const pool = new WorkPool(new URL('../dist/server/worker.js', import.meta.url), true);
  const watch = { signal: new AbortController().signal };
  const told = (due: readonly number[]): Promise<unknown> =>
    pool.search<'proof'>({ kind: 'proof', original: picture, patches, due }, watch);
  const all = patches.map((_, k) => k);
  await Promise.all([told([0, 1, 2]), told([3, 4, 5])]);
  const begin = performance.now();
  proofNames(patches, 'picture', frameOf(picture));
  const named = performance.now();
  await Promise.all([
    pool.run<'pulls'>({ kind: 'pulls', original: picture, patches }),
    ...proofBands(patches, all, THREADS).map(told),
  ]);
  const end = performance.now();
  const single: number[] = [];
  for (const k of [3, 250, 470]) {
    const start = performance.now();
    await told([k]);
    single.push(performance.now() - start);
  }
  await pool.close();
  console.log(
    `${REPAIRS} repairs in ${((picture.width * picture.height) / 1e6).toFixed(1)} MP, ${THREADS} of ` +
      `${availableParallelism()} threads: names ${seconds(named - begin)}, sites and whole ${seconds(end - named)} (bar, in all: 6 s); ` +
      `one again ${single.map(seconds).join(', ')} (bar: 0.3 s)`,
  );
}

const seconds = (ms: number): string => `${(ms / 1000).toFixed(2)} s`;

/** A picture of that size, laid out from copies that are further apart than can be seen together. */
function tiled(from: Raster, width: number, height: number): Raster {
  const to = sharedRaster(width, height, from.channels, 'u8');
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const p = ((y % from.height) * from.width + (x % from.width)) * from.channels;
      for (let c = 0; c < from.channels; c++) to.data[i++] = from.data[p + c]!;
    }
  return to;
}

function repairsOn(picture: Raster): Patch[] {
  const random = seededRandom(3);
  return Array.from({ length: REPAIRS }, () => {
    const r = random.between(RADIUS.least, RADIUS.most);
    const [cx, cy] = [
      random.between(2 * RADIUS.most, picture.width - 2 * RADIUS.most),
      random.between(2 * RADIUS.most, picture.height - 2 * RADIUS.most),
    ];
    const rect = { x: cx - r, y: cy - r, width: 2 * r + 1, height: 2 * r + 1 };
    const samples = crop(picture, rect);
    const mask = Uint8Array.from({ length: rect.width * rect.height }, (_, p) =>
      Math.hypot((p % rect.width) - r, Math.floor(p / rect.width) - r) <= r ? 1 : 0,
    );
    for (let i = 0; i < samples.data.length; i++)
      samples.data[i] = Math.min(255, samples.data[i]! + OFF);
    return sealPatch(rect, samples, mask);
  });
}
