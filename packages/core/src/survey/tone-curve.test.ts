import { labOfSrgb } from '../colour/lab.js';
import { toneCurveOf } from './tone-curve.js';
import type { Colour } from './test-scenes.js';
import { colouredLayer } from './test-scenes.js';

const [WIDTH, HEIGHT] = [120, 90];

const layer = (colourAt: (x: number, y: number) => Colour) =>
  colouredLayer(WIDTH, HEIGHT, colourAt);

describe('tone of a print', () => {
  const sepia = layer((x) => [60 + x, 50 + 0.95 * x, 35 + 0.85 * x]);

  test('a print of one tone strays nowhere; blue ink strays far', () => {
    const curve = toneCurveOf(sepia);
    expect(curve.usual).toBeLessThan(1);
    expect(curve.stray(labOfSrgb(100 / 255, 88 / 255, 69 / 255))).toBeLessThan(3);
    expect(curve.stray(labOfSrgb(50 / 255, 56 / 255, 120 / 255))).toBeGreaterThan(20);
  });

  test('a picture in many colours has no tone of its own', () => {
    const many = layer((x, y) => [
      120 + 80 * Math.sin(x / 7),
      120 + 80 * Math.sin(y / 9),
      120 + 80 * Math.cos((x + y) / 11),
    ]);
    expect(toneCurveOf(many).usual).toBeGreaterThan(10);
  });

  test('a lid seen through a torn corner has no say in the tone of its lightness', () => {
    const lid = [60, 66, 70] as const;
    const torn = layer((x, y) => (y > 70 ? lid : [60 + x, 50 + 0.95 * x, 35 + 0.85 * x]));
    const [whole, other] = [toneCurveOf(sepia), toneCurveOf(torn)];
    const dark = labOfSrgb(66 / 255, 56 / 255, 41 / 255);
    expect(Math.abs(other.at(dark).b - whole.at(dark).b)).toBeLessThan(1.5);
    expect(other.stray(labOfSrgb(lid[0] / 255, lid[1] / 255, lid[2] / 255))).toBeGreaterThan(8);
  });
});
