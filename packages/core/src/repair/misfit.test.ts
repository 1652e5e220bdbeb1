import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import { nodesAlong, SQUARE } from '../predict/tile.js';
import { layCopies } from './laid-copies.js';
import { misfitIn } from './misfit.js';

const [WIDTH, HEIGHT] = [80, 60];

function draw(tone: (x: number, y: number) => number): Raster {
  const data = new Uint8Array(WIDTH * HEIGHT);
  for (let p = 0; p < data.length; p++) data[p] = tone(p % WIDTH, Math.floor(p / WIDTH));
  return { width: WIDTH, height: HEIGHT, channels: 1, data };
}

/** The misfit all over, of a site in the middle that is copied from so far to the side. */
function misfitOf(picture: Raster, shift: number): Float32Array {
  const from = new Int32Array(WIDTH * HEIGHT).fill(-1);
  for (let y = 26; y < 34; y++)
    for (let x = 30; x < 40; x++) from[y * WIDTH + x] = y * WIDTH + x + shift;
  const mask = Uint8Array.from(from, (source) => (source >= 0 ? 1 : 0));
  return misfitIn(layCopies(picture, { from, mask }, 0), frameOf(picture));
}

/** The misfit of the square a pixel lies in. */
const told = (misfit: Float32Array, x: number, y: number): number =>
  misfit[(Math.floor(y / SQUARE) + 1) * nodesAlong(WIDTH) + Math.floor(x / SQUARE) + 1]!;

test('a pattern copied in step fits, whatever the tone; out of step it does not', () => {
  const pattern = draw((x, y) => 100 + (x % 8 < 4 ? 40 : 0) + (y % 6 < 3 ? 20 : 0) + x / 2);
  const inStep = misfitOf(pattern, 16);
  expect(told(inStep, 31, 27)).toBeLessThan(0.01);
  expect(told(inStep, 38, 32)).toBeLessThan(0.01);
  const outOfStep = misfitOf(pattern, 18);
  expect(told(outOfStep, 31, 27)).toBeGreaterThan(0.3);
});

test('noise has nothing to do with noise: about 1', () => {
  const random = seededRandom(4);
  const grain = draw(() => 128 + random.between(-30, 30));
  const misfit = misfitOf(grain, 20);
  for (const [x, y] of [
    [30, 26],
    [35, 30],
    [39, 33],
  ] as const) {
    expect(told(misfit, x, y)).toBeGreaterThan(0.6);
    expect(told(misfit, x, y)).toBeLessThanOrEqual(1);
  }
});

test('far from any rim nothing is known: 1', () => {
  const flat = draw(() => 90);
  expect(told(misfitOf(flat, 20), 5, 5)).toBe(1);
});
