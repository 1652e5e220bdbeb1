import { ciede2000 } from '../colour/ciede2000.js';
import { labOfSrgb } from '../colour/lab.js';
import { foldsOf } from './folds.js';
import { stainsOf } from './stains.js';
import type { Colour } from './test-scenes.js';
import { colouredLayer } from './test-scenes.js';

const [WIDTH, HEIGHT] = [160, 120];

const layer = (colourAt: (x: number, y: number) => Colour) =>
  colouredLayer(WIDTH, HEIGHT, colourAt);

/** A toned print with drawing in it: blocks of four tones. */
const toned = (x: number, y: number): Colour => {
  const v = 60 + 30 * ((Math.floor(x / 10) + Math.floor(y / 10)) % 4);
  return [v + 12, v, v - 14];
};
const within = (x: number, y: number, side: number): boolean =>
  Math.abs(x - 80) < side && Math.abs(y - 60) < side;

describe('stains', () => {
  test('a stain that only tints is told by what it tints, whatever is drawn there', () => {
    const stained = layer((x, y) => {
      const [r, g, b] = toned(x, y);
      return within(x, y, 24) ? [r + 14, g, b - 26] : [r, g, b];
    });
    const stains = stainsOf(stained);
    expect(stains).toHaveLength(1);
    const [stain] = stains;
    expect(stain!.odds).toBeGreaterThan(0);
    expect(stain!.pixels.length).toBeGreaterThan(0.85 * 47 * 47);
    expect(stain!.pixels.length).toBeLessThan(1.2 * 47 * 47);
    // CIEDE2000 of a tone in the middle, as tinted and as it was.
    const [r, g, b] = [117, 105, 91];
    const tinted = labOfSrgb((r + 14) / 255, g / 255, (b - 26) / 255);
    const expected = ciede2000(tinted, labOfSrgb(r / 255, g / 255, b / 255));
    expect(Math.abs(stain!.contrast - expected)).toBeLessThan(0.25 * expected);
  });

  test('a stain that is clear at its rim alone is found whole, and what it hardly tints beside it is left', () => {
    const ringed = layer((x, y) => {
      const [r, g, b] = toned(x, y);
      const away = Math.hypot(x - 80, y - 60);
      if (away < 20) return [r + 3, g, b - 6];
      if (away < 26) return [r + 10, g, b - 20];
      return away < 60 && x > 80 ? [r + 1, g, b - 2] : [r, g, b];
    });
    const [stain] = stainsOf(ringed);
    expect(stain!.pixels.length).toBeGreaterThan(0.85 * Math.PI * 25 ** 2);
    expect(stain!.pixels.length).toBeLessThan(1.3 * Math.PI * 26 ** 2);
  });

  test('a print without a stain has none, nor has a coloured thing before a grey ground', () => {
    expect(stainsOf(layer(toned))).toEqual([]);
    const grey = (x: number, y: number): Colour => {
      const v = 60 + 30 * ((Math.floor(x / 10) + Math.floor(y / 10)) % 4);
      return [v, v, v];
    };
    const ball = layer((x, y) => {
      const [v] = grey(x, y);
      if (!within(x, y, 38)) return [v, v, v];
      // Painted in many tones, with a patch of another colour that would pass for a stain.
      return within(x, y, 12) ? [v - 30, v, v + 40] : [v + 50, v, v - 40];
    });
    expect(stainsOf(ball)).toEqual([]);
  });

  test('the shadow of a fold is as strong as it darkens a middle grey', () => {
    const plain = (y: number): Colour => [112 + y / 2, 100 + y / 2, 86 + y / 2];
    const folded = layer((x, y) => {
      const share = Math.abs(x - 80) <= 4 ? 0.8 : 1;
      const [r, g, b] = plain(y);
      return [r * share, g * share, b * share];
    });
    const [fold] = foldsOf(folded);
    const grey = (v: number) => labOfSrgb(v / 255, v / 255, v / 255);
    const expected = ciede2000(grey(0.8 * 128), grey(128));
    expect(fold!.odds).toBeGreaterThan(0);
    expect(Math.abs(fold!.contrast - expected)).toBeLessThan(0.35 * expected);
    expect(foldsOf(layer((_, y) => plain(y)))).toEqual([]);
  });

  test('where the paper breaks a shadow begins at once and fades to one side', () => {
    const broken = layer((x, y) => {
      const fade = x < 80 ? 1 : 1 - 0.16 * Math.max(0, 1 - (x - 80) / 10);
      const v = (100 + y / 2 + 2 * Math.sin(x / 9)) * fade;
      return [v + 12, v, v - 14];
    });
    const [fold] = foldsOf(broken);
    expect(fold!.odds).toBeGreaterThan(0);
    const columns = Array.from(fold!.pixels, (p) => p % WIDTH);
    expect(Math.abs(Math.min(...columns) - 80)).toBeLessThanOrEqual(1);
    // A step without an end is the edge of something.
    const edge = layer((x, y) => {
      const v = (100 + y / 2) * (x < 80 ? 1 : 0.84);
      return [v + 12, v, v - 14];
    });
    expect(foldsOf(edge)).toEqual([]);
  });
});
