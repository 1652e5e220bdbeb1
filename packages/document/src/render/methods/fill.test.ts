import type { DonorMap, Raster } from '@tersum/core';
import { createRaster, GRAIN_RING, seededRandom } from '@tersum/core';
import { plainFill } from '../../schema/fill.js';
import type { Repair } from '../../schema/repair.js';
import { readRects, replay } from '../replay.js';

const [width, height] = [230, 170];

/** Grainy ground on the left, smooth ground on the right. */
function picture(): Raster {
  const made = createRaster(width, height, 3);
  const random = seededRandom(9);
  for (let p = 0; p < width * height; p++) {
    const grain = p % width < 140 ? random.between(-9, 9) : 0;
    made.data.fill(120 + grain, 3 * p, 3 * p + 3);
  }
  return made;
}

const original = picture();
const frame = { x: 0, y: 0, width, height };
const rect = { x: 64, y: 64, width: 42, height: 42 };
/** Everything copied from the smooth ground, 120 px to the right. */
const map: DonorMap = {
  rect,
  dx: new Int16Array(rect.width * rect.height).fill(120),
  dy: new Int16Array(rect.width * rect.height),
  confidence: new Uint8Array(rect.width * rect.height).fill(255),
};
const repair = (grain: number, seed = 1): Repair => ({
  id: crypto.randomUUID(),
  layerId: crypto.randomUUID(),
  position: 0,
  enabled: true,
  site: { kind: 'dab', at: [85, 85] },
  width: 40,
  softness: 0,
  flow: 1,
  strength: 1,
  method: { ...plainFill(crypto.randomUUID(), seed), grain },
  reason: '',
  createdAt: '2026-11-01T00:00:00.000Z',
});
const run = (record: Repair) => replay({ repair: record, map, original, below: [], elsewhere: {} });

/** Mean size of the difference of neighbours inside a patch: grain. */
function roughness({ samples, rect: { width: w, height: h } }: ReturnType<typeof run>): number {
  let [sum, n] = [0, 0];
  for (let y = 8; y < h - 8; y++)
    for (let x = 8; x < w - 8; x++, n++) {
      const i = 3 * (y * w + x);
      sum += Math.abs(samples.data[i]! - samples.data[i + 3]!);
    }
  return sum / n;
}

test('a fill from smooth ground is given the grain of what it lies in, as much as is wished', () => {
  const [without, half, all] = [0, 0.5, 1].map((grain) => roughness(run(repair(grain))));
  expect(without!).toBeLessThan(1);
  expect(half!).toBeGreaterThan(2);
  expect(all!).toBeGreaterThan(1.6 * half!);
  // Neighbours of even noise of -9..9 differ by 6.3 in the mean.
  expect(all!).toBeGreaterThan(4.5);
  expect(all!).toBeLessThan(8);
});

test('the same record gives the same bytes, another seed others, and nothing is written outside of the site', () => {
  const [one, again, other] = [run(repair(1)), run(repair(1)), run(repair(1, 2))];
  expect(again.digest).toBe(one.digest);
  expect(other.digest).not.toBe(one.digest);
  expect(one.mask).toEqual(run(repair(0)).mask);
});

test('what grain is told by is read: the ring round the site is, once grain is asked for', () => {
  const widest = (grain: number) =>
    Math.min(...readRects(repair(grain), map, frame).map(({ x }) => x));
  expect(widest(1)).toBe(rect.x - GRAIN_RING);
  expect(widest(0)).toBeGreaterThan(widest(1));
});
