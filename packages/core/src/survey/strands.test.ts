import { seededRandom } from '../random/random.js';
import type { Plane } from '../raster/plane.js';
import { strandsAt } from './strands.js';

const [WIDTH, HEIGHT] = [240, 180];

/** Grainy ground with a line of a width and a height in grey levels, its edges half covered. */
function picture(
  distance: (x: number, y: number) => number,
  {
    width = 3,
    height = 80,
    ground = () => 110,
  }: { width?: number; height?: number; ground?: (x: number) => number } = {},
): Plane {
  const random = seededRandom(7);
  const values = Float32Array.from({ length: WIDTH * HEIGHT }, (_, p) => {
    const [x, y] = [p % WIDTH, Math.floor(p / WIDTH)];
    const cover = Math.max(0, Math.min(1, width / 2 + 0.5 - Math.abs(distance(x, y))));
    return ground(x) + height * cover + random.between(-2, 2);
  });
  return { width: WIDTH, height: HEIGHT, values };
}

const slanted = (x: number, y: number): number => (y - 40 - 0.4 * x) / Math.hypot(1, 0.4);
const longest = (plane: Plane, level = 0) =>
  strandsAt(plane, level).sort((a, b) => b.xs.length - a.xs.length)[0]!;

describe('a strand', () => {
  test('runs along the line it was told from, as wide and as high as it is', () => {
    const strand = longest(picture(slanted));
    expect(strand.polarity).toBe(1);
    expect(strand.xs.length).toBeGreaterThan(200);
    strand.xs.forEach((x, i) => {
      if (x > 8 && x < WIDTH - 8) expect(Math.abs(slanted(x, strand.ys[i]!))).toBeLessThan(0.6);
    });
    const { traits } = strand;
    expect(Math.abs(traits.width - 3)).toBeLessThan(0.8);
    expect(Math.abs(traits.height - 80)).toBeLessThan(12);
    expect(traits.straight).toBeGreaterThan(0.98);
    expect(traits.whole).toBeGreaterThan(0.97);
    expect(traits.unsteady).toBeLessThan(0.08);
    expect(traits.lopsided).toBeLessThan(0.12);
  });

  test('is dark on what is lighter', () => {
    const strand = longest(picture(slanted, { height: -70 }));
    expect(strand.polarity).toBe(-1);
    expect(Math.abs(strand.traits.height - 70)).toBeLessThan(12);
  });

  test('is found the same when the picture is turned by a right angle', () => {
    const plane = picture(slanted);
    const turned: Plane = {
      width: HEIGHT,
      height: WIDTH,
      values: new Float32Array(WIDTH * HEIGHT),
    };
    for (let y = 0; y < HEIGHT; y++)
      for (let x = 0; x < WIDTH; x++)
        turned.values[x * HEIGHT + HEIGHT - 1 - y] = plane.values[y * WIDTH + x]!;
    const [one, other] = [longest(plane), longest(turned)];
    expect(Math.abs(one.xs.length - other.xs.length)).toBeLessThan(4);
    expect(other.traits.width).toBeCloseTo(one.traits.width, 1);
    expect(other.traits.height).toBeCloseTo(one.traits.height, 0);
  });

  test('that bends is less straight, and turns more', () => {
    const wave = (x: number, y: number): number => y - 90 - 30 * Math.sin(x / 22);
    const [plain, bent] = [longest(picture(slanted)), longest(picture(wave))];
    expect(bent.traits.straight).toBeLessThan(0.95);
    expect(bent.traits.turn).toBeGreaterThan(3 * plain.traits.turn);
  });

  test('along the border of two grounds is lopsided, over a changing one its sides change', () => {
    const upright = (x: number): number => x - 120;
    const border = longest(picture(upright, { ground: (x) => (x < 120 ? 60 : 150) }));
    expect(border.traits.lopsided).toBeGreaterThan(0.6);
    const level = (_x: number, y: number): number => y - 90;
    const over = longest(picture(level, { ground: (x) => 60 + 0.4 * x }));
    expect(over.traits.ground).toBeGreaterThan(15);
  });

  test('of a halved picture lies where it is in the whole one', () => {
    const strand = longest(picture(slanted), 2);
    const middle = strand.xs.length >> 1;
    const [x, y] = [(strand.xs[middle]! - 1.5) / 4, (strand.ys[middle]! - 1.5) / 4];
    expect(Math.abs(slanted(x, y))).toBeLessThan(0.6);
    expect(strand.widths[middle]! / 4).toBeCloseTo(strand.traits.width, 0);
  });

  test('is none on a plain ground with grain', () => {
    expect(
      strandsAt(
        picture(() => 1e3),
        0,
      ),
    ).toEqual([]);
  });

  test('of one polarity alone when no other is asked for', () => {
    const both = picture((x, y) => Math.min(Math.abs(slanted(x, y)), 1e3));
    for (let p = 0; p < both.values.length; p++)
      if (Math.abs(slanted(p % WIDTH, Math.floor(p / WIDTH)) - 40) < 1.5) both.values[p]! -= 80;
    const signs = (only?: 1 | -1): number[] => strandsAt(both, 0, only).map((s) => s.polarity);
    expect(new Set(signs())).toEqual(new Set([1, -1]));
    expect(new Set(signs(1))).toEqual(new Set([1]));
    expect(new Set(signs(-1))).toEqual(new Set([-1]));
  });
});
