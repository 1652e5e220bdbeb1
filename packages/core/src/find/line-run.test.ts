import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { nearness } from '../shape/nearness.js';
import { pathOf } from '../shape/path.js';
import type { Point } from '../shape/site.js';
import { fitLineRun } from './line-run.js';

/** Noisy ground with a line of `width` px along `path`. */
function drawn(path: readonly Point[], width: number, tone: number): Raster {
  const raster = createRaster(400, 300, 3);
  const random = seededRandom(3);
  const squares = nearness(path, false, { x: 0, y: 0, width: 400, height: 300 }, width);
  for (let p = 0; p < 120_000; p++) {
    const inside = Math.min(1, Math.max(0, width / 2 + 0.5 - Math.sqrt(squares[p]!)));
    for (let c = 0; c < 3; c++)
      raster.data[3 * p + c] = 150 + random.between(-8, 8) + (tone - 150) * inside;
  }
  return raster;
}

/** Greatest distance of the found line from the true one. */
function farthest(found: readonly Point[], truth: readonly Point[]): number {
  const squares = found.map(([x, y]) =>
    Math.min(
      ...truth.slice(1).map((b, i) => {
        const a = truth[i]!;
        const l2 = (b[0] - a[0]) ** 2 + (b[1] - a[1]) ** 2;
        const t = Math.min(
          1,
          Math.max(0, ((x - a[0]) * (b[0] - a[0]) + (y - a[1]) * (b[1] - a[1])) / l2),
        );
        return (x - a[0] - t * (b[0] - a[0])) ** 2 + (y - a[1] - t * (b[1] - a[1])) ** 2;
      }),
    ),
  );
  return Math.sqrt(Math.max(...squares));
}

describe('line between two clicks', () => {
  test.each([
    ['dark', 60],
    ['bright', 235],
  ])('follows a %s sagging line within a pixel and measures its width', (_, tone) => {
    const truth = pathOf({
      kind: 'chain',
      points: [
        [30, 60],
        [360, 110],
      ],
      bends: [28],
    });
    const line = fitLineRun(drawn(truth, 6, tone), [31, 61], [359, 109])!;
    const found = pathOf({ kind: 'chain', points: [...line.points], bends: [...line.bends] });
    expect(farthest(found, truth)).toBeLessThan(1.2);
    expect(line.width).toBeGreaterThan(4.5);
    expect(line.width).toBeLessThan(8);
  });

  test('follows a line that sags off the middle, with more runs', () => {
    const truth: Point[] = Array.from({ length: 60 }, (_, i) => {
      const t = i / 59;
      return [30 + 330 * t, 80 + 260 * t * t * (1 - t)];
    });
    const line = fitLineRun(drawn(truth, 5, 40), truth[0]!, truth[59]!)!;
    const found = pathOf({ kind: 'chain', points: [...line.points], bends: [...line.bends] });
    expect(farthest(found, truth)).toBeLessThan(2);
  });

  test('finds nothing on plain ground', () => {
    expect(
      fitLineRun(
        drawn(
          [
            [-50, -50],
            [-40, -50],
          ],
          2,
          60,
        ),
        [40, 40],
        [300, 200],
      ),
    ).toBeNull();
  });
});
