import { seededRandom } from '../random/random.js';
import type { Plane } from './plane.js';
import { blurred, boxMean, halved, halvePlaneRows, sampleAt } from './plane.js';

function planeOf(width: number, height: number, at: (x: number, y: number) => number): Plane {
  const values = Float32Array.from({ length: width * height }, (_, p) =>
    at(p % width, Math.floor(p / width)),
  );
  return { width, height, values };
}

function noise(width: number, height: number, seed: number): Plane {
  const random = seededRandom(seed);
  return planeOf(width, height, () => random.between(0, 255));
}

const clamp = (v: number, most: number): number => Math.max(0, Math.min(most, v));

/** The Gaussian blur by its definition: every pixel a weighted sum over a square, the border repeated. */
function blurredPlainly({ width, height, values }: Plane, sigma: number): number[] {
  const radius = Math.max(1, Math.ceil(3 * sigma));
  const taps = Array.from({ length: 2 * radius + 1 }, (_, k) =>
    Math.exp(-((k - radius) ** 2) / (2 * sigma * sigma)),
  );
  const total = taps.reduce((a, b) => a + b, 0);
  return Array.from(values, (_, p) => {
    const [x, y] = [p % width, Math.floor(p / width)];
    let sum = 0;
    taps.forEach((wy, j) =>
      taps.forEach((wx, i) => {
        const row = clamp(y + j - radius, height - 1) * width;
        sum += wx * wy * values[row + clamp(x + i - radius, width - 1)]!;
      }),
    );
    return sum / (total * total);
  });
}

describe('blur', () => {
  // Radii 2, 4 and 9: done in one go, at its limit, and the general way.
  test.each([0.5, 1.2, 3])('of sigma %s is the sum it is defined as', (sigma) => {
    const plane = noise(37, 29, 3);
    const { values } = blurred(plane, sigma);
    blurredPlainly(plane, sigma).forEach((v, p) => expect(values[p]).toBeCloseTo(v, 2));
  });

  test.each([0.5, 1.2, 3])('of sigma %s leaves an even plane as it is', (sigma) => {
    const { values } = blurred(
      planeOf(23, 17, () => 91),
      sigma,
    );
    for (const v of values) expect(v).toBeCloseTo(91, 3);
  });

  test('reaches a plane of one row and one of one column', () => {
    expect([
      ...blurred({ width: 1, height: 3, values: Float32Array.of(0, 90, 0) }, 0.5).values,
    ]).toEqual([
      ...blurred({ width: 3, height: 1, values: Float32Array.of(0, 90, 0) }, 0.5).values,
    ]);
  });
});

describe('means over squares', () => {
  test.each([1, 3, 20])('of radius %s are clipped to the picture', (radius) => {
    const plane = noise(31, 24, 8);
    const { width, height, values } = plane;
    const means = boxMean(plane, radius).values;
    for (const [x, y] of [
      [0, 0],
      [30, 23],
      [0, 12],
      [15, 11],
      [29, 1],
    ] as const) {
      let [sum, n] = [0, 0];
      for (let v = Math.max(0, y - radius); v <= Math.min(height - 1, y + radius); v++)
        for (let u = Math.max(0, x - radius); u <= Math.min(width - 1, x + radius); u++, n++)
          sum += values[v * width + u]!;
      expect(means[y * width + x]).toBeCloseTo(sum / n, 3);
    }
  });
});

describe('halving', () => {
  test('takes means of two by two pixels and leaves out an odd last row and column', () => {
    const half = halved(planeOf(5, 3, (x, y) => 10 * x + y));
    expect([half.width, half.height]).toEqual([2, 1]);
    expect([...half.values]).toEqual([5.5, 25.5]);
  });

  test('rows done apart come to the same', () => {
    const plane = noise(40, 30, 5);
    const whole = halved(plane);
    const parts = { ...whole, values: new Float32Array(whole.values.length) };
    halvePlaneRows(plane, parts, 7, 15);
    halvePlaneRows(plane, parts, 0, 7);
    expect(parts.values).toEqual(whole.values);
  });
});

describe('samples between pixels', () => {
  const ramp = planeOf(8, 6, (x, y) => 3 * x - 2 * y + 40);

  test('lie on a plane that the values lie on', () => {
    for (const [x, y] of [
      [2.25, 3.5],
      [0, 0],
      [6.9, 4.1],
    ] as const)
      expect(sampleAt(ramp, x, y)).toBeCloseTo(3 * x - 2 * y + 40, 4);
  });

  test('beyond the border are the border’s', () => {
    expect(sampleAt(ramp, -5, 2)).toBe(36);
    expect(sampleAt(ramp, 50, -1)).toBe(61);
    expect(sampleAt(ramp, 7, 99)).toBe(51);
  });
});
