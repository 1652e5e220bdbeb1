import type { Point } from '../shape/site.js';
import { homographyOf, inverseOf, through } from '../shape/homography.js';
import { cornersOf, layOf } from './lay.js';
import { backwards, bendBy } from './pins.js';

const box = { x: 10, y: 20, width: 31, height: 21 };
const plain = { placement: { dx: 0, dy: 0 }, skew: 0, corners: null, pins: [] };
const near = (a: Point, b: Point, digits = 6): void => {
  expect(a[0]).toBeCloseTo(b[0], digits);
  expect(a[1]).toBeCloseTo(b[1], digits);
};

describe('laying a piece', () => {
  test('at rest nothing moves', () => {
    const lay = layOf(plain, box);
    near(lay.toRest([12, 33]), [12, 33]);
  });

  // By hand: the middle is 25, 30; turned counter-clockwise by 90 degrees the right end comes to the top.
  test('turns, mirrors and scales about the middle of its box', () => {
    near(
      layOf({ ...plain, placement: { dx: 0, dy: 0, turn: 90 } }, box).fromRest([40, 30]),
      [25, 15],
    );
    near(
      layOf({ ...plain, placement: { dx: 0, dy: 0, mirrorX: true } }, box).fromRest([40, 30]),
      [10, 30],
    );
    near(
      layOf({ ...plain, placement: { dx: 0, dy: 0, scale: 2 } }, box).fromRest([40, 35]),
      [55, 40],
    );
  });

  // tan 45 degrees is 1: the upper edge, 10 px above the middle, moves 10 px to the right.
  test('leans', () => {
    near(layOf({ ...plain, skew: 45 }, box).fromRest([25, 20]), [35, 20]);
  });

  test('drawn-off corners land where they were drawn', () => {
    const corners: Point[] = [
      [-3, 2],
      [4, 1],
      [6, -5],
      [0, 7],
    ];
    const lay = layOf({ ...plain, corners }, box);
    near(lay.fromRest([10, 20]), [7, 22]);
    near(lay.fromRest([40, 20]), [44, 21]);
    near(lay.fromRest([40, 40]), [46, 35]);
    near(lay.fromRest([10, 40]), [10, 47]);
  });

  test('there and back again, whatever was done to it', () => {
    const lay = layOf(
      {
        placement: { dx: 0, dy: 0, turn: -37, scale: 1.7, mirrorY: true },
        skew: 14,
        corners: [
          [-3, 2],
          [4, 1],
          [6, -5],
          [0, 7],
        ],
        pins: [],
      },
      box,
    );
    for (const p of [
      [10, 20],
      [26.5, 31],
      [39, 22],
    ] as Point[])
      near(lay.toRest(lay.fromRest(p)), p);
  });

  test('there is no map onto corners on one line', () => {
    const onLine: Point[] = [
      [0, 0],
      [5, 0],
      [9, 0],
      [2, 0],
    ];
    expect(() => homographyOf(cornersOf(box), onLine)).toThrow(RangeError);
    expect(() => homographyOf(onLine, onLine)).toThrow(RangeError);
  });

  test('corners on one line are as if they had not been drawn', () => {
    const corners = [
      [0, 10],
      [0, 10],
      [0, -10],
      [0, -10],
    ] as const;
    const [flat, whole] = [layOf({ ...plain, corners }, box), layOf(plain, box)];
    for (const p of cornersOf(box)) {
      expect(flat.toRest(p)).toEqual(whole.toRest(p));
      expect(flat.fromRest(p)).toEqual(whole.fromRest(p));
    }
  });
});

describe('homographies', () => {
  test('take four points to four others, and back', () => {
    const from: Point[] = [
      [0, 0],
      [10, 0],
      [10, 8],
      [0, 8],
    ];
    const to: Point[] = [
      [1, 2],
      [13, -1],
      [11, 12],
      [-2, 9],
    ];
    const h = homographyOf(from, to);
    from.forEach((p, i) => near(through(h, p), to[i]!));
    to.forEach((p, i) => near(through(inverseOf(h), p), from[i]!));
  });
});

describe('pins', () => {
  test('one pin shifts everything, two turn it', () => {
    near(bendBy([{ from: [0, 0], to: [3, 4] }], [7, 7]), [10, 11]);
    const turn = [
      { from: [0, 0] as const, to: [0, 0] as const },
      { from: [10, 0] as const, to: [0, 10] as const },
    ];
    near(bendBy(turn, [5, 0]), [0, 5]);
  });

  test('every pin’s point lands where it was drawn, and comes back', () => {
    const pins = [
      { from: [0, 0] as const, to: [1, 1] as const },
      { from: [20, 0] as const, to: [22, -3] as const },
      { from: [10, 15] as const, to: [8, 18] as const },
    ];
    for (const { from, to } of pins) {
      near(bendBy(pins, from), to);
      near(bendBy(backwards(pins), to), from);
    }
  });
});
