import { chained, withoutEchoes } from './chains.js';
import type { Strand } from './strands.js';

const FRAME = { width: 600, height: 400 };
const TRAITS = {
  length: 100,
  height: 60,
  whole: 1,
  unsteady: 0.05,
  ground: 3,
  lopsided: 0.1,
  busy: 3,
  crowd: 0,
  turn: 0.01,
  straight: 1,
  width: 4,
  uneven: 0.1,
  extreme: 0.9,
  alike: 0.5,
  varied: 0.1,
  rough: 0.06,
  groundRough: 3,
};

/** A straight strand from one point towards another, a point a px. */
function strand(
  [ax, ay]: readonly [number, number],
  [bx, by]: readonly [number, number],
  more: Partial<Omit<Strand, 'traits'>> & { traits?: Partial<Strand['traits']> } = {},
): Strand {
  const n = Math.round(Math.hypot(bx - ax, by - ay)) + 1;
  const along = Float32Array.from({ length: n }, (_, k) => k / (n - 1));
  return {
    xs: along.map((t) => ax + t * (bx - ax)),
    ys: along.map((t) => ay + t * (by - ay)),
    widths: along.map(() => 4),
    polarity: -1,
    level: 0,
    ...more,
    traits: { ...TRAITS, length: n, ...more.traits },
  };
}

const OPTIONS = {
  judge: ({ traits }: Pick<Strand, 'traits'>) => traits.height / 10 - 3,
  part: 0,
  gap: { widths: 8, most: 40 },
};

describe('strands less likely than parts of chains', () => {
  const faint = { traits: { height: 20 } };
  const likely = strand([20, 80], [120, 80]);
  const all = [likely, strand([140, 80], [240, 80], faint), strand([260, 80], [360, 80], faint)];

  test('are left out unless they are asked for', () => {
    expect(chained(all, FRAME, OPTIONS).map(({ odds }) => odds)).toEqual([3]);
    expect(chained(all, FRAME, { ...OPTIONS, faint: -0.5 })).toHaveLength(1);
  });

  test('are chained among themselves, and change nothing about likelier ones', () => {
    const [first, second, ...rest] = chained(all, FRAME, { ...OPTIONS, faint: -2 });
    expect(rest).toHaveLength(0);
    expect(first!.xs).toEqual(likely.xs);
    expect(Math.min(...second!.xs)).toBe(140);
    expect(Math.max(...second!.xs)).toBe(360);
  });

  test('do not tell again what a likelier one tells, however long they are', () => {
    const echo = strand([10, 81], [150, 81], faint);
    const found = chained([echo, likely], FRAME, { ...OPTIONS, faint: -2 });
    expect(found.map(({ odds }) => odds)).toEqual([3]);
  });
});

describe('strands that go on in one another', () => {
  test('are one chain, the gap bridged straight, in order along it', () => {
    const parts = [strand([140, 80], [240, 80]), strand([20, 80], [120, 80])];
    const chains = chained(parts, FRAME, OPTIONS);
    expect(chains).toHaveLength(1);
    const { xs, ys } = chains[0]!;
    const way = Math.sign(xs.at(-1)! - xs[0]!);
    for (let i = 1; i < xs.length; i++) {
      expect((xs[i]! - xs[i - 1]!) * way).toBeGreaterThan(0);
      expect(Math.abs(xs[i]! - xs[i - 1]!)).toBeLessThan(8);
    }
    expect(Math.min(...xs)).toBe(20);
    expect(Math.max(...xs)).toBe(240);
    expect([...ys].every((y) => y === 80)).toBe(true);
  });

  test('are judged as a whole, the longer counting for more', () => {
    const [high, low] = [
      strand([20, 80], [320, 80], { traits: { height: 80 } }),
      strand([330, 80], [430, 80], { traits: { height: 40 } }),
    ];
    const [chain] = chained([high, low], FRAME, OPTIONS);
    const mean = (301 * 80 + 101 * 40) / 402;
    expect(chain!.traits.height).toBeCloseTo(mean, 3);
    expect(chain!.odds).toBeCloseTo(mean / 10 - 3, 3);
  });

  test.each([
    ['across too wide a gap', strand([170, 80], [270, 80]), {}],
    ['round a corner', strand([122, 82], [122, 180]), {}],
    ['side by side', strand([20, 90], [120, 90]), {}],
    ['of the other polarity', strand([130, 80], [230, 80], { polarity: 1 }), {}],
    ['of quite another width', strand([130, 80], [230, 80], { traits: { width: 12 } }), {}],
  ])('not %s', (_, other) => {
    expect(chained([strand([20, 80], [120, 80]), other], FRAME, OPTIONS)).toHaveLength(2);
  });

  test('go on round a gentle bend', () => {
    const bend = strand([132, 81], [230, 98]);
    expect(chained([strand([20, 80], [120, 80]), bend], FRAME, OPTIONS)).toHaveLength(1);
  });

  test('what is no part of anything is left out', () => {
    const faint = strand([130, 80], [230, 80], { traits: { height: 20 } });
    const chains = chained([strand([20, 80], [120, 80]), faint], FRAME, OPTIONS);
    expect(chains).toHaveLength(1);
    expect(Math.max(...chains[0]!.xs)).toBe(120);
  });
});

describe('echoes', () => {
  test('what lies half or more on a better one is told once', () => {
    const best = strand([20, 80], [220, 80]);
    const echo = strand([60, 81], [180, 81]);
    const crossing = strand([100, 20], [100, 200]);
    expect(withoutEchoes([best, echo, crossing], FRAME)).toEqual([best, crossing]);
  });

  test('a ring closes upon itself and stays', () => {
    const turn = Float32Array.from({ length: 200 }, (_, k) => (2 * Math.PI * k) / 200);
    const ring = {
      ...strand([0, 0], [10, 0]),
      xs: turn.map((a) => 300 + 80 * Math.cos(a)),
      ys: turn.map((a) => 200 + 80 * Math.sin(a)),
      widths: turn.map(() => 4),
    };
    expect(chained([ring], FRAME, OPTIONS)[0]!.xs).toHaveLength(200);
  });
});
