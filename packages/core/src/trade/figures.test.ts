import { cautionsAt } from './cautions.js';
import {
  coverAfter,
  cylinderRadius,
  feather,
  framesFor,
  passesFor,
  runsFor,
  viewAngle,
} from './figures.js';
import { smallestSeen } from './visibility.js';

test('passes of a flow: three of 20 % cover 48.8 %; 90 % takes eleven (worked by hand)', () => {
  expect(coverAfter(3, 0.2)).toBeCloseTo(0.488, 12);
  expect(passesFor(0.9, 0.2)).toBe(11);
  expect(coverAfter(11, 0.2)).toBeGreaterThanOrEqual(0.9);
  expect(coverAfter(10, 0.2)).toBeLessThan(0.9);
  expect(passesFor(0.488, 0.2)).toBe(3);
  expect(passesFor(0.99, 1)).toBe(1);
});

test('a bow of 18 px followed to 0.5 px takes six runs, since 18 / 36 = 0.5', () => {
  expect(runsFor(18, 0.5)).toBe(6);
  expect(runsFor(18.1, 0.5)).toBe(7);
  expect(runsFor(0, 0.5)).toBe(1);
});

test('a 35 mm lens on a 36 mm wide sensor of 6000 px: radius 5833 px, 54.4 degrees across', () => {
  expect(cylinderRadius(35, 36, 6000)).toBeCloseTo(5833.33, 1);
  expect(viewAngle(35, 36)).toBeCloseTo(54.43, 2);
  // (180 - 54.43) / (54.43 x 0.7) = 3.30, so four more frames after the first.
  expect(framesFor(180, viewAngle(35, 36), 0.3)).toBe(5);
  expect(framesFor(40, 54.4, 0.3)).toBe(1);
});

test('one arc minute is 0.087 mm at 300 mm (ISO 8596) and 0.291 mm at a metre', () => {
  expect(smallestSeen(300)).toBeCloseTo(0.0873, 4);
  expect(smallestSeen(1000)).toBeCloseTo(0.2909, 4);
});

test('the feather of a 6000 px picture lies between 3.5 and 4 % of it (common practice)', () => {
  expect(feather(6000)).toBe(225);
});

test('cautions are told apart by where they apply', () => {
  expect(cautionsAt('intake').map((c) => c.id)).toEqual(['original', 'flat']);
  expect(cautionsAt('work')).toHaveLength(1);
  expect(cautionsAt('delivery')).toHaveLength(2);
});
