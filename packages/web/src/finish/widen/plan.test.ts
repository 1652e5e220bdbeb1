import {
  boxAround,
  isNothing,
  possible,
  PRINT_WISHES,
  reachedSides,
  sidesFor,
  slid,
} from './plan.js';

const PICTURE = { width: 1200, height: 1800 };

test('a subject comes to stand where it should, as near as the picture allows', () => {
  const subject = { x: 300, y: 400, width: 600, height: 1000 };
  expect(sidesFor(PICTURE, subject, 1, ['middle', 'middle'])).toEqual({
    left: 300,
    right: 300,
    top: 0,
    bottom: 0,
  });
  // 3200 wide; the subject's middle, 600, at a third of it: 1067 = left + 600.
  expect(sidesFor(PICTURE, subject, 16 / 9, ['first', 'middle'])).toMatchObject({
    left: 467,
    right: 1533,
  });
  // 3000 high for 2:5; at two thirds from the top the subject's middle, 900, lies at 2000.
  expect(sidesFor(PICTURE, subject, 2 / 5, ['middle', 'last'])).toMatchObject({
    top: 1100,
    bottom: 100,
  });
});

test('a picture moves in its canvas without changing its size', () => {
  const sides = { left: 100, right: 200, top: 0, bottom: 50 };
  expect(slid(sides, 60, 20)).toEqual({ left: 160, right: 140, top: 20, bottom: 30 });
  expect(slid(sides, -500, 500)).toEqual({ left: 0, right: 300, top: 50, bottom: 0 });
});

test('filling takes nothing away, narrowing not everything', () => {
  const sides = { left: -900, right: 10.4, top: -10, bottom: 0 };
  expect(possible(sides, PICTURE, 'fill')).toEqual({ left: 0, right: 10, top: 0, bottom: 0 });
  expect(possible(sides, PICTURE, 'stretch')).toMatchObject({ left: -480, top: -10 });
  expect(isNothing(possible({ ...sides, right: 0 }, PICTURE, 'fill'))).toBe(true);
});

test('the box of outlines holds all of their points; no outline has none', () => {
  expect(
    boxAround([
      [
        [10, 20],
        [30, 25],
      ],
      [[12, 60]],
    ]),
  ).toEqual({ x: 10, y: 20, width: 21, height: 41 });
  expect(boxAround([])).toBeNull();
});

test('sides that the subject reaches are told', () => {
  const outline = [
    [1.4, 400],
    [600, 1799.5],
    [1190, 30],
  ] as const;
  expect(reachedSides([outline], PICTURE)).toEqual(['left', 'bottom']);
  expect(reachedSides([], PICTURE)).toEqual([]);
});

test('prints lie or stand', () => {
  const lying = PRINT_WISHES.find((w) => w.name === 'A4, lying')!;
  expect(lying.mm).toEqual([297, 210]);
  expect(lying.ratio).toBeCloseTo(Math.SQRT2, 2);
});
