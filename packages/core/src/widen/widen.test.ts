import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { canvasFor, cropFor, NO_SIDES } from './canvas.js';
import { CannotStretch } from './jumps.js';
import { foldedBack } from './splice.js';
import { stretched } from './stretch.js';

test('canvases for wanted shapes, by hand', () => {
  // 1200 x 1800 to 1:1: 1800 x 1800, 300 px a side, a third of it invented.
  const square = canvasFor(1200, 1800, 1);
  expect(square).toMatchObject({
    width: 1800,
    height: 1800,
    sides: { left: 300, right: 300, top: 0, bottom: 0 },
  });
  expect(square.invented).toBeCloseTo(1 / 3, 12);
  // to 16:9: 3200 x 1800, 62.5 % invented.
  expect(canvasFor(1200, 1800, 16 / 9)).toMatchObject({ width: 3200, height: 1800 });
  expect(canvasFor(1200, 1800, 16 / 9).invented).toBeCloseTo(0.625, 12);
  // A landscape picture to a portrait shape grows up and down: 3000 / (4/5) = 3750.
  expect(canvasFor(3000, 2100, 4 / 5)).toMatchObject({
    height: 3750,
    sides: { top: 825, bottom: 825 },
  });
  // The subject in the middle, to stand on the left third of 1800: 600 = 600 + left.
  expect(canvasFor(1200, 1800, 1, [0.5, 0.5], [1 / 3, 0.5]).sides).toMatchObject({
    left: 0,
    right: 600,
  });
  expect(canvasFor(1200, 1800, 1, [0.25, 0.5], [1 / 3, 0.5]).sides).toMatchObject({
    left: 300,
    right: 300,
  });
  expect(cropFor(1200, 1800, 1)).toMatchObject({ width: 1200, height: 1200 });
  expect(cropFor(1200, 1800, 1).lost).toBeCloseTo(1 / 3, 12);
});

test('columns beyond the border are mirror images of those before the bar', () => {
  expect([-1, -2, -3, -4, -5, -6, -7].map((x) => foldedBack(x, 3))).toEqual([0, 1, 2, 2, 1, 0, 0]);
  expect(foldedBack(4, 3)).toBe(4);
});

describe('stretching', () => {
  const [width, height] = [160, 96];
  const random = seededRandom(2);
  const picture = createRaster(width, height, 3);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let c = 0; c < 3; c++, i++)
        picture.data[i] = 90 + 0.3 * x + 10 * c + random.between(-12, 12);
  const kept = new Uint8Array(width * height);
  for (let y = 20; y < 96; y++)
    for (let x = 62; x < 100; x++) {
      kept[y * width + x] = 1;
      picture.data.set([200, (x * 7) % 90, (y * 5) % 90], (y * width + x) * 3);
    }

  test('what is protected moves as a whole, exactly', () => {
    const sides = { left: 41, right: 18, top: 13, bottom: 0 };
    const { picture: wide } = stretched(picture, sides, kept);
    expect([wide.width, wide.height]).toEqual([219, 109]);
    for (let p = 0; p < kept.length; p++) {
      if (!kept[p]) continue;
      const [x, y] = [(p % width) + 41, Math.floor(p / width) + 13];
      for (let c = 0; c < 3; c++)
        expect(wide.data[(y * wide.width + x) * 3 + c]).toBe(picture.data[p * 3 + c]);
    }
  });

  test('texture keeps its strength and light goes on evenly', () => {
    const { picture: wide } = stretched(picture, { ...NO_SIDES, left: 48 }, kept);
    const slope = ({ data, width: w }: typeof wide, from: number, to: number): number => {
      let [sum, n] = [0, 0];
      for (let y = 0; y < height; y++)
        for (let x = from; x < to; x++, n++)
          sum += Math.abs(data[(y * w + x + 1) * 3]! - data[(y * w + x) * 3]!);
      return sum / n;
    };
    const ratio = slope(wide, 2, 100) / slope(picture, 2, 58);
    expect(ratio).toBeGreaterThan(0.9);
    expect(ratio).toBeLessThan(1.1);
    const column = (x: number): number => {
      let sum = 0;
      for (let y = 0; y < height; y++) sum += wide.data[(y * wide.width + x) * 3]!;
      return sum / height;
    };
    // 0.3 a px over 62 px became about 0.17 over 110; no two columns far apart in light.
    for (let x = 4; x < 100; x += 8)
      expect(Math.abs(column(x + 8) - column(x) - 1.4)).toBeLessThan(4);
  });

  test('nothing asked leaves the picture alone; no room is told', () => {
    expect(stretched(picture, NO_SIDES, kept).picture).toBe(picture);
    const all = new Uint8Array(width * height).fill(1);
    expect(() => stretched(picture, { ...NO_SIDES, left: 10 }, all)).toThrow(CannotStretch);
  });
});
