import type { Layer } from '../raster/layers.js';
import { readingIn } from '../raster/layers.js';
import { seededRandom } from '../random/random.js';
import { foreignAt, withForeign } from './one-tone.js';

const [WIDTH, HEIGHT] = [160, 120];
type Colour = readonly [number, number, number];

/** A layer coloured pixel by pixel; grey by ITU-R BT.601. */
function layerOf(colourAt: (x: number, y: number) => Colour): Layer {
  const planes = Array.from({ length: 4 }, () => new Float32Array(WIDTH * HEIGHT));
  for (let y = 0, p = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, p++) {
      const [r, g, b] = colourAt(x, y);
      [0.299 * r + 0.587 * g + 0.114 * b, r, g, b].forEach((v, k) => (planes[k]![p] = v));
    }
  const [grey, ...colours] = planes.map((values) => ({ width: WIDTH, height: HEIGHT, values }));
  return { grey: grey!, colours };
}

/** Brown in the darks, cream in the lights. */
const sepia = (t: number): Colour => [
  38 + 212 * t ** 0.92,
  26 + 205 * t ** 1.03,
  20 + 175 * t ** 1.15,
];
const neutral = (t: number): Colour => [255 * t, 255 * t, 255 * t];
const toneAt = (x: number): number => 0.05 + (0.85 * x) / WIDTH;

/** A print with a square of another colour laid on it. */
const laid =
  (print: (t: number) => Colour, colour: Colour, side: number) =>
  (x: number, y: number): Colour =>
    x >= 100 && x < 100 + side && y >= 50 && y < 50 + side ? colour : print(toneAt(x));

const at = (x: number, y: number): number => y * WIDTH + x;

describe('what is foreign to a print of one tone', () => {
  test.each([
    ['a sepia print', sepia, [240, 240, 240]],
    ['a grey print', neutral, [238, 232, 222]],
  ] as const)('is told on %s by its colour', (_, print, colour) => {
    const foreign = foreignAt(readingIn(layerOf(laid(print, colour, 9))))!;
    expect(foreign(at(104, 54))).toBeGreaterThan(40);
    for (const x of [3, 60, 99, 130, 157]) expect(foreign(at(x, 54))).toBeLessThan(6);
  });

  test('is told where it is brighter than all of the print: nothing else has its grey', () => {
    const dim = (t: number): Colour => neutral(0.9 * t);
    const foreign = foreignAt(readingIn(layerOf(laid(dim, [238, 232, 222], 24))))!;
    expect(foreign(at(110, 60))).toBeGreaterThan(30);
    for (const x of [20, 90, 150]) expect(foreign(at(x, 60))).toBeLessThan(6);
  });

  test('is nothing of the same colour, however bright', () => {
    const foreign = foreignAt(readingIn(layerOf(laid(neutral, [250, 250, 250], 9))))!;
    expect(foreign(at(104, 54))).toBeLessThan(1);
  });

  test('is at most 60 levels, and noise of colours within a print is none', () => {
    const random = seededRandom(3);
    const grain = (v: number): number => v + random.between(-1, 1);
    const noisy = layerOf((x, y) => laid(sepia, [60, 90, 220], 9)(x, y).map(grain) as never);
    const foreign = foreignAt(readingIn(noisy))!;
    expect(foreign(at(104, 54))).toBe(60);
    const own = Array.from({ length: WIDTH * 40 }, (_, p) => foreign(p)).sort((a, b) => a - b);
    expect(own[own.length >> 1]).toBe(0);
    expect(own[Math.floor(0.95 * own.length)]).toBeLessThan(6);
  });

  test('is not asked of pictures in colour, nor of those of one channel', () => {
    const colours = layerOf((x, y) => [20 + x, 200 - y, (x * y) % 255]);
    expect(foreignAt(readingIn(colours))).toBeNull();
    expect(withForeign(colours)).toBeNull();
    expect(foreignAt(readingIn({ ...colours, colours: [] }))).toBeNull();
  });

  test('of a print of a single grey is told from that', () => {
    const foreign = foreignAt(readingIn(layerOf(laid(() => [120, 110, 90], [120, 120, 120], 9))))!;
    expect(foreign(at(10, 10))).toBe(0);
    expect(foreign(at(104, 54))).toBe(60);
  });

  test('becomes one more plane of a layer', () => {
    const layer = layerOf(laid(sepia, [240, 240, 240], 9));
    const foreign = foreignAt(readingIn(layer))!;
    const { grey, colours } = withForeign(layer)!;
    expect(grey).toBe(layer.grey);
    expect(colours.slice(0, 3)).toEqual(layer.colours);
    expect(Array.from(colours[3]!.values)).toEqual(
      Array.from(grey.values, (_, p) => Math.fround(foreign(p))),
    );
  });
});
