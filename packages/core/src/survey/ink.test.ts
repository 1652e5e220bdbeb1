import type { Layer } from '../raster/layers.js';
import { seededRandom } from '../random/random.js';
import { inkOf } from './ink.js';
import type { Strand } from './strands.js';
import { strokePixels } from './stroke-mask.js';
import type { ToneCurve } from './tone-curve.js';

const [WIDTH, HEIGHT] = [300, 160];
const frame = { width: WIDTH, height: HEIGHT };
/** What the strokes stray from the tones of the print, as the fourth plane of a layer tells it. */
const OFF = 46;

/** Short strokes in all directions, as of handwriting that is told in pieces. */
const STROKES: Strand[] = Array.from({ length: 14 }, (_, k) => {
  const [x, y] = [30 + 18 * k, 60 + 30 * (k % 2)];
  const angle = (k * Math.PI) / 5;
  const along = Float32Array.from({ length: 24 }, (_, i) => i - 12);
  return {
    xs: along.map((t) => x + t * Math.cos(angle)),
    ys: along.map((t) => y + t * Math.sin(angle)),
    widths: along.map(() => 3),
    polarity: -1,
    level: 0,
    traits: {
      length: 24,
      height: 60,
      whole: 1,
      unsteady: 0.1,
      ground: 3,
      lopsided: 0.1,
      busy: 8,
      crowd: 0.02,
      turn: 0.02,
      straight: 0.98,
      width: 3,
      uneven: 0.05,
      extreme: 0.75,
      alike: 0.5,
      varied: 0.1,
      rough: 0.06,
      groundRough: 3,
    },
  };
});

/** A slightly warm print, and strokes of a colour on it. */
function layerOf(ink: readonly number[]): Layer {
  const random = seededRandom(3);
  const drawn = new Set(STROKES.flatMap((stroke) => [...strokePixels(stroke, frame)]));
  const plane = (c: number) => ({
    ...frame,
    values: Float32Array.from({ length: WIDTH * HEIGHT }, (_, p) => {
      if (c === 3) return drawn.has(p) ? OFF : 0;
      return random.between(-2, 2) + (drawn.has(p) ? ink[c]! : [150, 147, 142][c]!);
    }),
  });
  return { grey: plane(0), colours: [0, 1, 2, 3].map(plane) };
}

/** Of a print that is a little warm at every lightness. */
const TONE: ToneCurve = {
  labs: [],
  usual: 1,
  oneTone: true,
  at: () => ({ a: 0.5, b: 2 }),
  stray: () => 0,
};

describe('dark writing on a print of one tone', () => {
  const brown = [60, 48, 41];
  const neutral = [50, 46, 46];

  test('is told by being richer in colour than the print, though its hue be the same', () => {
    const found = inkOf(STROKES, [layerOf(brown)], TONE);
    expect(found.length).toBeGreaterThan(0);
    expect(found[0]!.odds).toBeGreaterThan(0);
    expect(found[0]!.polarity).toBe(-1);
  });

  test('is not seen in hairs, which have no more colour than the print', () => {
    expect(inkOf(STROKES, [layerOf(neutral)], TONE)).toHaveLength(0);
  });

  test('is not seen in a few strokes, which may be hairs', () => {
    const few = inkOf(STROKES.slice(0, 5), [layerOf(brown)], TONE);
    expect(few.filter(({ odds }) => odds > 0)).toHaveLength(0);
  });

  test('is not told by that in a picture in colour', () => {
    expect(inkOf(STROKES, [layerOf(brown)], null)).toHaveLength(0);
  });
});

describe('writing in a picture in colour', () => {
  const blue = [36, 45, 117];
  const written = (own: Partial<Strand['traits']>): number => {
    const strokes = STROKES.map((stroke) => ({ ...stroke, traits: { ...stroke.traits, ...own } }));
    return inkOf(strokes, [layerOf(blue)], null)[0]?.odds ?? -Infinity;
  };

  test('is told by strokes that bend and keep their tone', () => {
    expect(written({ straight: 0.35, unsteady: 0.02 })).toBeGreaterThan(0);
  });

  test('is not seen in bars, nor in what changes along itself', () => {
    expect(written({ straight: 1, unsteady: 0.1 })).toBeLessThan(0);
    expect(written({ straight: 0.35, unsteady: 0.24 })).toBeLessThan(0);
  });

  test('is told too when it is nearly of the tone of what is behind it', () => {
    const faint = [132, 129, 124];
    const strokes = STROKES.map((stroke) => ({
      ...stroke,
      traits: { ...stroke.traits, height: 18, straight: 0.35, unsteady: 0.02 },
    }));
    const { grey, colours } = layerOf(faint);
    const layers = [{ grey, colours: colours.slice(0, 3) }];
    const [first] = inkOf(strokes, layers, null);
    expect(first!.odds).toBeGreaterThan(0);
    expect(first!.colour.map(Math.round)).toEqual(faint);
    const drawn = new Set(strokes.flatMap((stroke) => [...strokePixels(stroke, frame)]));
    expect(first!.site.filter((p) => drawn.has(p)).length).toBeGreaterThan(
      0.5 * first!.site.length,
    );
    // So little stands out of the grain of a picture, too.
    const fainter = strokes.map((s) => ({ ...s, traits: { ...s.traits, height: 6 } }));
    expect(inkOf(fainter, layers, null)).toHaveLength(0);
  });
});
