import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { bandsFor } from './bands.js';
import { sidesFilled } from './filled.js';

const [width, height] = [180, 320];
const random = seededRandom(8);
/** A wall over a floor; a bar of wood reaches the left edge in between. */
const room = createRaster(width, height, 3);
for (let y = 0, p = 0; y < height; y++)
  for (let x = 0; x < width; x++, p++) {
    const bar = x < 60 && y >= 120 && y < 134;
    const tone = bar ? [150, 100, 50] : y < 250 ? [110, 104, 92] : [60, 44, 30];
    for (let c = 0; c < 3; c++) room.data[3 * p + c] = tone[c]! + random.between(-5, 5);
  }
const canvas = { width: width + 80, height };
const sides = { left: 40, right: 40, top: 0, bottom: 0 };

test('a side is cut where the ground changes, and not at a thing that reaches the edge', () => {
  const bands = bandsFor(room, sides, canvas, null);
  expect(bands.map((b) => [b.rect.x, b.rect.y, b.rect.width, b.rect.height])).toEqual([
    [0, 0, 40, 250],
    [0, 250, 40, 70],
    [220, 0, 40, 250],
    [220, 250, 40, 70],
  ]);
  // A band copies from its own rows of the picture.
  for (const { rect, source } of bands) {
    expect([source.y, source.height]).toEqual([rect.y, rect.height]);
    expect([source.x, source.width]).toEqual([40, width]);
  }
});

test('the floor goes on as floor, its joint level; the picture stays what it is', () => {
  const wide = sidesFilled(room, sides, null);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width * 3; x++)
      if (wide.data[y * canvas.width * 3 + 120 + x] !== room.data[y * width * 3 + x])
        throw new Error(`changed at ${x}, ${y}`);
  const mean = (x0: number, y0: number): number => {
    let sum = 0;
    for (let y = y0; y < y0 + 6; y++)
      for (let x = x0; x < x0 + 30; x++) sum += wide.data[(y * canvas.width + x) * 3]!;
    return sum / 180;
  };
  for (const x of [4, 226]) {
    expect(Math.abs(mean(x, 242) - 110)).toBeLessThan(8);
    expect(Math.abs(mean(x, 252) - 60)).toBeLessThan(8);
    expect(Math.abs(mean(x, 305) - 60)).toBeLessThan(8);
  }
});
