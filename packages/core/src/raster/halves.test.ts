import { seededRandom } from '../random/random.js';
import {
  halveRows,
  halvesOf,
  layerOf,
  layersOf,
  readingOf,
  roomForHalves,
  stripsOf,
} from './halves.js';
import { layerAt } from './layers.js';
import type { Raster } from './raster.js';
import { createRaster } from './raster.js';

function made(width: number, height: number, channels: 1 | 2 | 3 | 4, depth: 'u8' | 'u16'): Raster {
  const raster = createRaster(width, height, channels, depth);
  const random = seededRandom(channels + width);
  const most = depth === 'u8' ? 255 : 65535;
  for (let i = 0; i < raster.data.length; i++) raster.data[i] = random.between(0, most);
  return raster;
}

const kinds = [
  [1, 'u8'],
  [2, 'u16'],
  [3, 'u8'],
  [3, 'u16'],
  [4, 'u8'],
] as const;

test.each(kinds)(
  'layers by way of the half are those taken straight from the samples, %d channels of %s',
  (channels, depth) => {
    const picture = made(75, 42, channels, depth);
    const halves = halvesOf(picture);
    for (const level of [0, 1, 2, 3]) {
      const [way, straight] = [layerOf(halves, level), layerAt(picture, level)];
      expect(way.colours).toHaveLength(straight.colours.length);
      [way.grey, ...way.colours].forEach((plane, k) => {
        const other = [straight.grey, ...straight.colours][k]!;
        expect([plane.width, plane.height]).toEqual([other.width, other.height]);
        const most = plane.values.reduce(
          (m, v, p) => Math.max(m, Math.abs(v - other.values[p]!)),
          0,
        );
        expect(most).toBeLessThan(1e-3);
      });
    }
  },
);

test.each([
  [161, 233],
  [61, 33],
  [3, 200],
])('halvings of %d by %d filled in strips are those filled at once', (width, height) => {
  const picture = made(width, height, 3, 'u8');
  const room = roomForHalves(picture);
  const strips = stripsOf(room, 4);
  expect(strips[0]![0]).toBe(0);
  expect(strips.at(-1)![1]).toBe(height >> 1);
  for (const [from, to] of strips.reverse()) halveRows(room, from, to);
  expect(room).toEqual(halvesOf(picture));
  room.layers.forEach((layer, k) => expect(layerOf(room, k + 1)).toBe(layer));
});

test.each([
  [1, 1],
  [1, 9],
  [9, 1],
])('a picture of %d by %d has a half', (width, height) => {
  const { layers } = halvesOf(made(width, height, 3, 'u8'));
  expect(layers).toHaveLength(1);
  const { grey } = layers[0]!;
  expect([grey.width, grey.height]).toEqual([Math.max(1, width >> 1), Math.max(1, height >> 1)]);
  for (const v of grey.values) expect(v).toBeGreaterThanOrEqual(0);
});

test('a reading tells the grey and the colours of a layer', () => {
  const halves = halvesOf(made(40, 30, 4, 'u16'));
  for (const level of [0, 1]) {
    const [reading, layer] = [readingOf(halves, level), layerOf(halves, level)];
    for (const p of [0, 17, 299]) {
      expect(reading.grey.values[p]).toBeCloseTo(layer.grey.values[p]!, 3);
      for (const c of [0, 1, 2]) expect(reading.colourOf!(p, c)).toBe(layer.colours[c]!.values[p]);
    }
  }
  expect(readingOf(halvesOf(made(40, 30, 2, 'u8')), 0).colourOf).toBeNull();
});

test('layers go on by halves, and end before they are too small to tell anything', () => {
  const picture = made(100, 70, 3, 'u8');
  const halves = halvesOf(picture);
  const layers = layersOf(halves, 0, 6);
  expect(layers.map(({ grey }) => grey.width)).toEqual([100, 50, 25]);
  layers.forEach((layer, level) => expect(layer).toEqual(layerOf(halves, level)));
  expect(layersOf(halves, 1, 2).map(({ grey }) => grey.width)).toEqual([50, 25]);
});
