import { inDoubt } from './doubt.js';
import type { Strand } from './strands.js';

const frame = { width: 400, height: 100 };
const SIDE = 200;

/** A strand of a length, px of the picture; only that and its polarity are asked for here. */
function strand(length: number, polarity: 1 | -1 = 1, level = 0): Strand {
  const n = length / 2 ** level;
  return {
    xs: new Float32Array(n),
    ys: new Float32Array(n),
    widths: new Float32Array(n),
    polarity,
    level,
    traits: {} as Strand['traits'],
  };
}

const own = strand(50);
/** Of one strand, among others of some log odds each. */
function oddsAmong(others: readonly Strand[], odds = -2): number {
  const judge = (s: Strand): number => (s === own ? 1 : odds);
  return inDoubt([own, ...others], frame, judge, { free: 0.75, each: 0.68 })(own);
}

describe('a strand among doubtful ones', () => {
  test('is less likely the longer they are in all', () => {
    expect(oddsAmong([strand(SIDE)])).toBeCloseTo(1 + 0.75 - 0.68 * Math.log(1.2), 5);
    const many = Array.from({ length: 10 }, () => strand(SIDE));
    expect(oddsAmong(many)).toBeCloseTo(1 + 0.75 - 0.68 * Math.log(10.2), 5);
    expect(oddsAmong([strand(SIDE, 1, 2)])).toBeCloseTo(oddsAmong([strand(SIDE)]), 5);
  });

  test('gains on a ground that holds none, by so much at most', () => {
    expect(oddsAmong([])).toBeCloseTo(1.8, 5);
  });

  test('does not heed what is surely none or surely one, nor what is of the other polarity', () => {
    const many = Array.from({ length: 10 }, () => strand(SIDE));
    expect(oddsAmong(many, -6)).toBeCloseTo(1.8, 5);
    expect(oddsAmong(many, 2)).toBeCloseTo(1.8, 5);
    expect(
      oddsAmong(
        many.map((s) => ({ ...s, polarity: -1 as const })),
        -2,
      ),
    ).toBeCloseTo(1.8, 5);
  });
});
