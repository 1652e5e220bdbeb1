import { seededRandom } from '../random/random.js';
import { through } from '../shape/homography.js';
import type { Point } from '../shape/site.js';
import { chained, fitPairs, leastSquares, offOf } from './fit.js';
import type { Pair } from './match.js';

/** A turn by a few degrees with some perspective. */
const TRUTH = [0.98, -0.06, 24, 0.05, 1.01, -9, 4e-5, -3e-5, 1];

const random = seededRandom(12);
const places = Array.from({ length: 80 }, (): Point => [
  random.between(0, 900),
  random.between(0, 600),
]);
const pairs = (off: () => number): Pair[] =>
  places.map((from) => {
    const [x, y] = through(TRUTH, from);
    return { from, to: [x + off(), y + off()] };
  });
const farthest = (map: readonly number[]): number =>
  Math.max(
    ...places.map((from) => {
      const [[x, y], [u, v]] = [through(TRUTH, from), through(map, from)];
      return Math.hypot(x - u, y - v);
    }),
  );

describe('the map of least squares', () => {
  test('is the map itself for pairs without errors', () => {
    expect(farthest(leastSquares(pairs(() => 0)))).toBeLessThan(1e-6);
  });

  test('averages the errors of many pairs', () => {
    const shaken = seededRandom(4);
    const map = leastSquares(pairs(() => shaken.unit() - 0.5));
    expect(farthest(map)).toBeLessThan(0.4);
  });

  test('gives little to a pair that is far off', () => {
    const list = pairs(() => 0);
    const wrong: Pair = { from: [450, 300], to: [900, -200] };
    const mean = list.reduce((sum, p) => sum + offOf(leastSquares([...list, wrong]), p), 0) / 80;
    expect(mean).toBeLessThan(0.1);
  });
});

describe('the map most pairs agree on', () => {
  test('is found among as many pairs that mean nothing', () => {
    const stray = seededRandom(9);
    const wrong = places.map((from): Pair => ({
      from,
      to: [stray.between(0, 900), stray.between(0, 600)],
    }));
    const fitted = fitPairs([...wrong, ...pairs(() => 0)], 1, 20)!;
    expect(farthest(fitted.map)).toBeLessThan(1e-3);
    expect(fitted.agreeing.length).toBeGreaterThanOrEqual(80);
    expect(fitted.agreeing.length).toBeLessThan(85);
  });

  test('is none where too few agree, or none could', () => {
    const stray = seededRandom(10);
    const wrong = places.map((from): Pair => ({
      from,
      to: [stray.between(0, 900), stray.between(0, 600)],
    }));
    expect(fitPairs(wrong, 1, 20)).toBeNull();
    expect(fitPairs(pairs(() => 0).slice(0, 3), 1, 3)).toBeNull();
    const onALine = Array.from({ length: 12 }, (_, k): Pair => ({
      from: [k, 2 * k],
      to: [3 * k, k],
    }));
    expect(fitPairs(onALine, 1, 8)).toBeNull();
  });
});

test('maps after one another are one map', () => {
  const other = [1.1, 0.02, -7, -0.03, 0.95, 11, -2e-5, 1e-5, 1];
  const both = chained(TRUTH, other);
  for (const p of places.slice(0, 10)) {
    const [x, y] = through(other, through(TRUTH, p));
    const [u, v] = through(both, p);
    expect(Math.hypot(x - u, y - v)).toBeLessThan(1e-9);
  }
});
