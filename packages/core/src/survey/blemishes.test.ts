import { blemishesOf } from './blemishes.js';
import type { Colour } from './test-scenes.js';
import { colouredLayer } from './test-scenes.js';

const [WIDTH, HEIGHT] = [120, 100];
const CHIP = { x: 70, y: 44 };

const layer = (colourAt: (x: number, y: number) => Colour) =>
  colouredLayer(WIDTH, HEIGHT, colourAt);

/** Painted ground, lit from the left, with a little noise, and blue beyond it. */
const ground = (x: number, y: number): Colour => {
  const lit = 1 - x / 500 + 0.01 * Math.sin(12.9 * x + 78.2 * y);
  return y > 84 ? [70 * lit, 90 * lit, 150 * lit] : [208 * lit, 160 * lit, 122 * lit];
};

/** The ground with a round spot of another colour, soft at its rim. */
const spotted = (spot: Colour) => (x: number, y: number) => {
  const over = 1 / (1 + Math.exp(2 * (Math.hypot(x - CHIP.x, y - CHIP.y) - 3.5)));
  return ground(x, y).map((v, c) => v + over * (spot[c]! - v)) as unknown as Colour;
};

describe('blemishes', () => {
  test('a chip of the ground’s tone and another colour is found, at its place and size', () => {
    const [blemish, ...more] = blemishesOf(layer(spotted([156, 160, 166])));
    expect(more.filter(({ odds }) => odds > 0)).toEqual([]);
    expect(blemish!.odds).toBeGreaterThan(0);
    const xs = Array.from(blemish!.pixels, (p) => p % WIDTH);
    const ys = Array.from(blemish!.pixels, (p) => Math.floor(p / WIDTH));
    const middle = (list: readonly number[]) => list.reduce((a, b) => a + b) / list.length;
    expect(Math.abs(middle(xs) - CHIP.x)).toBeLessThan(1);
    expect(Math.abs(middle(ys) - CHIP.y)).toBeLessThan(1);
    expect(blemish!.pixels.length).toBeGreaterThan(0.6 * Math.PI * 3.5 ** 2);
    expect(blemish!.pixels.length).toBeLessThan(1.6 * Math.PI * 3.5 ** 2);
  });

  test.each<[string, Colour, 1 | -1]>([
    ['lighter', [235, 225, 215], 1],
    ['darker', [110, 60, 90], -1],
  ])('a %s one has that polarity', (_, colour, polarity) => {
    expect(blemishesOf(layer(spotted(colour)))[0]).toMatchObject({ polarity });
  });

  test('ground without one, its edge, and coloured texture tell of none', () => {
    const sure = (at: (x: number, y: number) => Colour) =>
      blemishesOf(layer(at)).filter(({ odds }) => odds > 0);
    expect(sure(ground)).toEqual([]);
    // Many such spots side by side are how the ground looks.
    const flowers = (x: number, y: number): Colour =>
      Math.hypot((x % 11) - 5, (y % 11) - 5) < 3 ? [210, 60, 70] : ground(x, y);
    expect(sure(flowers)).toEqual([]);
  });

  test('a spot of another tone alone is none', () => {
    const darker = (x: number, y: number): Colour => {
      const [r, g, b] = ground(x, y);
      const share = Math.hypot(x - CHIP.x, y - CHIP.y) < 3.5 ? 0.9 : 1;
      return [r * share, g * share, b * share];
    };
    expect(blemishesOf(layer(darker)).filter(({ odds }) => odds > 0)).toEqual([]);
  });

  test('a thing of a strong colour is none, nor is a spot where tones are steep', () => {
    const sure = (at: (x: number, y: number) => Colour) =>
      blemishesOf(layer(at)).filter(({ odds }) => odds > 0);
    const chip: Colour = [156, 160, 166];
    expect(sure(spotted([225, 25, 20]))).toEqual([]);
    const steep = (x: number, y: number): Colour => {
      const more = 60 * Math.sin(x / 1.3) * Math.sin(y / 1.7);
      return spotted(chip)(x, y).map((v) => v + more) as unknown as Colour;
    };
    expect(sure(steep)).toEqual([]);
    expect(sure(spotted(chip))).toHaveLength(1);
  });
});
