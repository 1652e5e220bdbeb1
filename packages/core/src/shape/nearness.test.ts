import type { Point } from './site.js';
import { eachNear, eachPass, nearness } from './nearness.js';

const RECT = { x: -4, y: 7, width: 40, height: 30 };
const LIMIT = 6;

/** Squared distance of a point to a piece of a line, by projecting onto it. */
function squareTo([px, py]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const [dx, dy] = [bx - ax, by - ay];
  const length = dx * dx + dy * dy;
  const t = length ? Math.max(0, Math.min(1, ((px - ax) * dx + (py - ay) * dy) / length)) : 0;
  return (px - ax - t * dx) ** 2 + (py - ay - t * dy) ** 2;
}

const pixels = Array.from({ length: RECT.width * RECT.height }, (_, p): Point => [
  RECT.x + (p % RECT.width),
  RECT.y + Math.floor(p / RECT.width),
]);

/** A bent line, part of it outside, one leg longer than a piece. */
const PATH: Point[] = [
  [-30, 9],
  [5.5, 20.25],
  [20, 12],
  [31, 80],
];

describe('distance to a line', () => {
  test.each([false, true])('is exact up to its limit, closed: %s', (closed) => {
    const legs = PATH.map((a, k): [Point, Point] => [a, PATH[(k + 1) % PATH.length]!]);
    const squares = nearness(PATH, closed, RECT, LIMIT);
    let within = 0;
    pixels.forEach((pixel, p) => {
      const own = Math.min(...legs.slice(0, closed ? 4 : 3).map(([a, b]) => squareTo(pixel, a, b)));
      if (own <= LIMIT * LIMIT) {
        within++;
        expect(squares[p]).toBeCloseTo(own, 3);
      } else expect(squares[p]).toBeGreaterThan(LIMIT * LIMIT);
    });
    expect(within).toBeGreaterThan(300);
  });

  test('of a hand that rests is that to one point', () => {
    const squares = nearness(
      [
        [10, 20],
        [10, 20],
        [10, 20],
      ],
      false,
      RECT,
      LIMIT,
    );
    pixels.forEach(([x, y], p) => {
      const own = (x - 10) ** 2 + (y - 20) ** 2;
      if (own <= LIMIT * LIMIT) expect(squares[p]).toBeCloseTo(own, 3);
    });
  });

  test('tells where on the path it was measured', () => {
    const path: Point[] = [
      [0, 10],
      [20, 10],
      [20, 30],
    ];
    const at = new Map<number, { square: number; at: number }>();
    eachNear(path, RECT, 3, (p, square, where) => {
      if (square < (at.get(p)?.square ?? Infinity)) at.set(p, { square, at: where });
    });
    const index = (x: number, y: number): number => (y - RECT.y) * RECT.width + x - RECT.x;
    expect(at.get(index(5, 12))).toEqual({ square: 4, at: expect.closeTo(0.25, 5) });
    expect(at.get(index(21, 25))).toEqual({ square: 1, at: expect.closeTo(1.75, 5) });
    expect(at.has(index(5, 25))).toBe(false);
  });
});

describe('passes of a line', () => {
  const count = (path: readonly Point[]): number => {
    let passes = 0;
    const middle = (20 - RECT.y) * RECT.width + 15 - RECT.x;
    eachPass(path, RECT, 2, (p) => {
      if (p === middle) passes++;
    });
    return passes;
  };

  test('are counted each time it comes back', () => {
    const over: Point[] = [
      [0, 20],
      [34, 20],
    ];
    expect(count(over)).toBe(1);
    expect(count([...over, [34, 30], [0, 30], [0, 20], [34, 20]])).toBe(2);
  });

  test('a bend within reach is one pass', () => {
    expect(
      count([
        [0, 20],
        [15, 20],
        [15, 35],
      ]),
    ).toBe(1);
  });
});
