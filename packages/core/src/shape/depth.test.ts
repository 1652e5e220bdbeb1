import { seededRandom } from '../random/random.js';
import { deepestIn, deepestOf, depthsOf } from './depth.js';
import { depthsPlainly } from './plain/depth.js';

const mask = (rows: readonly string[]): Uint8Array =>
  Uint8Array.from(rows.join(''), (c) => (c === '#' ? 1 : 0));

describe('depth of a mask', () => {
  test('worked by hand: one px a step straight, four thirds aslant', () => {
    const rows = ['.......', '.#####.', '.#####.', '.#####.', '.#####.', '.......'];
    const d = depthsOf(mask(rows), 7, 6);
    expect([...d.subarray(7, 14)]).toEqual([0, 1, 1, 1, 1, 1, 0]);
    expect([...d.subarray(14, 21)]).toEqual([0, 1, 2, 2, 2, 1, 0]);
    expect(deepestOf(mask(rows), 7, 6)).toBe(2);
  });

  test('a corner is reached aslant', () => {
    const hole = new Uint8Array(25).fill(1);
    hole[12] = 0;
    const d = depthsOf(hole, 5, 5);
    expect(d[6]).toBeCloseTo(4 / 3, 6);
    expect(d[0]).toBeCloseTo(8 / 3, 6);
    expect(d[10]).toBe(2);
  });

  test('the border of the window is no way out, and what has none is of no depth', () => {
    expect(deepestOf(mask(['##.', '##.']), 3, 2)).toBe(2);
    expect(deepestOf(new Uint8Array(12).fill(1), 4, 3)).toBe(0);
    expect(deepestOf(new Uint8Array(12), 4, 3)).toBe(0);
  });

  test.each([1, 5, 24])(
    'the deepest of every square of %d px is the greatest depth in it',
    (side) => {
      const random = seededRandom(side);
      const [w, h] = [53, 41];
      const hole = Uint8Array.from({ length: w * h }, () => (random.unit() < 0.9 ? 1 : 0));
      const wide = Math.ceil(w / side);
      const wanted = new Float32Array(wide * Math.ceil(h / side));
      depthsOf(hole, w, h).forEach((d, p) => {
        const square = Math.floor(p / w / side) * wide + Math.floor((p % w) / side);
        wanted[square] = Math.max(wanted[square]!, d);
      });
      expect(deepestIn(hole, w, h, side)).toEqual(wanted);
    },
  );

  test('between the chessboard and the city block distance, on masks of any kind', () => {
    const random = seededRandom(3);
    for (let round = 0; round < 60; round++) {
      const [w, h] = [random.between(1, 40), random.between(1, 14)];
      const share = random.unit();
      const hole = Uint8Array.from({ length: w * h }, () => (random.unit() < share ? 1 : 0));
      expect(depthsOf(hole, w, h)).toEqual(depthsPlainly(hole, w));
      const out = [...hole.keys()].filter((p) => !hole[p]);
      if (!out.length) continue;
      depthsOf(hole, w, h).forEach((d, p) => {
        const away = out.map((q) => [
          Math.abs((p % w) - (q % w)),
          Math.abs(Math.floor(p / w) - Math.floor(q / w)),
        ]);
        expect(d).toBeGreaterThanOrEqual(
          Math.min(...away.map(([x, y]) => Math.max(x!, y!))) - 1e-4,
        );
        expect(d).toBeLessThanOrEqual(Math.min(...away.map(([x, y]) => x! + y!)) + 1e-4);
      });
    }
  });
});
