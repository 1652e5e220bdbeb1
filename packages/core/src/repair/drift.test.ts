import { createRaster } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import { fill } from './fill.js';

/** A picture whose right part is missing, and a map that copies the last 20 known columns, a slope, over and over. */
function slopes(rise: number) {
  const [width, height, known] = [300, 30, 60];
  const below = createRaster(width, height, 3);
  const n = width * height;
  const [dx, dy] = [new Int16Array(n).fill(-32768), new Int16Array(n)];
  const coverage = new Float32Array(n);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const p = y * width + x;
      if (x < known) below.data.fill(100 + rise * (x - 40), 3 * p, 3 * p + 3);
      else {
        dx[p] = 40 + ((x - known) % 20) - x;
        coverage[p] = 1;
      }
    }
  const map = { rect: frameOf(below), dx, dy, confidence: new Uint8Array(n).fill(255) };
  return fill({ below, origin: frameOf(below), map, coverage }, 1);
}

const meanFrom = ({ data }: ReturnType<typeof slopes>, from: number): number => {
  let [sum, count] = [0, 0];
  for (let p = 0; p < data.length / 3; p++)
    if (p % 300 >= from) [sum, count] = [sum + data[3 * p]!, count + 1];
  return sum / count;
};

test('a gentle fall-off goes on beyond what was copied', () => {
  const far = meanFrom(slopes(0.25), 260);
  expect(far).toBeGreaterThan(105);
  expect(far).toBeLessThan(145);
});

test('a steep slope copied over and over does not run away', () => {
  const far = meanFrom(slopes(2), 260);
  expect(far).toBeGreaterThan(119);
  expect(far).toBeLessThan(160);
});

test('what stands beside a site lends it no colour from far', () => {
  // Grey ground, its right part missing and copied from the left; leaves stand all along the ring.
  const [width, height, known] = [300, 30, 60];
  const below = createRaster(width, height, 3);
  const n = width * height;
  const [dx, dy] = [new Int16Array(n).fill(-32768), new Int16Array(n)];
  const coverage = new Float32Array(n);
  for (let p = 0; p < n; p++) {
    const x = p % width;
    below.data.set(x >= 50 && x < known ? [70, 130, 60] : [110, 108, 104], 3 * p);
    if (x < known) continue;
    dx[p] = 10 + ((x - known) % 20) - x;
    coverage[p] = 1;
  }
  const map = { rect: frameOf(below), dx, dy, confidence: new Uint8Array(n).fill(255) };
  const { data } = fill({ below, origin: frameOf(below), map, coverage }, 1);
  const at = (x: number): number[] => [
    ...data.slice(3 * (15 * width + x), 3 * (15 * width + x + 1)),
  ];
  const [r, g, b] = at(200) as [number, number, number];
  expect(Math.max(Math.abs(r - g - 2), Math.abs(g - b - 4))).toBeLessThan(6);
});
