import { labOfSrgb } from '../colour/lab.js';
import { scratchesOf } from './scratches.js';
import type { Strand, StrandTraits } from './strands.js';
import type { ToneCurve } from './tone-curve.js';

const [WIDTH, HEIGHT] = [200, 160];
const MANY_COLOURS = 12;

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

/** A layer whose pixels on the line's row are of another colour up to a column. */
function layerOf(foreign: readonly [number, number, number], until: number) {
  const own = [60, 52, 40];
  const plane = (c: number) => ({
    width: WIDTH,
    height: HEIGHT,
    values: Float32Array.from({ length: WIDTH * HEIGHT }, (_, p) =>
      Math.floor(p / WIDTH) === 80 && p % WIDTH < until ? foreign[c]! : own[c]!,
    ),
  });
  return { grey: plane(0), colours: [0, 1, 2].map(plane) };
}

function toneOf(usual: number): ToneCurve {
  const own = labOfSrgb(60 / 255, 52 / 255, 40 / 255);
  return {
    labs: [],
    at: () => ({ a: own.a, b: own.b }),
    stray: ({ a, b }) => Math.hypot(a - own.a, b - own.b),
    usual,
  };
}

describe('lines on a print of one tone', () => {
  const green = [40, 62, 50] as const;
  const oddsAt = (usual: number | null, until = WIDTH): number =>
    scratchesOf([line], layerOf(green, until), usual === null ? null : toneOf(usual))[0]!.odds;

  test('are likelier when they are of another, by no more than three', () => {
    const [plain, toned] = [oddsAt(null), oddsAt(0.3)];
    expect(toned).toBeGreaterThan(plain + 1);
    expect(toned).toBeLessThanOrEqual(plain + 3);
  });

  test('are judged as ever where the picture has many colours, or the line has the tone of the print', () => {
    expect(oddsAt(MANY_COLOURS)).toBe(oddsAt(null));
    expect(oddsAt(0.3, 0)).toBe(oddsAt(null));
  });

  test('end where they are of the tone of the print', () => {
    const [found] = scratchesOf([line], layerOf(green, 110), toneOf(0.3));
    expect(found!.xs[0]).toBe(40);
    expect(found!.xs.at(-1)).toBe(109);
    expect(found!.widths).toHaveLength(70);
  });
});
