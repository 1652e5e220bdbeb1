import { seededRandom } from '../random/random.js';
import { maskWhere } from './mask-where.js';
import { widened } from './widened.js';

test.each([0, 1, 2, 5, 40])(
  'set is whatever has a set pixel within %d px across and down',
  (by) => {
    const random = seededRandom(by + 1);
    for (const [width, height, share] of [
      [31, 22, 0.01],
      [9, 40, 0.05],
      [1, 7, 0.3],
    ] as const) {
      const mask = maskWhere(width * height, () => random.unit() < share);
      const wanted = maskWhere(width * height, (p) =>
        mask.some(
          (set, q) =>
            set === 1 &&
            Math.abs((p % width) - (q % width)) <= by &&
            Math.abs(Math.floor(p / width) - Math.floor(q / width)) <= by,
        ),
      );
      expect(widened(mask, width, height, by)).toEqual(wanted);
    }
  },
);
