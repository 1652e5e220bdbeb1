import { cutAtCorners } from './corners.js';
import type { StrandTraits } from './strand-traits.js';
import type { Strand } from './strands.js';

const traits: StrandTraits = {
  length: 0,
  height: 60,
  whole: 1,
  unsteady: 0.1,
  ground: 8,
  lopsided: 0.2,
  busy: 5,
  crowd: 0.1,
  turn: 0.01,
  straight: 1,
  width: 6,
  uneven: 0.1,
  extreme: 0.9,
  alike: 0.5,
  varied: 0.1,
  rough: 0.06,
  groundRough: 3,
};

/** A strand through points, one px from each to the next. */
function strandOf(points: readonly (readonly [number, number])[], level = 0): Strand {
  return {
    xs: Float32Array.from(points, ([x]) => x),
    ys: Float32Array.from(points, ([, y]) => y),
    widths: new Float32Array(points.length).fill(6),
    polarity: 1,
    level,
    traits: { ...traits, length: points.length },
  };
}

const run = (n: number, at: (k: number) => readonly [number, number]) =>
  Array.from({ length: n }, (_, k) => at(k));

describe('strands cut at corners', () => {
  const down = run(120, (k) => [50, k]);
  const right = run(80, (k) => [50 + k, 120]);

  test('come apart where one line turns into another', () => {
    const parts = cutAtCorners([strandOf([...down, ...right])]);
    expect(parts).toHaveLength(2);
    expect(Math.abs(parts[0]!.xs.length - 120)).toBeLessThanOrEqual(2);
    expect(parts[0]!.xs.length + parts[1]!.xs.length).toBe(200);
    expect(parts.map((p) => p.traits.length)).toEqual(parts.map((p) => p.xs.length));
    expect(parts.map((p) => p.widths.length)).toEqual(parts.map((p) => p.xs.length));
  });

  test('stay whole along a bow, and where they waver', () => {
    const bow = run(300, (k) => [200 * Math.cos(k / 200), 200 * Math.sin(k / 200)]);
    const wavering = run(300, (k) => [k, 40 + 2 * Math.sin(k / 5)]);
    expect(cutAtCorners([strandOf(bow)])).toEqual([strandOf(bow)]);
    expect(cutAtCorners([strandOf(wavering)])).toEqual([strandOf(wavering)]);
  });

  test('lose what is too short to be a part', () => {
    const up = run(26, (k) => [129, 120 - k]);
    const parts = cutAtCorners([strandOf([...right, ...up])]);
    expect(parts.every((p) => p.xs.length >= 12)).toBe(true);
    expect(cutAtCorners([strandOf(run(20, (k) => [k, k % 2]))])).toHaveLength(1);
  });

  test('turn twice and come to three parts', () => {
    const back = run(90, (k) => [129, 121 + k]);
    expect(cutAtCorners([strandOf([...down, ...right, ...back])])).toHaveLength(3);
  });
});
