import { linked } from './curves.js';
import type { Plane } from '../raster/plane.js';
import { blurred, boxMean, halved, sampleAt } from '../raster/plane.js';
import { profileOf } from './profile.js';
import { ridgesOf } from './ridges.js';

function plane(width: number, height: number, at: (x: number, y: number) => number): Plane {
  const values = Float32Array.from({ length: width * height }, (_, p) =>
    at(p % width, Math.floor(p / width)),
  );
  return { width, height, values };
}

describe('planes', () => {
  test('a halving holds means of two by two; an odd column is left out', () => {
    const half = halved(plane(5, 2, (x, y) => x + 10 * y));
    expect([half.width, half.height, ...half.values]).toEqual([2, 1, 5.5, 7.5]);
  });

  test('a blur keeps what is even, and the sum of a point', () => {
    expect(
      Math.max(
        ...blurred(
          plane(30, 20, () => 77),
          2,
        ).values,
      ),
    ).toBeCloseTo(77, 3);
    const point = blurred(
      plane(31, 31, (x, y) => (x === 15 && y === 15 ? 100 : 0)),
      1.5,
    );
    expect(point.values.reduce((a, b) => a + b, 0)).toBeCloseTo(100, 2);
  });

  test('a mean over a square is clipped at the border', () => {
    const mean = boxMean(
      plane(4, 3, (x) => x),
      1,
    );
    expect([...mean.values.slice(0, 4)]).toEqual([0.5, 1, 2, 2.5]);
  });

  test('samples between pixels are bilinear', () => {
    expect(
      sampleAt(
        plane(4, 4, (x, y) => x + 4 * y),
        1.25,
        2.5,
      ),
    ).toBeCloseTo(11.25, 5);
  });
});

// Steger, "An unbiased detector of curvilinear structures", 1998: a line's crest to a fraction of a pixel.
describe('crests of lines', () => {
  const line = plane(60, 50, (x) => 80 + 90 * Math.exp(-((x - 20.3) ** 2) / (2 * 1.3 ** 2)));

  test('lie where the line is, within a twentieth of a pixel, right across it', () => {
    const ridges = ridgesOf(line, 1.2, 2.5);
    let seen = 0;
    for (let k = 0; k < ridges.count; k++) {
      if (ridges.strength[k]! < 10) continue;
      seen++;
      expect(ridges.x[k]!).toBeCloseTo(20.3, 1);
      expect(Math.abs(ridges.nx[k]!)).toBeCloseTo(1, 3);
    }
    expect(seen).toBeGreaterThan(40);
  });

  test('are linked to one curve, whose profile tells its width at half height', () => {
    const curves = linked(ridgesOf(line, 1.2, 2.5), { start: 5, shortest: 20, gap: 8 });
    expect(curves).toHaveLength(1);
    expect(curves[0]!.polarity).toBe(1);
    const { width, left, right } = profileOf(line, curves[0]!);
    const middle = width.length >> 1;
    // A bell of deviation s is 2.355 s wide at half height.
    expect(Math.abs(width[middle]! - 2.355 * 1.3)).toBeLessThan(0.5);
    expect(Math.abs(left[middle]! - right[middle]!)).toBeLessThan(6);
  });

  test('a dark line has the other polarity; a blob is no line', () => {
    const dark = plane(60, 50, (x) => 170 - 90 * Math.exp(-((x - 20) ** 2) / 3));
    expect(linked(ridgesOf(dark, 1.2, 2.5), { start: 5, shortest: 20, gap: 8 })[0]!.polarity).toBe(
      -1,
    );
    const blob = plane(60, 50, (x, y) => 80 + 90 * Math.exp(-((x - 30) ** 2 + (y - 25) ** 2) / 4));
    expect(linked(ridgesOf(blob, 1.2, 2.5), { start: 5, shortest: 20, gap: 8 })).toEqual([]);
  });
});
