import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { crop, frameOf } from '../raster/rect.js';
import { resampleBy } from '../raster/resample.js';
import { inverseOf, through } from '../shape/homography.js';
import { rotationOf, times, transposed } from './rotation.js';
import { levenberg } from '../solve/levenberg.js';
import { bareShare, cropBetween, fullRect } from './edges.js';
import { join, NothingInCommon } from './join.js';
import { NOBODY, seamsBetween } from './seams.js';

/** A wide scene of patches of chance colour. */
function scene(seed: number, width = 620, height = 300): Raster {
  const picture = createRaster(width, height, 3);
  const random = seededRandom(seed);
  picture.data.fill(120);
  for (let k = 0; k < 1400; k++) {
    const [x0, y0] = [random.between(0, width), random.between(0, height)];
    const [w, h] = [random.between(4, 30), random.between(4, 30)];
    const colour = [0, 1, 2].map(() => random.between(40, 210));
    for (let y = y0; y < Math.min(height, y0 + h); y++)
      for (let x = x0; x < Math.min(width, x0 + w); x++)
        picture.data.set(colour, (y * width + x) * 3);
  }
  return picture;
}

const SIZE = { width: 280, height: 240 };
const FOCAL = 320;
const TURNS = [
  [0.01, -0.36, 0.004],
  [-0.012, 0.01, -0.006],
  [0.006, 0.37, 0.008],
] as const;

/** Frames of a camera that turns before a flat scene, with their exposures. */
function frames(): { pictures: Raster[]; maps: number[][] } {
  const wall = scene(3);
  const toFrame = TURNS.map((t) => {
    const lens = [FOCAL, 0, (SIZE.width - 1) / 2, 0, FOCAL, (SIZE.height - 1) / 2, 0, 0, 1];
    const wallToRay = [1 / FOCAL, 0, -310 / FOCAL, 0, 1 / FOCAL, -150 / FOCAL, 0, 0, 1];
    return times(lens, times(transposed(rotationOf([...t])), wallToRay));
  });
  const pictures = toFrame.map((m, k) => {
    const back = inverseOf(m);
    const seen = resampleBy(
      wall,
      frameOf(wall),
      (x, y, to) => {
        const [u, v] = through(back, [x, y]);
        to[0] = u;
        to[1] = v;
      },
      1,
      frameOf(SIZE),
      { x: -1e4, y: -1e4, width: 2e4, height: 2e4 },
    ).raster;
    const gain = [1, 0.88, 1.1][k]!;
    for (let i = 0; i < seen.data.length; i++) seen.data[i] = Math.min(255, seen.data[i]! * gain);
    return seen;
  });
  return { pictures, maps: toFrame };
}

describe('joining', () => {
  const { pictures, maps } = frames();
  const joined = join(pictures, { projection: 'plane' });

  test('frames of a turning camera are laid over each other to a fraction of a pixel', () => {
    expect(joined.unused).toEqual([]);
    expect(Math.abs(joined.focal! - FOCAL)).toBeLessThan(0.04 * FOCAL);
    for (const k of [1, 2]) {
      const truth = times(maps[k - 1]!, inverseOf(maps[k]!));
      const found = times(inverseOf(joined.maps[k - 1]!), joined.maps[k]!);
      const off: number[] = [];
      for (let y = 10; y < SIZE.height; y += 20)
        for (let x = 10; x < SIZE.width; x += 20) {
          const [a, b] = through(truth, [x, y]);
          if (a < 0 || b < 0 || a >= SIZE.width || b >= SIZE.height) continue;
          const [u, v] = through(found, [x, y]);
          off.push(Math.hypot(u - a, v - b));
        }
      expect(off.length).toBeGreaterThan(40);
      expect(off.reduce((sum, v) => sum + v, 0) / off.length).toBeLessThan(0.15);
    }
  });

  test('the order of the frames plays no part', () => {
    const other = join([pictures[2]!, pictures[0]!, pictures[1]!], { projection: 'plane' });
    expect(other.picture.width).toBe(joined.picture.width);
    expect(
      Buffer.compare(other.picture.data as Uint8Array, joined.picture.data as Uint8Array),
    ).toBe(0);
  });

  test('different exposures are made even, and no seam is left', () => {
    const [first, middle, last] = joined.exposures as [number, number, number];
    // Encoded gains of 0.88 and 1.1, seen in linear light (about the 2.2th power); from memory, hence the wide limits.
    expect(middle - first).toBeLessThan(-0.3);
    expect(last - first).toBeGreaterThan(0.15);
    const { picture, covered } = joined;
    expect(covered[covered.length >> 1]).toBe(1);
    // The middle frame seen again in the joined picture.
    const at = picture.width >> 1;
    const part = crop(picture, {
      x: at - 60,
      y: (picture.height >> 1) - 60,
      width: 120,
      height: 120,
    });
    expect(part.data.some((v) => v === 0)).toBe(false);
  });

  test('pictures that show different things are refused, and one stranger is named', () => {
    expect(() => join([scene(8, 260, 200), scene(9, 260, 200)])).toThrow(NothingInCommon);
    const { unused } = join([pictures[0]!, scene(11, 280, 240), pictures[1]!]);
    expect(unused).toEqual([1]);
  });
});

test('least squares settle on a circle through points, an outlier counting little', () => {
  const at = Array.from({ length: 24 }, (_, k) => [5 + 3 * Math.cos(k), -2 + 3 * Math.sin(k)]);
  at[4] = [9, 9];
  const { values } = levenberg(
    [4, -1, 2.5],
    [1e-6, 1e-6, 1e-6],
    2 * at.length,
    ([x, y, r], out) =>
      at.forEach((p, k) => {
        out[2 * k] = Math.hypot(p[0]! - x!, p[1]! - y!) - r!;
        out[2 * k + 1] = 0;
      }),
    0.05,
  );
  expect(Math.hypot(values[0]! - 5, values[1]! + 2, values[2]! - 3)).toBeLessThan(0.03);
});

test('a seam goes round what only one frame shows', () => {
  const [width, height] = [60, 30];
  const plane = (thing: boolean) => {
    const values = new Float32Array(width * height).fill(100);
    if (thing)
      for (let y = 8; y < 22; y++) for (let x = 26; x < 38; x++) values[y * width + x] = 220;
    return [values, values, values];
  };
  const valid = (from: number, to: number) =>
    Uint8Array.from({ length: width * height }, (_, p) =>
      p % width >= from && p % width < to ? 1 : 0,
    );
  const owners = seamsBetween(
    [
      { planes: plane(true), valid: valid(0, 45) },
      { planes: plane(false), valid: valid(15, 58) },
    ],
    width,
    height,
  );
  const inside = new Set<number>();
  for (let y = 8; y < 22; y++) for (let x = 26; x < 38; x++) inside.add(owners[y * width + x]!);
  expect(inside.size).toBe(1);
  expect(owners[10]).toBe(0);
  expect(owners[50]).toBe(1);
  expect(owners[59]).toBe(NOBODY);
});

test('crops between that without a gap and everything, and what they would invent, by hand', () => {
  // 10 x 6: the first row is bare, and so is the last pixel of the second.
  const covered = new Uint8Array(60).fill(1);
  covered.fill(0, 0, 10);
  covered.fill(0, 19, 20);
  covered[9] = 1;
  expect(cropBetween(covered, 10, 0)).toEqual({ x: 0, y: 1, width: 9, height: 5 });
  expect(bareShare(covered, 10, { x: 0, y: 1, width: 9, height: 5 })).toBe(0);
  const all = cropBetween(covered, 10, 1);
  expect(all).toEqual({ x: 0, y: 0, width: 10, height: 6 });
  expect(bareShare(covered, 10, all)).toBeCloseTo(10 / 60, 12);
  expect(cropBetween(covered, 10, 0.5)).toEqual({ x: 0, y: 1, width: 10, height: 5 });
});

test('the largest rectangle without a gap, by trying all', () => {
  const random = seededRandom(6);
  const [width, height] = [9, 7];
  for (let trial = 0; trial < 30; trial++) {
    const covered = Uint8Array.from({ length: width * height }, () =>
      random.between(0, 5) ? 1 : 0,
    );
    let most = 0;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        for (let h = 1; y + h <= height; h++)
          for (let w = 1; x + w <= width; w++) {
            let full = true;
            for (let v = y; v < y + h && full; v++)
              for (let u = x; u < x + w && full; u++) full = covered[v * width + u] === 1;
            if (full) most = Math.max(most, w * h);
          }
    const found = fullRect(covered, width);
    expect(found.width * found.height).toBe(most);
  }
});
