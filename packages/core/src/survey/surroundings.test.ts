import { seededRandom } from '../random/random.js';
import type { Plane } from '../raster/plane.js';
import { AROUND, Surroundings } from './surroundings.js';

const random = seededRandom(3);
const plane = (width: number, height: number): Plane => ({
  width,
  height,
  values: Float32Array.from({ length: width * height }, () => random.between(0, 255)),
});

test('differences come to their mean over a square of blocks round a pixel, clipped to the plane', () => {
  const [width, height] = [75, 61];
  const [a, b] = [plane(width, height), plane(width, height)];
  const around = new Surroundings({ width, height });
  around.countDifferences(a, b);
  const means = around.means();
  for (const [x, y] of [
    [0, 0],
    [37, 30],
    [74, 60],
    [3, 58],
  ] as const) {
    const [left, top] = [Math.floor(x / 4) * 4 - 16, Math.floor(y / 4) * 4 - 16];
    let [sum, blocks] = [0, 0];
    for (let v = Math.max(0, top); v < Math.min(height, top + AROUND); v += 4)
      for (let u = Math.max(0, left); u < Math.min(width, left + AROUND); u += 4, blocks++) {
        let [part, pixels] = [0, 0];
        for (let q = v; q < Math.min(height, v + 4); q++)
          for (let p = u; p < Math.min(width, u + 4); p++, pixels++)
            part += Math.abs(a.values[q * width + p]! - b.values[q * width + p]!);
        sum += part / pixels;
      }
    expect(means(x, y)).toBeCloseTo(sum / blocks, 2);
  }
});

test('a straight line through a place takes one in so many of its pixels', () => {
  const around = new Surroundings({ width: 120, height: 120 });
  for (let x = 0; x < 120; x++) around.count(x, 60);
  const means = around.means();
  expect(means(60, 60)).toBeCloseTo(1 / AROUND, 5);
  expect(means(60, 100)).toBe(0);
});
