import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { NO_SIDES } from './canvas.js';
import { CannotStretch } from './jumps.js';
import { brokenLines } from './lines.js';
import { stretchPreview } from './preview.js';
import { stretched } from './stretch.js';

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
  // By short steps where long ones do not fit; more than there is cannot go.
  expect(stretched(picture, { ...NO_SIDES, right: -18 }, kept).picture.width).toBe(width - 18);
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
