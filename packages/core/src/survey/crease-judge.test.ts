import type { CreaseTraits } from './crease-traits.js';
import { creaseOdds, creasesInDoubt } from './crease-judge.js';

const STRAND = {
  length: 250,
  height: 120,
  whole: 0.95,
  unsteady: 0.2,
  ground: 20,
  lopsided: 0.3,
  busy: 10,
  crowd: 0.03,
  turn: 0.02,
  straight: 0.98,
  width: 5,
  uneven: 0.1,
  extreme: 0.9,
  alike: 0.7,
  varied: 0.2,
  rough: 0.15,
  groundRough: 6,
};

/** A crease from border to border. */
const CREASE: CreaseTraits = {
  strands: 6,
  strand: STRAND,
  long: 1.3,
  inside: 0.01,
  gain: 1.2,
  straight: 0.97,
  broad: 10,
  rough: 0.6,
  sides: 5,
  least: 70,
  spread: 5,
  cast: 14,
};

test.each<[string, Partial<CreaseTraits>]>([
  ['different ground on its two sides', { sides: 80 }],
  ['ends inside the picture', { inside: 0.15 }],
  ['a colour of its own', { cast: 90 }],
  ['a breadth no crease has', { broad: 28 }],
  ['a course that turns round', { straight: 0.2 }],
  ['smooth edges', { rough: 0 }],
])('speaks against a crease: %s', (_, other) => {
  const odds = creaseOdds(CREASE);
  expect(odds).toBeGreaterThan(2);
  expect(creaseOdds({ ...CREASE, ...other })).toBeLessThan(odds - 1.5);
});

test('nothing counts beyond what has been seen', () => {
  expect(creaseOdds({ ...CREASE, strands: 80 })).toBe(creaseOdds({ ...CREASE, strands: 8 }));
});

test('where much is nearly a crease, one has to be more than that; alone it need not', () => {
  const [alone] = creasesInDoubt([2]);
  const [among] = creasesInDoubt([2, -1, -2, -0.5, -3, -1.5]);
  expect(alone).toBeGreaterThan(2);
  expect(among).toBeLessThan(2);
  // What is surely something else is no company.
  expect(creasesInDoubt([2, -9, -8, -12, -7, -10])[0]).toBe(alone);
});
