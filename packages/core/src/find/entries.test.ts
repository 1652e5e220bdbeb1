import { createRaster } from '../raster/raster.js';
import { entriesOf } from './entries.js';

const [WIDTH, HEIGHT] = [220, 200];

/** A picture from a function, with a round hole in its middle. */
function withHole(at: (x: number, y: number) => number, radius = 40) {
  const window = createRaster(WIDTH, HEIGHT, 3);
  const hole = new Uint8Array(WIDTH * HEIGHT);
  for (let p = 0; p < hole.length; p++) {
    const [x, y] = [p % WIDTH, Math.floor(p / WIDTH)];
    window.data.fill(at(x, y), 3 * p, 3 * p + 3);
    if (Math.hypot(x - 110, y - 100) < radius) hole[p] = 1;
  }
  return entriesOf(window, hole);
}

const SLOPE = 0.3;
/** How far below a line through the middle a point lies, px. */
const below = (x: number, y: number): number =>
  (y - 100 - SLOPE * (x - 110)) / Math.hypot(1, SLOPE);
/** A step as a lens shows it: over a px. */
const step = (d: number, from: number, to: number): number =>
  from + (to - from) * Math.max(0, Math.min(1, d + 0.5));

describe('edges that run into a site', () => {
  test('a straight edge enters on both sides, in its own direction, with its own tones', () => {
    const entries = withHole((x, y) => step(below(x, y), 60, 170));
    const [first, second] = entries.slice(0, 2) as [(typeof entries)[0], (typeof entries)[0]];
    expect(first.at[0] < 110).not.toBe(second.at[0] < 110);
    for (const { at, inward, sides, strength, sure } of [first, second]) {
      expect(Math.abs(below(at[0], at[1]))).toBeLessThan(1);
      expect(Math.abs(Math.abs(inward[1] / inward[0]) - SLOPE)).toBeLessThan(0.05);
      // Inward leads towards the middle of the hole.
      expect(inward[0] * (110 - at[0]) + inward[1] * (100 - at[1])).toBeGreaterThan(0);
      const tones = sides.map(([grey]) => Math.round(grey!));
      expect(tones.sort((a, b) => a - b)).toEqual([60, 170]);
      expect(Math.abs(strength - 110)).toBeLessThan(2);
      expect(sure).toBe(true);
    }
  });

  test('the left side is the one on the left of the way in', () => {
    const entries = withHole((x, y) => step(below(x, y), 60, 170));
    const fromLeft = entries.find(({ at }) => at[0] < 110)!;
    expect(Math.round(fromLeft.sides[0][0]!)).toBe(60);
  });

  test('plain ground and a slope of tone have none', () => {
    expect(withHole(() => 120)).toEqual([]);
    expect(withHole((x) => 40 + 0.5 * x)).toEqual([]);
  });

  test('an edge that passes by the hole does not enter it', () => {
    expect(withHole((_x, y) => step(y - 30, 60, 170))).toEqual([]);
  });

  test('a faint step is told, but not as sure', () => {
    const entries = withHole((x, y) => step(below(x, y), 100, 120));
    expect(entries.length).toBeGreaterThanOrEqual(2);
    expect(entries.every(({ sure }) => !sure)).toBe(true);
  });

  test('a bar enters by both of its edges', () => {
    const entries = withHole((_x, y) => (y >= 90 && y < 110 ? 200 : 80));
    const heights = entries.filter(({ at }) => at[0] < 110).map(({ at }) => Math.round(at[1]));
    expect(heights.some((y) => Math.abs(y - 90) <= 1)).toBe(true);
    expect(heights.some((y) => Math.abs(y - 110) <= 1)).toBe(true);
  });
});
