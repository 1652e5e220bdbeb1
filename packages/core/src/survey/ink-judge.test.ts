import { inkOdds } from './ink-judge.js';
import type { Stroke } from './ink-stroke.js';
import type { InkTraits } from './ink-traits.js';
import { inkTraits } from './ink-traits.js';

/** Some words. */
const WORDS: InkTraits = {
  count: 17,
  runs: 0.94,
  unsteady: 0.04,
  straight: 0.63,
  turn: 0.06,
  groundRough: 15,
  spread: 1.5,
  broad: 0.8,
  hue: 0,
  thin: 1,
  crisp: 0.98,
};

test.each<[string, Partial<InkTraits>]>([
  ['a single stroke', { count: 1 }],
  ['few directions', { runs: 0.3 }],
  ['a tone that changes along the strokes', { unsteady: 0.2 }],
  ['strokes that hardly bend', { turn: 0.015, straight: 0.98 }],
  ['broad grounds of the same colour beside them', { thin: 0.4 }],
  ['soft edges', { crisp: 0.6 }],
  ['a colour that strays', { spread: 7 }],
])('speaks against writing: %s', (_, other) => {
  const odds = inkOdds(WORDS);
  expect(odds).toBeGreaterThan(2);
  expect(inkOdds({ ...WORDS, ...other })).toBeLessThan(odds - 1.5);
});

test('a hue that is not the print’s speaks for writing', () => {
  expect(inkOdds({ ...WORDS, hue: 10 })).toBeGreaterThan(inkOdds(WORDS) + 2);
});

test('nothing counts beyond what has been seen', () => {
  expect(inkOdds({ ...WORDS, count: 9000 })).toBe(inkOdds({ ...WORDS, count: 90 }));
});

test('traits are means along the strokes, the longer ones counting for more', () => {
  const stroke = (angle: number, reach: number, unsteady: number): Stroke => {
    const along = Float32Array.from({ length: 13 }, (_, i) => i);
    return {
      xs: along.map((t) => 50 + t * Math.cos(angle)),
      ys: along.map((t) => 50 + t * Math.sin(angle)),
      widths: along.map(() => 3),
      polarity: -1,
      level: 0,
      colour: [30],
      spread: 2,
      reach,
      traits: { unsteady, straight: 1, turn: 0, groundRough: 4 } as Stroke['traits'],
    };
  };
  const flanks = { thin: 1, crisp: 1 };
  const one = inkTraits([stroke(0.1, 30, 0.1), stroke(0.1, 10, 0.3)], 300, 0, flanks);
  expect(one).toMatchObject({ count: 2, runs: 0, spread: 2, broad: 1 });
  expect(one.unsteady).toBeCloseTo(0.15);
  const all = Array.from({ length: 12 }, (_, k) => stroke(0.1 + (k * Math.PI) / 12, 10, 0.1));
  expect(inkTraits(all, 300, 0, flanks).runs).toBeCloseTo(1);
});
