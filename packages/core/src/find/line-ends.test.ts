import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import type { Point } from '../shape/site.js';
import { toItsEnds } from './line-ends.js';
import { fitLineRun } from './line-run.js';

const [width, height] = [500, 240];
const [FIRST, LAST] = [60, 430];
/** A slow curve from x = 60 to 430, thicker to the right. */
const heightAt = (x: number): number => 120 + 30 * Math.sin(x / 110);
const thickness = (x: number): number => 3 + (4 * (x - FIRST)) / (LAST - FIRST);

function scene(tone: number): Raster {
  const raster = createRaster(width, height, 3);
  const random = seededRandom(9);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const slope = Math.cos(x / 110) * (30 / 110);
      const far = Math.abs(y - heightAt(x)) / Math.hypot(1, slope);
      const on =
        x >= FIRST && x <= LAST ? Math.max(0, Math.min(1, thickness(x) / 2 + 0.5 - far)) : 0;
      const v = 150 + random.between(-6, 6) + on * (tone - 150);
      raster.data.set([v, v, v], 3 * p);
    }
  return raster;
}

const between = (from: number, to: number): [Point, Point] => [
  [from, heightAt(from)],
  [to, heightAt(to)],
];

describe.each([
  ['dark', 40],
  ['bright', 245],
])('a %s line', (_, tone) => {
  const picture = scene(tone);
  const known = fitLineRun(picture, ...between(200, 300))!;

  test('is followed to both ends, and stays on it', () => {
    const whole = toItsEnds(picture, known);
    const [first, last] = [whole.points[0]!, whole.points.at(-1)!];
    expect(Math.abs(first[0] - FIRST)).toBeLessThan(12);
    expect(Math.abs(last[0] - LAST)).toBeLessThan(12);
    for (const [x, y] of whole.points) expect(Math.abs(y - heightAt(x))).toBeLessThan(1);
    expect(whole.bends).toHaveLength(whole.points.length - 1);
    expect(whole.widths).toHaveLength(whole.points.length);
  });

  test('is told with the width it has at each place', () => {
    const { points, widths } = toItsEnds(picture, known);
    const at = (x: number): number =>
      widths[
        points.reduce(
          (best, p, k) => (Math.abs(p[0] - x) < Math.abs(points[best]![0] - x) ? k : best),
          0,
        )
      ]!;
    expect(at(LAST - 20)).toBeGreaterThan(at(FIRST + 20) + 1);
    expect(at(LAST - 20)).toBeLessThan(11);
  });
});

test('a line that was drawn whole goes no further', () => {
  const picture = scene(40);
  const whole = fitLineRun(picture, ...between(FIRST + 2, LAST - 2))!;
  const again = toItsEnds(picture, whole);
  expect(Math.abs(again.points[0]![0] - FIRST)).toBeLessThan(12);
  expect(Math.abs(again.points.at(-1)![0] - LAST)).toBeLessThan(12);
});
