import type { Point, Raster } from '@tersum/core';
import {
  blurred,
  ciede2000,
  createRaster,
  inverseOf,
  labOfSrgb,
  seededRandom,
  through,
  unglare,
} from '@tersum/core';
import { copyMaps, copyShots, frames } from './camera.js';

/** A made-up print: patches of tone with soft edges, and grain. */
function print(width: number, height: number): Raster {
  const picture = createRaster(width, height, 3);
  const random = seededRandom(4);
  const rough = Float32Array.from({ length: width * height }, () => random.between(-100, 100));
  const patches = blurred({ width, height, values: rough }, 5).values;
  for (let p = 0; p < width * height; p++) {
    const tone = 120 + (patches[p]! > 0 ? 45 : -45) + 3 * patches[p]! + random.between(-4, 4);
    for (let c = 0; c < 3; c++) picture.data[3 * p + c] = Math.max(0, Math.min(255, tone - 6 * c));
  }
  return picture;
}

const sheet = print(360, 280);

describe('the simulated copy stand', () => {
  const shots = copyShots(sheet, 3, 5);
  const clean = copyShots(sheet, 3, 5, false);

  test('its shots differ from those without reflections only where the lamp is reflected', () => {
    const [lit, plain] = [shots[0]!, clean[0]!];
    const codes = [...lit.data];
    const off = codes.filter((v, i) => v !== plain.data[i]).length;
    expect(off).toBeGreaterThan(0.05 * lit.data.length);
    expect(off).toBeLessThan(0.4 * lit.data.length);
    expect(codes.every((v, i) => v >= plain.data[i]!)).toBe(true);
  });

  test('its maps take the corners of a shot’s print to the corners of the print', () => {
    for (const map of copyMaps(sheet, 3, 5)) {
      const [x, y] = through(inverseOf(map), [0, 0]);
      // 60 px of ground round the print, seen up to 16 px to the side.
      expect(Math.abs(x - 60)).toBeLessThanOrEqual(16);
      expect(Math.abs(y - 60)).toBeLessThanOrEqual(16);
    }
  });

  test('reflections come off: laid over each other within half a pixel, at most 2 CIEDE2000 left', () => {
    const { picture, maps } = unglare(shots);
    const own = copyMaps(sheet, 3, 5);
    const first = inverseOf(own[0]!);
    maps.forEach((map, k) => {
      const places: Point[] = [
        [80, 80],
        [220, 90],
        [150, 170],
      ];
      for (const place of places) {
        const [x, y] = through(map!, place);
        const [u, v] = through(first, through(own[k]!, place));
        expect(Math.hypot(x - u, y - v)).toBeLessThan(0.5);
      }
    });
    const lab = ({ data }: Raster, p: number) =>
      labOfSrgb(data[3 * p]! / 255, data[3 * p + 1]! / 255, data[3 * p + 2]! / 255);
    let [left, before, count] = [0, 0, 0];
    for (let p = 0; p < picture.width * picture.height; p++) {
      if (shots[0]!.data[3 * p]! - clean[0]!.data[3 * p]! < 7) continue;
      left += ciede2000(lab(picture, p), lab(clean[0]!, p));
      before += ciede2000(lab(shots[0]!, p), lab(clean[0]!, p));
      count++;
    }
    expect(before / count).toBeGreaterThan(10);
    expect(left / count).toBeLessThan(2);
  });

  test('a shot of something else is left out, and said to be', () => {
    const other = createRaster(shots[0]!.width, shots[0]!.height, 3);
    other.data.fill(128);
    expect(unglare([shots[0]!, shots[1]!, other]).maps[2]).toBeNull();
  });
});

test('the simulated camera’s frames overlap, and are the same for the same seed', () => {
  const [one, two] = [frames(sheet, 60, 3, 9), frames(sheet, 60, 3, 9)];
  expect(one).toHaveLength(3);
  expect(one[1]!.data).toEqual(two[1]!.data);
  // Three frames of 1 / 2.4 of the view each are wider than the view together.
  expect(3 * one[0]!.width).toBeGreaterThan(sheet.width);
});
