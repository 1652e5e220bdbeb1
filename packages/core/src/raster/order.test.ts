import { seededRandom } from '../random/random.js';
import { orderOf } from './order.js';

test('places come in the order of their values, alike ones in their own', () => {
  expect([...orderOf([3, -1.5, 2, 2, 0, -1.5], 10)]).toEqual([1, 5, 4, 2, 3, 0]);
  expect([...orderOf([], 10)]).toEqual([]);
});

test('what differs by less than a step counts as alike', () => {
  expect([...orderOf([0.04, 0, 0.02], 10)]).toEqual([0, 1, 2]);
  expect([...orderOf([0.04, 0, 0.02], 100)]).toEqual([1, 2, 0]);
});

test('agrees with a stable sort by a function', () => {
  const random = seededRandom(5);
  const values = Array.from({ length: 3000 }, () => random.between(-400, 400) / 8);
  const wanted = [...values.keys()].sort((a, b) => values[a]! - values[b]!);
  expect([...orderOf(values, 1 << 24)]).toEqual(wanted);
});
