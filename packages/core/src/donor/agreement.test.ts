import { seededRandom } from '../random/random.js';
import { disagreements } from './agreement.js';

/** Colours of 40 pixels that go up evenly, with noise. */
function ramp(seed: number, noise: number, from = 60): Float32Array {
  const random = seededRandom(seed);
  return Float32Array.from(
    { length: 120 },
    (_, i) => from + 2 * Math.floor(i / 3) + noise * (random.unit() - 0.5),
  );
}
const told = (misfit: number, body: Float32Array) => ({ misfit, body });
const least = (values: readonly number[]): number => values.indexOf(Math.min(...values));

describe('agreement of places', () => {
  test('the one that holds another thing stands alone', () => {
    const places = [1, 2, 3, 4].map((seed) => told(100, ramp(seed, 10)));
    places.push(told(100, ramp(5, 10).reverse()));
    const unlike = disagreements(places);
    expect(Math.max(...unlike.slice(0, 4))).toBeLessThan(unlike[4]! / 10);
  });

  test('a step of tone counts as it is', () => {
    const places = [1, 2, 3, 4].map((seed) => told(100, ramp(seed, 4)));
    const [same, lighter] = [0, 30].map((step) =>
      disagreements([...places, told(100, ramp(9, 4, 60 + step))]).at(-1)!,
    );
    expect(lighter! - same!).toBeGreaterThan(30 * 30);
  });

  test('a smooth place has no advantage over one that runs along with the others', () => {
    const grained = [1, 2, 3, 4].map((seed) => told(100, ramp(seed, 12)));
    const dull = told(
      100,
      Float32Array.from(ramp(6, 0), (v) => 99 + 0.3 * (v - 99)),
    );
    const unlike = disagreements([...grained, dull]);
    // Correlation is told, not distance: by distance from their mean the dull one would win over grain of such strength.
    expect(unlike[4]).toBeGreaterThan(0.5 * Math.min(...unlike.slice(0, 4)));
  });

  test('places whose rings fit badly have little say, and a perfect ring needs no word of others', () => {
    const bad = [1, 2, 3].map((seed) => told(900, ramp(seed, 4).reverse()));
    const unlike = disagreements([told(50, ramp(7, 4)), told(60, ramp(8, 4)), ...bad]);
    expect(least(unlike)).toBeLessThan(2);
    const odd = disagreements([
      told(0, ramp(7, 4).reverse()),
      told(40, ramp(8, 4)),
      told(40, ramp(9, 4)),
    ]);
    expect(odd[0]).toBe(0);
  });

  test('places alike in all are told apart by nothing, and one that counts alone is not judged', () => {
    const body = ramp(1, 5);
    for (const v of disagreements([told(30, body), told(30, body), told(30, body)]))
      expect(v).toBeCloseTo(0, 1);
    expect(disagreements([told(1, body), told(1e6, ramp(2, 5))])[0]).toBeCloseTo(0, 6);
  });
});
