import { leastScore, oddsAt } from './sensitivity.js';

test('the default limit is a score of a half; more sensitivity lowers it', () => {
  expect(oddsAt(0.5)).toBe(0);
  expect(leastScore(0.5)).toBe(0.5);
  expect(leastScore(0.8)).toBeLessThan(0.2);
  expect(leastScore(0.2)).toBeGreaterThan(0.8);
  expect(leastScore(1)).toBeCloseTo(0.047, 3);
  expect(leastScore(0)).toBeCloseTo(0.953, 3);
});
