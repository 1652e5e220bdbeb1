import { createRaster } from '../raster/raster.js';
import { seededRandom } from '../random/random.js';
import { CUBE, cubeFrom, cubeOf, cubeText, neutralCube, resized, throughCube } from './look.js';
import { throughTones } from './stack.js';

test('a neutral cube leaves every colour as it is, at any size', () => {
  const random = seededRandom(3);
  const colours = Float32Array.from({ length: 300 }, () => random.between(0, 1000) / 1000);
  for (const size of [2, 5, CUBE, 64]) {
    const data = colours.slice();
    throughCube(data, neutralCube(size));
    data.forEach((v, k) => expect(v).toBeCloseTo(colours[k]!, 5));
  }
});

test('between the corners of a cube a colour is mixed from all eight, by hand', () => {
  const cube = neutralCube(2);
  // Only the white corner is turned to black: what is left of a colour is 1 - r g b of it.
  cube.values.fill(0, 21, 24);
  const data = Float32Array.from([0.5, 0.5, 0.5, 0.25, 1, 0.5]);
  throughCube(data, cube);
  // 0.5 - 0.5^3 = 0.375; for 0.25, 1, 0.5 the white corner weighs 0.125.
  [0.375, 0.375, 0.375, 0.125, 0.875, 0.375].forEach((v, k) => expect(data[k]).toBeCloseTo(v, 6));
});

test('a lookup-table picture of 512 x 512 px is a cube of 64; other numbers of pixels are none', () => {
  expect(cubeOf(new Float32Array(3 * 512 * 512))!.size).toBe(64);
  expect(cubeOf(new Float32Array(3 * 500 * 512))).toBeNull();
});

test('a look survives being written and works as a step, in colour also on a grey picture', () => {
  const warm = neutralCube(64);
  for (let k = 0; k < warm.values.length; k += 3) warm.values[k] = Math.sqrt(warm.values[k]!);
  const small = resized(warm, CUBE);
  const table = cubeText(small);
  expect(table).toHaveLength(4 * 3 * CUBE ** 3);
  cubeFrom({ size: CUBE, table }).values.forEach((v, k) =>
    expect(Math.abs(v - small.values[k]!)).toBeLessThan(1e-5),
  );
  const region = createRaster(1, 1, 3, 'f32');
  region.data.fill(0.5);
  const act = { kind: 'look' as const, name: 'Warm', size: CUBE, table };
  const step = { act, enabled: true, strength: 0.5, mask: null };
  const place = { width: 1, height: 1, x: 0, y: 0, scale: 1 };
  const { data } = throughTones(region, [step], place);
  // Half of the way from 0.5 to its root; 0.5 lies on a colour of the cube.
  expect(data[0]).toBeCloseTo(0.5 + (Math.SQRT1_2 - 0.5) / 2, 3);
  expect(data[1]).toBeCloseTo(0.5, 4);
});
