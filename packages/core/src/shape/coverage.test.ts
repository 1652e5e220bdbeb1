import { coverageOf, supportOf } from './coverage.js';
import { pathLength, pathOf, piecesForBow, pointOnBow } from './path.js';

const frame = { x: 0, y: 0, width: 100, height: 80 };
const hard = { width: 10, softness: 0, flow: 1 };

function at(c: ReturnType<typeof coverageOf>, x: number, y: number): number {
  return c.values[(y - c.rect.y) * c.rect.width + x - c.rect.x] ?? 0;
}

describe('a tapered chain', () => {
  const chain = {
    kind: 'chain' as const,
    points: [
      [10, 40],
      [90, 40],
    ] as const,
    bends: [0],
  };
  const across = (c: ReturnType<typeof coverageOf>, x: number): number =>
    Array.from({ length: 30 }, (_, k) => at(c, x, 25 + k)).reduce((a, b) => a + b, 0);

  test('is as wide at every place as its corners tell, in between evenly', () => {
    const c = coverageOf({ ...chain, shares: [0.3, 1] }, { ...hard, width: 20 }, frame);
    expect(across(c, 10)).toBeCloseTo(6, 0);
    expect(across(c, 50)).toBeCloseTo(13, 0);
    expect(across(c, 89)).toBeCloseTo(20, 0);
  });

  test('with whole shares it is the plain chain, to the last bit', () => {
    const brush = { width: 14, softness: 0.4, flow: 1 };
    expect(coverageOf({ ...chain, shares: [1, 1] }, brush, frame)).toEqual(
      coverageOf(chain, brush, frame),
    );
  });

  test('stays within the extent of its greatest width, and narrows a bowed run as well', () => {
    const bowed = { ...chain, bends: [12] };
    const whole = coverageOf(bowed, hard, frame);
    const thin = coverageOf({ ...bowed, shares: [0.5, 0.5] }, hard, frame);
    expect(thin.rect).toEqual(whole.rect);
    const sum = (c: typeof whole): number => c.values.reduce((a, b) => a + b, 0);
    expect(sum(thin) / sum(whole)).toBeCloseTo(0.5, 1);
    thin.values.forEach((v, p) => expect(v).toBeLessThanOrEqual(whole.values[p]! + 1e-6));
  });
});

describe('coverage', () => {
  test('a hard dab covers a disc of its width', () => {
    const c = coverageOf({ kind: 'dab', at: [50, 40] }, hard, frame);
    const area = c.values.reduce((a, b) => a + b, 0);
    expect(area).toBeCloseTo(Math.PI * 25, 0);
    expect(at(c, 50, 40)).toBe(1);
    expect(at(c, 54, 40)).toBe(1);
    expect(at(c, 56, 40)).toBe(0);
  });

  test('softness lets coverage fall inwards and never widens the site', () => {
    const soft = coverageOf({ kind: 'dab', at: [50, 40] }, { ...hard, softness: 1 }, frame);
    const firm = coverageOf({ kind: 'dab', at: [50, 40] }, hard, frame);
    expect(supportOf(soft)).toEqual(supportOf(firm));
    const row = [50, 51, 52, 53, 54].map((x) => at(soft, x, 40));
    expect(row).toEqual([...row].sort((a, b) => b - a));
    expect(row[4]).toBeLessThan(0.2);
  });

  test('flow is the coverage of one pass', () => {
    const c = coverageOf({ kind: 'dab', at: [50, 40] }, { ...hard, flow: 0.25 }, frame);
    expect(at(c, 50, 40)).toBe(0.25);
  });

  test('a rectangle covers exactly its pixels', () => {
    const c = coverageOf({ kind: 'rectangle', x: 10, y: 20, width: 5, height: 3 }, hard, frame);
    let count = 0;
    for (let y = 0; y < 80; y++)
      for (let x = 0; x < 100; x++) {
        const inside = x >= 10 && x < 15 && y >= 20 && y < 23;
        const v =
          x >= c.rect.x &&
          x < c.rect.x + c.rect.width &&
          y >= c.rect.y &&
          y < c.rect.y + c.rect.height
            ? at(c, x, y)
            : 0;
        expect(v).toBe(inside ? 1 : 0);
        count += v;
      }
    expect(count).toBe(15);
  });

  test('an outline follows the even-odd rule', () => {
    const star = [
      [50, 10],
      [60, 60],
      [20, 25],
      [80, 25],
      [40, 60],
    ] as const;
    const c = coverageOf({ kind: 'outline', points: star }, hard, frame);
    expect(at(c, 50, 20)).toBe(1);
    expect(at(c, 50, 35)).toBe(0);
  });

  test('is clipped to the picture and empty outside', () => {
    expect(coverageOf({ kind: 'dab', at: [-2, -2] }, hard, frame).rect).toMatchObject({
      x: 0,
      y: 0,
    });
    expect(coverageOf({ kind: 'dab', at: [-50, 0] }, hard, frame).values).toHaveLength(0);
  });
});

describe('bowed runs', () => {
  // n straight pieces leave sagitta / n^2 of deviation (arithmetic of the parabola).
  test('need sqrt(sagitta / allowed) pieces', () => {
    expect(piecesForBow(0)).toBe(1);
    expect(piecesForBow(90, 0.1)).toBe(30);
    expect(piecesForBow(-90, 10)).toBe(3);
  });

  test('stand their sagitta off the straight line in the middle, to the right of the way', () => {
    expect(pointOnBow([0, 0], [100, 0], 8, 0.5)).toEqual([50, 8]);
    expect(pointOnBow([0, 0], [0, 100], 8, 0.5)).toEqual([-8, 50]);
  });

  test('are about as long as the parabola', () => {
    const path = pathOf({
      kind: 'chain',
      points: [
        [0, 0],
        [100, 0],
      ],
      bends: [10],
    });
    // s ~ c (1 + 8/3 (f/c)^2) for flat parabolas (handbook approximation).
    expect(pathLength(path)).toBeCloseTo(100 * (1 + (8 / 3) * 0.01), 0);
  });
});

describe('what leads far out of the picture', () => {
  const cover = (points: readonly (readonly [number, number])[], flow = 1, softness = 0.4) =>
    coverageOf({ kind: 'stroke', points }, { width: 14, softness, flow }, frame);

  test('covers what the same line does that ends just outside', () => {
    // The far line's pieces begin elsewhere than the near one's: the same to rounding.
    const far = cover([
      [-960_000, 30],
      [960_000, 30],
    ]);
    const near = cover([
      [-96, 30],
      [192, 30],
    ]);
    expect(far.rect).toEqual(near.rect);
    far.values.forEach((v, p) => expect(v).toBeCloseTo(near.values[p]!, 5));
  });

  test('is nothing where it passes by', () => {
    const beside = cover([
      [-1e6, 200],
      [1e6, 200],
    ]);
    expect(beside.values.some((v) => v > 0)).toBe(false);
  });

  test('and comes back is counted as another pass', () => {
    const there = [
      [-50, 40],
      [9000, 40],
    ] as const;
    const back = [
      [9000, 41],
      [-50, 41],
    ] as const;
    const once = cover(there, 0.5, 0);
    const twice = cover([...there, ...back], 0.5, 0);
    expect(at(once, 50, 40)).toBeCloseTo(0.5, 6);
    expect(at(twice, 50, 40)).toBeCloseTo(0.75, 6);
  });

  test('points told over and over cover as one does', () => {
    const rests = cover(Array.from({ length: 40 }, () => [50, 40] as const));
    expect(rests.values).toEqual(cover([[50, 40]]).values);
  });
});
