import type { Point } from './site.js';
import { isWithin } from './within.js';

const arrow: Point[] = [
  [0, 0],
  [10, 0],
  [10, 10],
  [5, 4],
  [0, 10],
];

test('points within a hollow outline, in its notch, and outside', () => {
  expect(isWithin(arrow, [5, 2])).toBe(true);
  expect(isWithin(arrow, [1, 8])).toBe(true);
  expect(isWithin(arrow, [5, 8])).toBe(false);
  expect(isWithin(arrow, [-1, 5])).toBe(false);
  expect(isWithin(arrow, [11, 0])).toBe(false);
});

test('the way round does not matter', () => {
  const back = [...arrow].reverse();
  for (let x = -1; x < 12; x += 0.7)
    for (let y = -1; y < 12; y += 0.7) expect(isWithin(back, [x, y])).toBe(isWithin(arrow, [x, y]));
});
