import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { Cancelled } from '../task/task.js';
import { blocksIn } from './blocks.js';
import { dct, inverseDct } from './dct.js';
import { deblock } from './deblock.js';
import { prepare } from './prepare.js';
import { stepsAt } from './quantization.js';

const random = seededRandom(5);
const values = Float64Array.from({ length: 64 }, () => random.between(-128, 127));

test('the transform is the one of the standard, and its inverse takes it back', () => {
  // ITU-T T.81, A.3.3, written out.
  const c = (k: number): number => (k ? 1 : Math.SQRT1_2);
  const expected = Float64Array.from({ length: 64 }, (_, i) => {
    const [v, u] = [i >> 3, i & 7];
    let sum = 0;
    for (let y = 0; y < 8; y++)
      for (let x = 0; x < 8; x++)
        sum +=
          values[8 * y + x]! *
          Math.cos(((2 * x + 1) * u * Math.PI) / 16) *
          Math.cos(((2 * y + 1) * v * Math.PI) / 16);
    return (c(u) * c(v) * sum) / 4;
  });
  const block = values.slice();
  dct(block);
  block.forEach((v, i) => expect(v).toBeCloseTo(expected[i]!, 9));
  inverseDct(block);
  block.forEach((v, i) => expect(v).toBeCloseTo(values[i]!, 9));
});

test('columns that are zero may be left out of the inverse', () => {
  const [block, whole] = [0, 1].map(() => new Float64Array(64)) as [Float64Array, Float64Array];
  for (const i of [0, 1, 8, 10, 33]) block[i] = whole[i] = values[i]!;
  inverseDct(block, 3);
  inverseDct(whole);
  expect([...block]).toEqual([...whole]);
});

test('steps at qualities: the tables themselves at 50, all ones at 100', () => {
  expect([...stepsAt(50, 'luminance').slice(0, 4)]).toEqual([16, 11, 10, 16]);
  expect([...stepsAt(50, 'chrominance').slice(0, 4)]).toEqual([17, 18, 24, 47]);
  expect(new Set(stepsAt(100, 'luminance'))).toEqual(new Set([1]));
  // Scale 5000 / 25 = 200 %: 32; and (11 * 200 + 50) / 100 rounded down.
  expect([...stepsAt(25, 'luminance').slice(0, 2)]).toEqual([32, 22]);
});

/** Soft hills with a little grain. */
function hills(side: number) {
  const picture = createRaster(side, side, 1);
  for (let y = 0, p = 0; y < side; y++)
    for (let x = 0; x < side; x++, p++)
      picture.data[p] = Math.round(
        128 +
          60 * Math.sin(x / 23 + y / 31) +
          30 * Math.sin(x / 7 - y / 11) +
          random.between(-4, 4),
      );
  return picture;
}

test('without blocks none are found; a picture smaller than a few blocks has none', () => {
  expect(blocksIn(hills(160))).toBeNull();
  expect(blocksIn(createRaster(40, 40, 3))).toBeNull();
});

test('strength 0 leaves every sample, half of it lies between, and cancelling ends it', () => {
  const picture = hills(96);
  const run = (strength: number) => {
    const into = createRaster(96, 96, 1);
    deblock(picture, { x: 0, y: 0, quality: 20, strength }, into);
    return into.data;
  };
  const [none, half, whole] = [run(0), run(0.5), run(1)];
  expect([...none]).toEqual([...picture.data]);
  expect([...whole]).not.toEqual([...picture.data]);
  half.forEach((v, i) => {
    const [low, high] = [picture.data[i]!, whole[i]!].sort((a, b) => a - b);
    expect(v).toBeGreaterThanOrEqual(low!);
    expect(v).toBeLessThanOrEqual(high!);
  });
  const ended = { signal: { aborted: true } };
  expect(() =>
    deblock(picture, { x: 0, y: 0, quality: 20, strength: 1 }, createRaster(96, 96, 1), ended),
  ).toThrow(Cancelled);
});

test('progress of a coloured picture goes forward only, to its end', () => {
  const picture = createRaster(96, 96, 3);
  for (let i = 0; i < picture.data.length; i++) picture.data[i] = random.between(0, 255);
  const shares: number[] = [];
  deblock(picture, { x: 3, y: 5, quality: 30, strength: 1 }, createRaster(96, 96, 3), {
    progress: (share) => shares.push(share),
  });
  expect(shares.length).toBeGreaterThan(4);
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  expect(shares.at(-1)!).toBeGreaterThan(0.8);
  expect(shares.at(-1)!).toBeLessThanOrEqual(1);
});

test('grey by shares of the channels: alpha and layout stay, sums are held within range', () => {
  const picture = createRaster(2, 1, 4, 'u16');
  picture.data.set([10000, 20000, 40000, 123, 65535, 65535, 65535, 9]);
  const into = createRaster(2, 1, 4, 'u16');
  prepare(picture, { grey: [0.5, 0.25, 0.25], blocks: null }, into);
  expect([...into.data]).toEqual([20000, 20000, 20000, 123, 65535, 65535, 65535, 9]);
  prepare(picture, { grey: [2, 0, 0], blocks: null }, into);
  expect([...into.data.slice(4)]).toEqual([65535, 65535, 65535, 9]);
  prepare(picture, { grey: null, blocks: null }, into);
  expect([...into.data]).toEqual([...picture.data]);
});
