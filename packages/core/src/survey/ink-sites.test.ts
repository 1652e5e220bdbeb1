import { seededRandom } from '../random/random.js';
import type { Layer } from '../raster/layers.js';
import type { Stroke } from './ink-stroke.js';
import { offFrom } from './ink-letters.js';
import { inkSites } from './ink-sites.js';
import { strokePixels } from './stroke-mask.js';

const [WIDTH, HEIGHT] = [300, 160];
const INK = [30, 28, 33];
/** Nearly of the ink's colour in places, as weathered dark wood is. */
const WOOD = [46, 45, 42];
const WEATHERED = 9;

const frame = { width: WIDTH, height: HEIGHT };

/** A wave of writing, 8 px broad. */
const xs = Float32Array.from({ length: 240 }, (_, k) => 30 + k);
const wave = { xs, ys: xs.map((x) => 80 + 30 * Math.sin(x / 20)), widths: xs.map(() => 8) };
const writing = new Set(strokePixels(wave, frame));

const STROKE: Stroke = {
  ...wave,
  polarity: -1,
  level: 0,
  colour: INK,
  spread: 1,
  reach: 240,
  traits: {
    length: 240,
    height: 120,
    whole: 1,
    unsteady: 0.02,
    ground: 3,
    lopsided: 0,
    busy: 3,
    crowd: 0,
    turn: 0.02,
    straight: 0.7,
    width: 8,
    uneven: 0.05,
    extreme: 0.9,
    alike: 0.5,
    varied: 0.1,
    rough: 0.06,
    groundRough: 3,
  },
};

interface Line {
  readonly xs: Float32Array;
  readonly ys: Float32Array;
  readonly widths: Float32Array;
}

/** A line 3 px broad from 30 to 270 px at a height, as a function says. */
function thinLine(at: (x: number) => number): Line {
  return { xs, ys: xs.map(at), widths: xs.map(() => 3) };
}

/** A light ground with grain and lines of ink on it, the writing not among them. */
function layerWith(...lines: readonly Line[]): Layer {
  const layer = layerOf(() => null);
  const ink = new Set(lines.flatMap((line) => [...strokePixels(line, frame)]));
  layer.colours.forEach(({ values }, c) => {
    for (let p = 0; p < values.length; p++)
      if (ink.has(p)) values[p] = INK[c]!;
      else if (writing.has(p)) values[p] = 170 + 5 * c;
  });
  return layer;
}

/** Writing on a light ground with grain, and what else a function lays under it. */
function layerOf(other: (x: number, y: number) => readonly number[] | null): Layer {
  const random = seededRandom(5);
  const grain = Float32Array.from({ length: WIDTH * HEIGHT }, () => random.between(-2, 2));
  const weather = grain.map(() => random.between(-WEATHERED, WEATHERED));
  const at = (p: number, c: number): number => {
    if (writing.has(p)) return INK[c]!;
    const under = other(p % WIDTH, Math.floor(p / WIDTH));
    return under ? under[c]! + weather[p]! : 170 + 5 * c;
  };
  const plane = (c: number) => ({ ...frame, values: grain.map((noise, p) => noise + at(p, c)) });
  return { grey: plane(0), colours: [0, 1, 2].map(plane) };
}

function found(layer: Layer, strokes: readonly Stroke[] = [STROKE], loose = 1): Set<number> {
  const ink = { strokes, off: offFrom(layer, INK, 1), loose };
  return new Set(inkSites(layer, ink, new Uint8Array(WIDTH * HEIGHT)).flatMap((s) => [...s]));
}

const share = (of: ReadonlySet<number>, met: ReadonlySet<number>): number =>
  [...of].filter((p) => met.has(p)).length / of.size;

describe('where ink lies', () => {
  test('the whole of the writing, and little beyond its soft edge', () => {
    const site = found(layerOf(() => null));
    expect(share(writing, site)).toBeGreaterThan(0.99);
    expect(site.size).toBeLessThan(1.6 * writing.size);
  });

  test('not what is nearly of its colour and hangs on it', () => {
    const beam = (x: number, y: number): boolean => Math.abs(y - 80 - 0.15 * (x - 150)) < 5;
    const site = found(layerOf((x, y) => (beam(x, y) ? WOOD : null)));
    expect(share(writing, site)).toBeGreaterThan(0.9);
    const away = Array.from({ length: WIDTH * HEIGHT }, (_, p) => p).filter((p) => {
      const [x, y] = [p % WIDTH, Math.floor(p / WIDTH)];
      return beam(x, y) && xs.every((cx, i) => Math.hypot(cx - x, wave.ys[i]! - y) > 9);
    });
    expect(away.length).toBeGreaterThan(500);
    expect(share(new Set(away), site)).toBeLessThan(0.05);
  });

  test('ink whose tone changes with the ground below it is not torn apart', () => {
    const layer = layerOf(() => null);
    for (const { values } of layer.colours)
      for (const p of writing) if (p % WIDTH > 150) values[p]! += 13;
    expect(share(writing, found(layer))).toBeGreaterThan(0.95);
  });

  test('a letter slightly off the colour of the others that is nearly as crisp as they are', () => {
    const ys = Float32Array.from({ length: 40 }, (_, k) => 100 + k);
    const bar = { ys, xs: ys.map((y) => 285 + 2 * Math.sin(y / 4)), widths: ys.map(() => 8) };
    const letter = new Set(strokePixels(bar, frame));
    const layer = layerOf(() => null);
    // A shadow beside it, where its edge is no clear step.
    layer.colours.forEach(({ values }, c) => {
      for (let p = 0; p < values.length; p++) {
        const [x, y] = [p % WIDTH, Math.floor(p / WIDTH)];
        if (letter.has(p)) values[p] = INK[c]! + 5.3;
        else if (x > 285 && y >= 108 && y < 118) values[p] = INK[c]! + 24;
      }
    });
    const stroke = { ...STROKE, ...bar, reach: 40, spread: 5 };
    expect(share(letter, found(layer, [STROKE, stroke]))).toBeGreaterThan(0.9);
  });

  test('a word that winds within a narrow band is no bar, a straight line is', () => {
    const word = thinLine((x) => 60 + 4.5 * Math.sin(x / 1.9));
    const bar = thinLine(() => 110);
    const strokes = [word, bar].map((line) => ({ ...STROKE, ...line }));
    const site = found(layerWith(word, bar), strokes);
    expect(share(new Set(strokePixels(word, frame)), site)).toBeGreaterThan(0.95);
    expect(share(new Set(strokePixels(bar, frame)), site)).toBe(0);
  });

  test('a straight line of a foreign ink is ink', () => {
    const bar = thinLine(() => 110);
    const site = found(layerWith(bar), [{ ...STROKE, ...bar }], 2.2);
    expect(share(new Set(strokePixels(bar, frame)), site)).toBeGreaterThan(0.95);
  });

  test('words further on that no crest was found on, and those after them, if their edges are clear', () => {
    const word = (from: number): Line => {
      const part = Float32Array.from({ length: 40 }, (_, k) => from + k);
      return {
        xs: part,
        ys: part.map((x) => 60 + 9 * Math.sin(x / 3)),
        widths: part.map(() => 4),
      };
    };
    const [first, next, last] = [word(40), word(100), word(160)];
    const layer = layerWith(first, next, last);
    const strokes = [{ ...STROKE, ...first }];
    const inside = (line: Line, site: ReadonlySet<number>): number =>
      share(new Set(strokePixels(line, frame)), site);
    const site = found(layer, strokes);
    expect(inside(next, site)).toBeGreaterThan(0.95);
    expect(inside(last, site)).toBeGreaterThan(0.95);
    // Ground of nearly its tone beside the lower half of the last one.
    for (const { values } of layer.colours)
      for (let p = 0; p < values.length; p++)
        if (p % WIDTH > 155 && p > 62 * WIDTH && values[p]! > 100) values[p] = 52;
    const unclear = found(layer, strokes);
    expect(inside(next, unclear)).toBeGreaterThan(0.95);
    expect(inside(last, unclear)).toBe(0);
  });

  test('a small piece beside letters that no crest was found on, if all its edge is clear', () => {
    const letters = thinLine((x) => 60 + 9 * Math.sin(x / 3));
    const layer = layerWith(letters);
    const piece = new Set<number>();
    for (let y = 78; y < 90; y++) for (let x = 100; x < 105; x++) piece.add(y * WIDTH + x);
    layer.colours.forEach(({ values }, c) => {
      for (const p of piece) values[p] = INK[c]!;
    });
    const strokes = [{ ...STROKE, ...letters }];
    expect(share(piece, found(layer, strokes))).toBe(1);
    // Ground of nearly its tone to the left of it.
    for (const { values } of layer.colours)
      for (let y = 78; y < 90; y++)
        for (let x = 92; x < 100; x++) if (y < 86) values[y * WIDTH + x] = 52;
    expect(share(piece, found(layer, strokes))).toBe(0);
  });

  test('pixels that are taken stay taken', () => {
    const taken = new Uint8Array(WIDTH * HEIGHT).fill(1);
    const layer = layerOf(() => null);
    const ink = { strokes: [STROKE], off: offFrom(layer, INK, 1), loose: 1 };
    expect(inkSites(layer, ink, taken)).toEqual([]);
  });
});
