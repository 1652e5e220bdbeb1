import type { Raster } from '@tersum/core';
import { createRaster, seededRandom } from '@tersum/core';
import { testId } from '../render/test-picture.js';
import { addedRecord } from './added.js';

const [W, H] = [240, 160];
const id = testId(4, 1);

/** Colours told by place, with a little noise. */
function drawn(at: (x: number, y: number) => readonly [number, number, number]): Raster {
  const random = seededRandom(9);
  const picture = createRaster(W, H, 3);
  for (let y = 0, i = 0; y < H; y++)
    for (let x = 0; x < W; x++)
      for (const v of at(x, y)) picture.data[i++] = Math.round(v + 3 * (random.unit() - 0.5));
  return picture;
}
const grey = (v: number) => [v, v, v] as const;

test('a round thing that stands out is a speck, grown to its outline', () => {
  const picture = drawn((x, y) => grey((x - 90) ** 2 + (y - 70) ** 2 < 36 ? 30 : 150));
  const found = addedRecord(picture, [90, 70], id)!;
  expect(found).toMatchObject({ id, kind: 'specks', by: 'hand' });
  expect(found.size).toBeGreaterThan(9);
  expect(found.size).toBeLessThan(16);
  const [points] = found.outlines as [[number, number][]];
  for (const [x, y] of points) expect(Math.hypot(x - 90, y - 70)).toBeLessThan(13);
  expect(found.advice.reason.length).toBeGreaterThan(5);
});

test('a long thin thing is a line', () => {
  const picture = drawn((x, y) => grey(Math.abs(y - 80) < 2 && x > 40 && x < 200 ? 220 : 90));
  const found = addedRecord(picture, [120, 80], id)!;
  expect(found.kind).toBe('lines');
  expect(found.extent).toBeGreaterThan(120);
  expect(found.size).toBeLessThan(8);
});

test('what is brighter than its ground and what is darker are told apart', () => {
  const spot = (v: number) => drawn((x, y) => grey(Math.hypot(x - 60, y - 60) < 5 ? v : 128));
  expect(addedRecord(spot(240), [60, 60], id)!.polarity).toBe(1);
  expect(addedRecord(spot(20), [60, 60], id)!.polarity).toBe(-1);
});

test('a place outside the picture is nothing', () => {
  expect(
    addedRecord(
      drawn(() => grey(100)),
      [-900, 40],
      id,
    ),
  ).toBeNull();
});
