import { createRaster } from '../raster/raster.js';
import { EDGE, rimBack } from './rim-back.js';

describe('the rim of mended things', () => {
  const pictureOf = (values: readonly number[], depth: 8 | 16 = 8) => {
    const picture = createRaster(values.length, 1, 3, depth === 16 ? 'u16' : 'u8');
    values.forEach((v, p) => picture.data.fill(v, 3 * p, 3 * p + 3));
    return picture;
  };
  const greys = (data: ArrayLike<number>): number[] =>
    Array.from({ length: data.length / 3 }, (_, p) => data[3 * p]!);

  test('is given back where it is sound, and stays mended where something bright still shows', () => {
    const rim = Int8Array.from([0, 1, 1, 1, 0]);
    const original = pictureOf([240, 130, 100, 90, 88]);
    const mended = pictureOf([92, 94, 97, 99, 70]);
    expect(greys(rimBack(original, mended, rim).data)).toEqual([92, 94, 100, 90, 70]);
  });

  test('round dark things it is what is darker that shows', () => {
    const rim = Int8Array.from([-1, -1]);
    expect(greys(rimBack(pictureOf([60, 130]), pictureOf([100, 100]), rim).data)).toEqual([
      100, 130,
    ]);
  });

  test('measures 16 bits by their own scale', () => {
    const rim = Int8Array.from([1, 1]);
    const original = pictureOf([30000, 33000], 16);
    const mended = pictureOf([29000, 29000], 16);
    expect(greys(rimBack(original, mended, rim).data)).toEqual([30000, 29000]);
  });

  test('has to show more where the ground is rough', () => {
    const rim = Int8Array.from([0, 1, 0]);
    const original = pictureOf([100, 118, 100]);
    expect(greys(rimBack(original, pictureOf([100, 104, 100]), rim).data)[1]).toBe(104);
    expect(greys(rimBack(original, pictureOf([60, 104, 140]), rim).data)[1]).toBe(118);
  });

  test('within the edge only what is hardly changed is given back, whether brighter or darker', () => {
    const rim = Int8Array.from([EDGE, EDGE, EDGE, EDGE]);
    const original = pictureOf([100, 60, 97, 140]);
    const mended = pictureOf([102, 100, 100, 101]);
    expect(greys(rimBack(original, mended, rim).data)).toEqual([100, 100, 97, 101]);
  });

  test('a change of hue alone is a change', () => {
    const original = createRaster(1, 1, 3);
    original.data.set([80, 110, 140]);
    const mended = createRaster(1, 1, 3);
    mended.data.set([110, 110, 110]);
    expect([...rimBack(original, mended, Int8Array.of(EDGE)).data]).toEqual([110, 110, 110]);
  });
});
