import type { Weights } from './judge.js';
import { oddsOf, SCRATCH_WEIGHTS, scoreOf, WIRE_WEIGHTS } from './judge.js';
import type { StrandTraits } from './strand-traits.js';

const traits: StrandTraits = {
  length: 80,
  height: 40,
  whole: 0.9,
  unsteady: 0.2,
  ground: 8,
  lopsided: 0.2,
  busy: 5,
  crowd: 0.02,
  turn: 0.02,
  straight: 0.9,
  width: 2,
  uneven: 0.2,
  extreme: 0.7,
  alike: 0.4,
  varied: 0.2,
  rough: 0.1,
  groundRough: 3,
};

/** Nothing speaks but what is given. */
function weights(
  more: Partial<Omit<Weights, 'each'>> & { each?: Partial<Weights['each']> },
): Weights {
  const names = Object.keys(SCRATCH_WEIGHTS.each) as (keyof Weights['each'])[];
  const none = Object.fromEntries(
    names.map((name) => [name, [0, 0]]),
  ) as unknown as Weights['each'];
  return {
    bias: 0,
    finest: 0,
    coarse: 0,
    bright: 0,
    together: [],
    ...more,
    each: { ...none, ...more.each },
  };
}

const at = (level: number, polarity: 1 | -1 = 1, more: Partial<StrandTraits> = {}) => ({
  level,
  polarity,
  traits: { ...traits, ...more },
});

describe('the log odds of a strand', () => {
  const long = Math.log(80 / 40);

  test('are a sum of readings, squares, levels and products (worked example)', () => {
    const w = weights({
      ...{ bias: 1, finest: 0.5, coarse: -0.5, bright: 0.25 },
      each: { long: [2, 3, 4, 5] },
      together: [['long', 'high', 6]],
    });
    const common = 1 + 2 * long + 3 * long ** 2 + 6 * long * Math.log(40 / 20);
    expect(oddsOf(at(0), w)).toBeCloseTo(common + 0.5 + 4 * long + 0.25, 9);
    expect(oddsOf(at(1, -1), w)).toBeCloseTo(common - 0.25, 9);
    expect(oddsOf(at(3), w)).toBeCloseTo(common - 0.5 + 5 * long + 0.25, 9);
  });

  test('count nothing beyond what has been seen', () => {
    const w = weights({ each: { long: [1, 0] } });
    expect(oddsOf(at(0, 1, { length: 1e6 }), w)).toBe(oddsOf(at(0, 1, { length: 1e9 }), w));
    expect(oddsOf(at(0, 1, { length: 1500 }), w)).toBeLessThan(Math.log(1500 / 40));
  });

  test('of hairs and wires fall where the ground is busy, and where the tone changes along', () => {
    for (const w of [SCRATCH_WEIGHTS, WIRE_WEIGHTS]) {
      const own = oddsOf(at(0), w);
      expect(oddsOf(at(0, 1, { busy: 20 }), w)).toBeLessThan(own - 0.3);
      expect(oddsOf(at(0, 1, { varied: 2, rough: 1 }), w)).toBeLessThan(own - 0.3);
    }
  });

  test('become a score: even is a half', () => {
    expect(scoreOf(0)).toBe(0.5);
    expect(scoreOf(Math.log(3))).toBeCloseTo(0.75, 9);
  });
});
