import { bytesOf, densityFor, printSize, scanDensity } from './print-size.js';

test('a small print scanned finely: 4200 x 6000 px at 1200 ppi (common practice)', () => {
  const { inches, mm } = printSize(4200, 6000, 1200);
  expect(inches).toEqual([3.5, 5]);
  expect(mm[0]).toBeCloseTo(88.9);
  expect(mm[1]).toBeCloseTo(127);
  expect(bytesOf(4200, 6000, 3, 16)).toBe(151_200_000);
});

test('what density an enlargement needs and leaves', () => {
  expect(scanDensity(300, 4)).toBe(1200);
  expect(densityFor(4200, 14)).toBe(300);
});
