import { thinShare } from './ink-thin.js';

const [WIDTH, HEIGHT] = [120, 90];

/** A layer of three colours: what a function gives, on a ground of 200, 190, 170. */
function layerOf(at: (x: number, y: number) => readonly number[] | null) {
  const plane = (c: number) => ({
    width: WIDTH,
    height: HEIGHT,
    values: Float32Array.from(
      { length: WIDTH * HEIGHT },
      (_, p) => (at(p % WIDTH, Math.floor(p / WIDTH)) ?? [200, 190, 170])[c]!,
    ),
  });
  return { grey: plane(0), colours: [0, 1, 2].map(plane) };
}

const INK = [30, 40, 110];
const asked = { colour: INK, within: 18, breadth: 4 };

describe('share of a colour that is thin', () => {
  const stroke = (x: number, y: number): boolean => Math.abs(y - 20 - 6 * Math.sin(x / 9)) < 2;

  test('is all of it for strokes alone', () => {
    expect(
      thinShare(
        layerOf((x, y) => (stroke(x, y) ? INK : null)),
        asked,
      ),
    ).toBe(1);
  });

  test('is small where the picture itself has the colour', () => {
    const layer = layerOf((x, y) => (stroke(x, y) || y > 50 ? INK : null));
    expect(thinShare(layer, asked)).toBeGreaterThan(0.05);
    expect(thinShare(layer, asked)).toBeLessThan(0.2);
  });

  test('leaves out grains, and is none where the colour is not', () => {
    expect(
      thinShare(
        layerOf((x, y) => ((x * 7 + y * 3) % 31 ? null : INK)),
        asked,
      ),
    ).toBe(0);
    expect(
      thinShare(
        layerOf(() => null),
        asked,
      ),
    ).toBe(0);
  });

  test('does not depend on how far the other channels agree', () => {
    const grey = layerOf((x, y) => (stroke(x, y) ? [30, 30, 30] : null));
    expect(thinShare(grey, asked)).toBe(0);
  });
});
