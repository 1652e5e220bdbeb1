import { sampleAt } from '../raster/plane.js';
import { seededRandom } from '../random/random.js';
import type { Course } from './crease-run.js';
import { followedOn, toTheBorder } from './crease-run.js';
import type { Paper } from './paper.js';

const [WIDTH, HEIGHT] = [400, 200];
const PAPER = 230;

/** Where the crease is at a column: it wanders by a few px about its slope. */
function middleAt(x: number): number {
  return 90 + 0.1 * x + 4 * Math.sin(x / 40);
}

/** A busy dark ground with paper along the crease from column 0 to `end`, besides what else lies there. */
function ground(end: number, other: (x: number, y: number) => number | null = () => null): Paper {
  const random = seededRandom(3);
  const values = new Float32Array(WIDTH * HEIGHT);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const noise = random.between(-20, 20);
      const paper = x < end && Math.abs(y - middleAt(x)) < 6;
      values[y * WIDTH + x] = paper ? PAPER : (other(x, y) ?? 90 + noise);
    }
  const plane = { width: WIDTH, height: HEIGHT, values };
  return { ...plane, at: (x, y) => sampleAt(plane, x, y) };
}

/** What is known of the crease: its first columns. */
const KNOWN: Course = {
  xs: Float32Array.from({ length: 120 }, (_, x) => x),
  ys: Float32Array.from({ length: 120 }, (_, x) => middleAt(x)),
  widths: new Float32Array(120).fill(12),
};

function farOff({ xs, ys }: Course): number {
  return Math.max(...xs.map((x, i) => Math.abs(ys[i]! - middleAt(x))));
}

describe('creases followed on', () => {
  test('beyond a crossing one and a pale place, up to the border', () => {
    const other = (x: number, y: number): number | null =>
      Math.abs(x - 170 - 0.2 * y) < 6 ? PAPER : x > 230 && x < 290 ? 228 : null;
    const course = followedOn(ground(WIDTH, other), KNOWN, PAPER);
    expect(course.xs.at(-1)).toBeGreaterThan(WIDTH - 12);
    expect(farOff(course)).toBeLessThan(6);
  });

  test('no further than there is paper', () => {
    const course = followedOn(ground(250), KNOWN, PAPER);
    expect(course.xs.at(-1)).toBeGreaterThan(235);
    expect(course.xs.at(-1)).toBeLessThan(260);
  });

  test('not at all where nothing goes on', () => {
    expect(followedOn(ground(120), KNOWN, PAPER)).toEqual(KNOWN);
  });

  test('across ground as pale as paper straight to the border, across dark ground not', () => {
    const pale = toTheBorder(
      ground(120, (x) => (x > 110 ? 232 : null)),
      KNOWN,
      PAPER,
    );
    expect(pale.xs.at(-1)).toBeGreaterThan(WIDTH - 3);
    const dark = toTheBorder(ground(120), KNOWN, PAPER);
    expect(dark.xs.at(-1)).toBe(119);
  });
});
