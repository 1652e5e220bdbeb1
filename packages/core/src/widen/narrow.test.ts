import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { NO_SIDES } from './canvas.js';
import { CannotStretch } from './jumps.js';
import { brokenLines } from './lines.js';
import { stretchPreview } from './preview.js';
import { leastSplice, spliceCosts } from './splice.js';
import { stretched } from './stretch.js';

test('what is left out costs the difference of the neighbours it makes: least of all ways', () => {
  const [width, height, step] = [8, 4, 2];
  const random = seededRandom(11);
  for (let trial = 0; trial < 20; trial++) {
    const values = Float32Array.from({ length: width * height }, () => random.between(0, 99));
    const open = Uint8Array.from({ length: width * height }, (_, p) =>
      p % width < width - 1 ? 1 : 0,
    );
    const costs = spliceCosts(
      [{ width, height, values }],
      -step,
      open,
      new Int32Array(height).fill(width),
    );
    // After column x the row goes on at x + 3: both pairs that meet there are compared.
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width - 1; x++) {
        const at = y * width + x;
        const wanted =
          x + step + 1 < width
            ? (Math.abs(values[at]! - values[at + step]!) +
                Math.abs(values[at + 1]! - values[at + 1 + step]!)) /
              2
            : Infinity;
        expect(costs.beside[at]).toBeCloseTo(wanted, 3);
      }
    let least = Infinity;
    const walk = (y: number, x: number, sum: number): void => {
      if (x < 0 || x >= width) return;
      const here = sum + costs.beside[y * width + x]!;
      if (y === height - 1) {
        least = Math.min(least, here);
        return;
      }
      const next = (y + 1) * width + x;
      walk(y + 1, x, here);
      walk(y + 1, x + 1, here + costs.above[next + 1]!);
      walk(y + 1, x - 1, here + costs.above[next]!);
    };
    for (let x = 0; x < width; x++) walk(0, x, 0);
    expect(leastSplice(costs, width, height)!.cost).toBeCloseTo(least, 3);
  }
});

/** Grain with a thing in the middle, and a rope that slants over the left background when asked for. */
function scene(rope: boolean) {
  const [width, height] = [260, 120];
  const random = seededRandom(3);
  const picture = createRaster(width, height, 3);
  const kept = new Uint8Array(width * height);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const thing = x >= 150 && x < 200 && y > 20;
      if (thing) kept[p] = 1;
      // The rope ends before the left third: there is room to go round it.
      const on = rope && x > 50 && x < 148 && Math.abs(y - 20 - 0.7 * (x - 50)) < 4;
      const v = thing ? (x * y) % 200 : on ? 20 : 140 + random.between(-8, 8);
      picture.data.set([v, v, v], 3 * p);
    }
  return { picture, kept, width, height };
}

test('a narrowed picture keeps the thing pixel by pixel and loses background only', () => {
  const { picture, kept, width, height } = scene(false);
  const { picture: less, factors } = stretched(
    picture,
    { ...NO_SIDES, left: -40, right: -12 },
    kept,
  );
  expect([less.width, less.height]).toEqual([width - 52, height]);
  expect(factors.left).toBeLessThan(1);
  for (let p = 0; p < kept.length; p++) {
    if (!kept[p]) continue;
    const [x, y] = [(p % width) - 40, Math.floor(p / width)];
    expect(less.data[(y * less.width + x) * 3]).toBe(picture.data[p * 3]);
  }
  // More than there is cannot be taken away.
  expect(() => stretched(picture, { ...NO_SIDES, right: -70 }, kept)).toThrow(CannotStretch);
});

test('splices go round a slanting line where they can; a line that is crossed is told', () => {
  const { picture, kept } = scene(true);
  expect(stretched(picture, { ...NO_SIDES, left: 30 }, kept).broken).toBe(0);
  const line = { from: [10, 10], to: [40, 40], lean: 45, length: 42 } as const;
  const path = new Int32Array(60).fill(25);
  expect(brokenLines([line], [{ path, step: 6 }])).toBe(1);
  // Beside the line, or with a step that is under a pixel across it, nothing is seen.
  expect(brokenLines([line], [{ path: path.map(() => 60), step: 6 }])).toBe(0);
  expect(brokenLines([{ ...line, lean: 4 }], [{ path, step: 6 }])).toBe(0);
});

test('a copy is stretched while it is dragged as the picture will be: size, thing and other axis', () => {
  const { picture, kept, width, height } = scene(false);
  const preview = stretchPreview(picture, kept, 1);
  for (const sides of [
    { ...NO_SIDES, left: 20 },
    { ...NO_SIDES, left: 20, top: 14 },
    { ...NO_SIDES, left: 33, top: 14 },
    { ...NO_SIDES, left: -24, top: 14, right: 9 },
  ]) {
    const shown = preview(sides);
    expect([shown.width, shown.height]).toEqual([
      width + sides.left + sides.right,
      height + sides.top,
    ]);
    for (let p = 0; p < kept.length; p += 7) {
      if (!kept[p]) continue;
      const [x, y] = [(p % width) + sides.left, Math.floor(p / width) + sides.top];
      expect(shown.data[(y * shown.width + x) * 3]).toBe(picture.data[p * 3]);
    }
  }
  // Asked for more than there is, it goes as far as it can.
  expect(preview({ ...NO_SIDES, right: -200 }).width).toBeGreaterThan(width - 60);
});
