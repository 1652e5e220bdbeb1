import { createRaster } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import { farnessAt } from './farness.js';
import { mannerFor } from './manner.js';
import { searchFill } from './search.js';

const size = { width: 400, height: 300 };
const hole = { depth: 40.7, isOpen: true, unlike: 8_000_000 };

test('beyond the depth of a hole every px costs, more where the hole is open, as much in all on every level', () => {
  const manner = mannerFor(40);
  const open = farnessAt(manner, hole, size, 0);
  expect(open).toEqual({
    free: 40,
    rate: Math.round((manner.far.open * hole.unlike) / manner.reach),
  });
  const within = farnessAt(manner, { ...hole, isOpen: false }, size, 0);
  expect(within.rate).toBeGreaterThan(0);
  expect(within.rate).toBeLessThan(open.rate);
  const half = farnessAt(manner, hole, size, 1);
  expect(half.free).toBe(20);
  expect(half.rate / open.rate).toBeCloseTo(2, 1);
});

test('where all is alike far costs as good as nothing', () => {
  expect(farnessAt(mannerFor(40), { ...hole, unlike: 900 }, size, 0).rate).toBeLessThan(1);
});

test('the farthest match of the greatest difference is told within 32 bits', () => {
  const { rate } = farnessAt(mannerFor(17), { ...hole, unlike: 49 * 4 * 1020 ** 2 }, size, 9);
  expect(rate * (size.width + size.height) + 49 * 4 * 1020 ** 2).toBeLessThan(2 ** 31);
});

test('thin damage has its matches wherever they lie: it is searched near by alone', () => {
  expect(farnessAt(mannerFor(6), hole, size, 0).rate).toBe(0);
});

test('of two places that are alike the near one is copied', () => {
  // Stripes that are all the same: wherever they are copied from fits as well.
  const [width, height] = [720, 200];
  const picture = createRaster(width, height, 1);
  for (let p = 0; p < width * height; p++) picture.data[p] = (p % width) % 12 < 6 ? 90 : 160;
  const hole = Uint8Array.from({ length: width * height }, (_, p) => (p % width < 60 ? 1 : 0));
  const nothing = new Uint8Array(hole.length);
  const { rect, dx } = searchFill(picture, frameOf(picture), hole, nothing);
  let sum = 0;
  dx.forEach((d, i) => (sum += (i % rect.width) + d));
  // Were all as good, they would come from wherever they were first tried, 229 px from the left in the mean.
  expect(sum / dx.length).toBeGreaterThan(60);
  expect(sum / dx.length).toBeLessThan(130);
});
