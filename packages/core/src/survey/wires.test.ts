import type { StrandTraits } from './strand-traits.js';
import type { Strand } from './strands.js';
import { reachesOut, wiresOf } from './wires.js';

const frame = { width: 1000, height: 700 };

const traits: StrandTraits = {
  length: 700,
  height: 100,
  whole: 0.9,
  unsteady: 0.03,
  ground: 20,
  lopsided: 0.15,
  busy: 14,
  crowd: 0.03,
  turn: 0.006,
  straight: 0.99,
  width: 3,
  uneven: 0.05,
  extreme: 0.82,
  alike: 0.5,
  varied: 0.1,
  rough: 0.06,
  groundRough: 3,
};

/** A sagging line from border to border at some height of the picture. */
function wireAt(y: number, own: Partial<StrandTraits> = {}): Strand {
  const n = 990;
  return {
    xs: Float32Array.from({ length: n }, (_, i) => 5 + i),
    ys: Float32Array.from({ length: n }, (_, i) => y + 40 * (1 - ((2 * i) / n - 1) ** 2)),
    widths: new Float32Array(n).fill(own.width ?? traits.width),
    polarity: -1,
    level: 0,
    traits: { ...traits, length: n, ...own },
  };
}

const oddsAt = (y: number, strands: readonly Strand[]): number => {
  const found = wiresOf(strands, frame).find((w) => Math.abs(w.ys[0]! - y) < 1);
  return found!.odds;
};

/** Less steady and over busier ground: by itself no wire. */
const doubtful = { unsteady: 0.06, busy: 20, whole: 0.95 };

describe('wires in company', () => {
  const alone = oddsAt(300, [wireAt(300, doubtful)]);

  test('are likelier beside a sure one that is as dark and as broad', () => {
    const beside = oddsAt(300, [wireAt(100), wireAt(300, doubtful)]);
    expect(beside).toBeGreaterThan(alone + 1);
    expect(beside).toBeLessThanOrEqual(alone + 2.5);
  });

  test('gain no more by many than so much', () => {
    const many = [100, 180, 420, 500].map((y) => wireAt(y));
    expect(oddsAt(300, [...many, wireAt(300, doubtful)])).toBeCloseTo(alone + 2.5, 5);
  });

  test.each([
    ['of another tone', { extreme: 0.6 }],
    ['broader', { width: 5 }],
    ['fainter', { height: 55 }],
  ])('gain nothing by what is %s', (_, own) => {
    const strands = [wireAt(100, own), wireAt(300, doubtful)];
    expect(oddsAt(300, strands)).toBeCloseTo(alone, 5);
  });

  test('gain nothing by a mast', () => {
    const { ys, ...rest } = wireAt(40);
    const mast = { ...rest, xs: ys, ys: rest.xs.map((x) => 0.7 * x) };
    expect(oddsAt(300, [mast, wireAt(300, doubtful)])).toBeCloseTo(alone, 5);
  });
});

describe('wires that leave one pole', () => {
  /** A straight line from the upper border downwards to the left. */
  const from = (x: number, y: number, own: Partial<StrandTraits> = {}): Strand => {
    const n = 600;
    return {
      xs: Float32Array.from({ length: n }, (_, i) => x - 0.8 * i),
      ys: Float32Array.from({ length: n }, (_, i) => y + 0.9 * i),
      widths: new Float32Array(n).fill(own.width ?? traits.width),
      polarity: -1,
      level: 0,
      traits: { ...traits, length: n, ...own },
    };
  };
  // Of another tone and breadth than the sure one: no company by their looks.
  const thin = { ...doubtful, extreme: 0.6, width: 2 };
  const oddsFrom = (x: number, strands: readonly Strand[]): number =>
    wiresOf(strands, frame).find((w) => Math.abs(w.xs[0]! - x) < 1)!.odds;
  const alone = oddsFrom(985, [from(985, 12, thin)]);

  test('speak for one another, whatever they look like', () => {
    const sure = wireAt(12);
    expect(oddsFrom(985, [sure, from(985, 12, thin)])).toBeGreaterThan(alone + 1);
  });

  test.each([
    ['begins elsewhere', wireAt(120), thin],
    ['is much broader', wireAt(12, { width: 6 }), thin],
  ])('not one that %s', (_, sure, own) => {
    expect(oddsFrom(985, [sure, from(985, 12, own)])).toBeCloseTo(alone, 5);
  });
});

describe('lines that are no wires', () => {
  const sure = oddsAt(300, [wireAt(300)]);

  test('are bent so far as to come back: rims of things', () => {
    expect(oddsAt(300, [wireAt(300, { straight: 0.6 })])).toBeLessThan(sure - 3);
  });

  test('do not stand out from what is beside them, whatever else speaks for them', () => {
    expect(wiresOf([wireAt(300, { height: 0, whole: 0 })], frame)).toHaveLength(0);
  });

  test('are dead straight and near level: built ones', () => {
    const sloped = wireAt(300);
    const straight = { ...sloped, ys: sloped.xs.map((x) => 300 + 0.03 * x) };
    const steep = { ...sloped, ys: sloped.xs.map((x) => 300 + 0.2 * x) };
    const odds = (strand: Strand): number => wiresOf([strand], frame)[0]!.odds;
    expect(odds(straight)).toBeCloseTo(odds(steep) - 4, 5);
  });
});

test('a line reaches out when one of its ends is near the border', () => {
  const inner = (from: number, to: number): Strand => {
    const whole = wireAt(300);
    return { ...whole, xs: whole.xs.slice(from, to), ys: whole.ys.slice(from, to) };
  };
  expect(reachesOut(inner(0, 400), frame)).toBe(true);
  expect(reachesOut(inner(500, 990), frame)).toBe(true);
  expect(reachesOut(inner(200, 700), frame)).toBe(false);
});
