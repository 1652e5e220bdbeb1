import { seededRandom } from '../random/random.js';
import { alone } from '../task/crew.js';
import { usualDifference } from './confidence.js';
import type { Field } from './field.js';
import { openFillRoom } from './room.js';

/** A field of which only distances and trusts are told. */
function told(distances: readonly number[], trusts: readonly number[]): Field {
  const room = openFillRoom(8 * distances.length + 64, 2, alone);
  const distance = room.arena.words(distances.length);
  const trust = room.arena.floats(trusts.length);
  distance.set(distances);
  trust.set(trusts);
  return { room, distance, trust } as unknown as Field;
}

/** Twice the root of a middle squared difference a value, and never less than eight quarters of a code. */
const usualOf = (middle: number): number => 2 * Math.max(4, Math.sqrt(middle / (49 * 4)));

test.each([1, 2, 7, 400])('what is usual is told by the middle one of %d trusted patches', (n) => {
  const random = seededRandom(n);
  for (const most of [300, 70_000, 2 ** 31 - 1]) {
    const distances = Array.from({ length: n }, () => random.between(0, most));
    const trusts = distances.map((_, k) => (k % 3 === 1 ? 0.25 : k % 3 ? 0.5 : 1));
    const trusted = distances.filter((_, k) => k % 3 !== 1).sort((a, b) => a - b);
    expect(usualDifference(told(distances, trusts))).toBe(usualOf(trusted[trusted.length >> 1]!));
  }
});

test('where no patch is trusted, or all agree wholly, hardly anything is usual', () => {
  expect(usualDifference(told([50_000, 60_000], [0.4, 0.1]))).toBe(8);
  expect(usualDifference(told([0, 0, 3], [1, 1, 1]))).toBe(8);
  expect(usualDifference(told([], []))).toBe(8);
});
