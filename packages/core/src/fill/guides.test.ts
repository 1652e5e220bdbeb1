import { createRaster } from '../raster/raster.js';
import type { Point } from '../shape/site.js';
import { guidePaths, sampledGuide } from './guides.js';
import { MOST } from './level.js';

const [WIDTH, HEIGHT] = [160, 120];

describe('a guide', () => {
  const points: Point[] = [
    [20, 30],
    [60, 30],
    [100, 70],
  ];

  test('passes through its points, in steps of half a px', () => {
    const curve = sampledGuide(points);
    for (const [x, y] of points)
      expect(Math.min(...curve.map(([u, v]) => Math.hypot(u - x, v - y)))).toBeLessThan(0.3);
    for (let k = 1; k < curve.length; k++) {
      const [a, b] = [curve[k - 1]!, curve[k]!];
      expect(Math.hypot(b[0] - a[0], b[1] - a[1])).toBeLessThan(1);
    }
  });

  test('is carried on straight beyond its ends', () => {
    const curve = sampledGuide([
      [50, 40],
      [90, 40],
    ]);
    expect(curve.every(([, y]) => Math.abs(y - 40) < 1e-9)).toBe(true);
    expect(curve[0]![0]).toBeCloseTo(26, 1);
    expect(curve.at(-1)![0]).toBeGreaterThan(113);
  });
});

describe('what guides say of a hole', () => {
  /** Dark above, light below, level; a hole in the middle, the tones changing from its left to its right. */
  const window = createRaster(WIDTH, HEIGHT, 3);
  const hole = new Uint8Array(WIDTH * HEIGHT);
  for (let p = 0; p < hole.length; p++) {
    const [x, y] = [p % WIDTH, Math.floor(p / WIDTH)];
    const right = x > 80 ? 20 : 0;
    window.data.fill((y < 60 ? 50 : 180) + right, 3 * p, 3 * p + 3);
    if (x >= 60 && x < 100 && y >= 40 && y < 80) hole[p] = 1;
  }
  const level: Point[] = [
    [55, 60],
    [105, 60],
  ];
  const paths = guidePaths(window, hole, [{ points: level }]);
  const at = new Map([...paths.pixels].map((p, k) => [p, k]));
  const tone = (x: number, y: number): number =>
    (paths.colours[3 * at.get(y * WIDTH + x)!]! / MOST) * 255;

  test('is said less surely where what lies beside the edge varies along it', () => {
    const waves = { ...window, data: window.data.slice() };
    for (let p = 0; p < hole.length; p++)
      if (p >= 60 * WIDTH) waves.data.fill(180 + (p % 6 < 3 ? 30 : -30), 3 * p, 3 * p + 3);
    const { pixels, weights } = guidePaths(waves, hole, [{ points: level }]);
    const weight = (y: number): number => weights[pixels.indexOf(y * WIDTH + 80)]!;
    expect(weight(52)).toBeGreaterThan(1.5 * weight(68));
    // Close to the edge it holds as firmly.
    expect(weight(59)).toBeLessThan(1.1 * weight(61));
  });

  test('is said of hole pixels alone, most surely on the curve', () => {
    expect([...paths.pixels].every((p) => hole[p] === 1)).toBe(true);
    const weight = (y: number): number => paths.weights[at.get(y * WIDTH + 80)!]!;
    expect(weight(60)).toBeGreaterThan(0.9);
    expect(weight(66)).toBeLessThan(weight(62));
  });

  test('is the edge’s profile, passing from one end to the other', () => {
    expect(Math.abs(tone(62, 55) - 50)).toBeLessThan(2);
    expect(Math.abs(tone(62, 65) - 180)).toBeLessThan(2);
    expect(tone(98, 55)).toBeGreaterThan(68);
    expect(Math.abs(tone(80, 55) - 60)).toBeLessThan(2);
    expect(Math.abs(tone(80, 65) - 190)).toBeLessThan(2);
  });

  test('is nothing where a guide meets no known ground', () => {
    const inside: Point[] = [
      [78, 60],
      [82, 60],
    ];
    const closed = new Uint8Array(WIDTH * HEIGHT).fill(1);
    expect(guidePaths(window, closed, [{ points: inside }]).pixels).toHaveLength(0);
  });
});
