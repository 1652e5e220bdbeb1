import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import { FILLED, towardsExpected } from './expected.js';
import { layCopies } from './laid-copies.js';

const [WIDTH, HEIGHT] = [120, 100];
type Box = readonly [left: number, top: number, right: number, bottom: number];

/** Slanted stripes of uneven strength under grain: like itself, but never twice the same. */
function stripes(): Raster {
  const random = seededRandom(6);
  const data = new Uint8Array(WIDTH * HEIGHT * 3);
  const strength = Array.from({ length: 40 }, () => random.between(15, 50));
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const along = x + y / 2;
      const tone = 128 + strength[Math.floor(along / 9) % 40]! * Math.sin(along / 1.8);
      for (let c = 0; c < 3; c++)
        data[(y * WIDTH + x) * 3 + c] = tone + random.between(-4, 4) + 6 * c;
    }
  return { width: WIDTH, height: HEIGHT, channels: 3, data };
}

/** Copies a box from so far away, and brings it towards what is expected. */
function settled(
  truth: Raster,
  [left, top, right, bottom]: Box,
  shift: number,
  share = 1,
  strengths = FILLED,
) {
  const from = new Int32Array(WIDTH * HEIGHT).fill(-1);
  const below = { ...truth, data: truth.data.slice() };
  const copied = new Float32Array(truth.data.length);
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++) {
      const p = y * WIDTH + x;
      from[p] = p + shift;
      for (let c = 0; c < 3; c++) {
        below.data[3 * p + c] = 255;
        copied[3 * p + c] = truth.data[3 * (p + shift) + c]!;
      }
    }
  const boxes = [{ x: left, y: top, width: right - left, height: bottom - top }];
  const mask = Uint8Array.from(from, (source) => (source >= 0 ? 1 : 0));
  const copies = layCopies(below, from);
  copies.colour.set(copied);
  towardsExpected(copies, mask, frameOf(below), boxes, share, strengths);
  return { colour: copies.colour as Float32Array, copied, from };
}

function meanError(colour: Float32Array, truth: Raster, from: Int32Array): number {
  let [sum, n] = [0, 0];
  from.forEach((source, p) => {
    if (source < 0) return;
    for (let c = 0; c < 3; c++) sum += Math.abs(colour[3 * p + c]! - truth.data[3 * p + c]!);
    n += 3;
  });
  return sum / n;
}

const SCRATCH: Box = [20, 46, 100, 52];

test('stripes copied out of step across a scratch come far nearer to what was there', () => {
  const truth = stripes();
  const { colour, copied, from } = settled(truth, SCRATCH, -20 * WIDTH + 4);
  expect(meanError(colour, truth, from)).toBeLessThan(0.6 * meanError(copied, truth, from));
  // Nothing outside the site is written.
  from.forEach((source, p) => source < 0 && expect(colour[3 * p]).toBe(0));
});

test('as far as asked: half a share moves less, none not at all', () => {
  const truth = stripes();
  const moved = (share: number): number => {
    const { colour, copied } = settled(truth, SCRATCH, -20 * WIDTH + 4, share);
    return colour.reduce((sum, v, i) => sum + Math.abs(v - copied[i]!), 0);
  };
  expect(moved(0)).toBe(0);
  expect(moved(0.5)).toBeGreaterThan(0);
  expect(moved(0.5)).toBeLessThan(0.8 * moved(1));
});

test('what goes on exactly beyond the rim stays as it was copied', () => {
  const data = new Uint8Array(WIDTH * HEIGHT * 3);
  for (let p = 0; p < WIDTH * HEIGHT; p++)
    data.fill((p % WIDTH) % 8 < 4 ? 200 : 60, 3 * p, 3 * p + 3);
  const truth: Raster = { width: WIDTH, height: HEIGHT, channels: 3, data };
  const { colour, copied } = settled(truth, SCRATCH, 8 * WIDTH);
  expect(colour).toEqual(copied);
});

test('a deep site stays as it was copied', () => {
  const { colour, copied } = settled(stripes(), [30, 20, 90, 80], 5);
  expect(colour).toEqual(copied);
});

test('slender sites and deeper ones become as strong as is said for each', () => {
  const truth = stripes();
  const { usual } = FILLED;
  const stronger = { ...usual, strength: 2 };
  const result = (box: Box, slender: typeof usual, deeper: typeof usual) =>
    settled(truth, box, -20 * WIDTH + 4, 1, { slender, usual: deeper }).colour;
  const crease: Box = [20, 40, 100, 60];
  expect(result(SCRATCH, usual, stronger)).toEqual(result(SCRATCH, usual, usual));
  expect(result(SCRATCH, stronger, usual)).not.toEqual(result(SCRATCH, usual, usual));
  expect(result(crease, stronger, usual)).toEqual(result(crease, usual, usual));
  expect(result(crease, usual, stronger)).not.toEqual(result(crease, usual, usual));
});

test('at the edges of the picture nothing runs away', () => {
  const truth = stripes();
  for (const box of [
    [0, 40, 8, 60],
    [112, 40, 120, 60],
    [50, 0, 70, 8],
    [50, 92, 70, 100],
  ] as const) {
    const shift = box[1] > 60 ? -20 * WIDTH : 20 * WIDTH;
    const { colour, from } = settled(truth, box, shift);
    from.forEach((source, p) => {
      if (source < 0) return;
      expect(colour[3 * p]).toBeGreaterThan(20);
      expect(colour[3 * p]).toBeLessThan(236);
    });
  }
});
