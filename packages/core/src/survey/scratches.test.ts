import { scratchesOf } from './scratches.js';
import type { StrandTraits } from './strand-traits.js';
import type { Strand } from './strands.js';

const [WIDTH, HEIGHT] = [200, 160];

const traits: StrandTraits = {
  length: 100,
  height: 60,
  whole: 1,
  unsteady: 0.05,
  ground: 6,
  lopsided: 0.1,
  busy: 8,
  crowd: 0.02,
  turn: 0.01,
  straight: 0.98,
  width: 2,
  uneven: 0.1,
  extreme: 0.75,
  alike: 0.5,
  varied: 0.1,
  rough: 0.06,
  groundRough: 3,
};

/** A dark line along a row. */
const line: Strand = {
  xs: Float32Array.from({ length: 100 }, (_, i) => 40 + i),
  ys: new Float32Array(100).fill(80),
  widths: new Float32Array(100).fill(2),
  polarity: -1,
  level: 0,
  traits,
};

const frame = { width: WIDTH, height: HEIGHT };

/** What is foreign to a print: the line's row, so much, up to a column. */
function foreignPlane(most: number, until: number) {
  return {
    ...frame,
    values: Float32Array.from({ length: WIDTH * HEIGHT }, (_, p) =>
      Math.floor(p / WIDTH) === 80 && p % WIDTH < until ? most : 0,
    ),
  };
}

test('a line as broad as a rim is less likely; up to 5 px breadth does not speak against one', () => {
  const large = { width: 1200, height: 400 };
  const oddsOf = (width: number, level: number): number =>
    scratchesOf([{ ...line, level, traits: { ...traits, width } }], large, null)[0]!.odds;
  const own = (width: number, level: number): number =>
    scratchesOf(
      [{ ...line, level, traits: { ...traits, width } }],
      { width: 9999, height: 9999 },
      null,
    )[0]!.odds;
  expect(oddsOf(2.4, 1)).toBeCloseTo(own(2.4, 1), 5);
  expect(oddsOf(2.5, 2)).toBeCloseTo(own(2.5, 2) - 3 * Math.log(2), 5);
});

describe('lines on a print of one tone', () => {
  const oddsAt = (most: number | null, until = WIDTH): number =>
    scratchesOf([line], frame, most === null ? null : foreignPlane(most, until))[0]!.odds;

  test('are likelier the more foreign they are, by no more than three', () => {
    const plain = oddsAt(null);
    expect(oddsAt(22)).toBeCloseTo(plain + 0.7, 5);
    expect(oddsAt(60)).toBeCloseTo(plain + 3, 5);
  });

  test('are judged as ever where they have the tone of the print, or hardly another', () => {
    expect(oddsAt(60, 0)).toBe(oddsAt(null));
    expect(oddsAt(5)).toBe(oddsAt(null));
  });

  test('are told where the paper lies bare, though they are broad and unsteady', () => {
    const broad = {
      ...line,
      polarity: 1 as const,
      traits: {
        ...traits,
        ...{ width: 2.4, straight: 0.99, height: 45, lopsided: 0.2 },
        ...{ unsteady: 0.8, varied: 0.5, rough: 0.2 },
      },
    };
    // What is told besides is too faint to be part of a line.
    const told = (list: ReturnType<typeof scratchesOf>) => list.filter(({ odds }) => odds >= -1.8);
    expect(told(scratchesOf([broad], frame, null))).toHaveLength(0);
    expect(scratchesOf([broad], frame, foreignPlane(25, WIDTH))[0]!.odds).toBeGreaterThan(0);
    // A dark one is a stroke of a pen.
    const dark = { ...broad, polarity: -1 as const };
    expect(told(scratchesOf([dark], frame, foreignPlane(25, WIDTH)))).toHaveLength(0);
  });

  test('end where they are of the tone of the print', () => {
    const [found] = scratchesOf([line], frame, foreignPlane(40, 110));
    expect(found!.xs[0]).toBe(40);
    expect(found!.xs.at(-1)).toBe(109);
    expect(found!.widths).toHaveLength(70);
  });
});
