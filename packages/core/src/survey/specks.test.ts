import type { Speck } from './specks.js';
import { agreed } from './specks.js';

const frame = { width: 1000, height: 400 };

/** A bright speck of so many pixels in a row, of some odds. */
function speck(k: number, size: number, odds: number): Speck {
  const start = 1000 * (10 * Math.floor(k / 20) + 5) + 50 * (k % 20);
  const site = Int32Array.from(
    { length: size },
    (_, i) => start + 1000 * Math.floor(i / 40) + (i % 40),
  );
  return { site, odds, polarity: 1, level: 0, traits: { tone: 230, foreign: 0 } } as Speck;
}

const dust = Array.from({ length: 40 }, (_, k) => speck(k, 4 + (k % 3), 3));
const oddsOf = (all: readonly Speck[], size: number): number =>
  agreed(all, frame).find(({ site }) => site.length === size)!.odds;

describe('specks of a picture as a whole', () => {
  test('are alike in size: what is many times as large is less likely to be one', () => {
    const [like, large] = [speck(60, 30, 3), speck(80, 400, 3)];
    const all = [...dust, like, large];
    expect(oddsOf(all, 30)).toBeCloseTo(oddsOf(all, 5), 5);
    expect(oddsOf(all, 400)).toBeCloseTo(oddsOf(all, 30) - 2 * Math.log(400 / 40), 1);
  });

  test('tell no usual size where they are few', () => {
    const all = [...dust.slice(0, 5), speck(80, 400, 3)];
    expect(oddsOf(all, 400)).toBeCloseTo(oddsOf(all, 5), 5);
  });

  test('are told once, by the likelier', () => {
    const [a, b] = [speck(3, 6, 2), speck(3, 9, 4)];
    expect(agreed([a, b], frame).map(({ site }) => site.length)).toEqual([9]);
  });
});
