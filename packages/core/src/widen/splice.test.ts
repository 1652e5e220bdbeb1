import { seededRandom } from '../random/random.js';
import type { SpliceCosts } from './splice.js';
import { leastSplice, spliceCosts } from './splice.js';

const [width, height] = [8, 5];
const open = Uint8Array.from({ length: width * height }, (_, p) => (p % width < width - 1 ? 1 : 0));
const bars = new Int32Array(height).fill(width);

/** The cost of the cheapest way from the top row to the bottom, by trying all. */
function leastOfAll({ beside, above }: SpliceCosts): number {
  let least = Infinity;
  const walk = (y: number, x: number, sum: number): void => {
    if (x < 0 || x >= width) return;
    const here = sum + beside[y * width + x]!;
    if (y === height - 1) {
      least = Math.min(least, here);
      return;
    }
    const next = (y + 1) * width + x;
    walk(y + 1, x, here);
    walk(y + 1, x + 1, here + above[next + 1]!);
    walk(y + 1, x - 1, here + above[next]!);
  };
  for (let x = 0; x < width; x++) walk(0, x, 0);
  return least;
}

test.each([2, -2])(
  'with a step of %d px, the least splice is the least of all there are',
  (step) => {
    const random = seededRandom(5);
    for (let trial = 0; trial < 20; trial++) {
      const values = Float32Array.from({ length: width * height }, () => random.between(0, 99));
      const costs = spliceCosts([{ width, height, values }], step, open, bars);
      const found = leastSplice(costs, width, height)!;
      expect(found.cost).toBeCloseTo(leastOfAll(costs), 3);
      expect(found.path).toHaveLength(height);
    }
  },
);

test('what is left out costs the difference of the neighbours it makes', () => {
  const random = seededRandom(11);
  const values = Float32Array.from({ length: width * height }, () => random.between(0, 99));
  const { beside } = spliceCosts([{ width, height, values }], -2, open, bars);
  // After column x the row goes on at x + 3: both pairs that meet there are compared.
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width - 1; x++) {
      const at = y * width + x;
      const wanted =
        (Math.abs(values[at]! - values[at + 2]!) + Math.abs(values[at + 1]! - values[at + 3]!)) / 2;
      expect(beside[at]).toBeCloseTo(x + 3 < width ? wanted : Infinity, 3);
    }
});
