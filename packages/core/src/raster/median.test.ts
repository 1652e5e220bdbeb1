import { medianOf, valueAtShare, weightedMedianOf } from './median.js';

test('the median lies in the middle of an odd or even count and leaves the list alone', () => {
  const values = [9, 1, 5, 3];
  expect(medianOf(values)).toBe(4);
  expect(medianOf([9, 1, 5])).toBe(5);
  expect(medianOf([])).toBe(0);
  expect(values).toEqual([9, 1, 5, 3]);
});

test('a share of all lie below its value, which is one of theirs', () => {
  const values = [40, 10, 30, 20];
  expect([0, 0.25, 0.5, 0.99, 1].map((share) => valueAtShare(values, share))).toEqual([
    10, 20, 30, 40, 40,
  ]);
});

test('the weighted median has half of the weight on either side', () => {
  expect(weightedMedianOf([1, 2, 3], [1, 1, 5])).toBe(3);
  expect(weightedMedianOf([1, 2, 3], [5, 1, 1])).toBe(1);
});
