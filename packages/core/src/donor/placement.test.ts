import { seededRandom } from '../random/random.js';
import { isWhole } from '../raster/affine.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import { resample, resampleReads } from '../raster/resample.js';
import type { DonorPlacement } from './placement.js';
import { placementMap } from './placement.js';

const SIDE = 40;

function noise(depth: 'u8' | 'u16' = 'u8'): Raster {
  const random = seededRandom(3);
  const raster = createRaster(SIDE, SIDE, 3, depth);
  raster.data.forEach((_, i) => (raster.data[i] = random.between(0, depth === 'u8' ? 255 : 65535)));
  return raster;
}

/** What the target holds after laying, as pixels of the source. */
function lay(source: Raster, placement: DonorPlacement, side = 9) {
  const target = { x: 20, y: 14, width: side, height: side };
  const middle = [20 + (side - 1) / 2, 14 + (side - 1) / 2] as const;
  const map = placementMap(placement, middle);
  return { map, target, ...resample(source, frameOf(source), map, target, frameOf(source)) };
}

const at = (r: Raster, x: number, y: number): number => r.data[(y * r.width + x) * 3]!;

describe('donor placement', () => {
  test.each(['u8', 'u16'] as const)('a shift copies exactly, %s', (depth) => {
    const source = noise(depth);
    const { raster, valid } = lay(source, { dx: -7, dy: 5 });
    for (let y = 0; y < 9; y++)
      for (let x = 0; x < 9; x++) expect(at(raster, x, y)).toBe(at(source, 13 + x, 19 + y));
    expect(valid.every(Boolean)).toBe(true);
  });

  // Worked by hand: the donor box is 13..21 x 19..27; mirrored, its right column comes first.
  test('mirrors copy exactly', () => {
    const source = noise();
    const across = lay(source, { dx: -7, dy: 5, mirrorX: true }).raster;
    const down = lay(source, { dx: -7, dy: 5, mirrorY: true }).raster;
    for (let y = 0; y < 9; y++)
      for (let x = 0; x < 9; x++) {
        expect(at(across, x, y)).toBe(at(source, 21 - x, 19 + y));
        expect(at(down, x, y)).toBe(at(source, 13 + x, 27 - y));
      }
  });

  // Counter-clockwise by 90 degrees on screen, what was at the right comes to the top.
  test.each([9, 8])('right-angle turns copy exactly, counter-clockwise, %d px', (side) => {
    const source = noise();
    const { raster, map } = lay(source, { dx: -7, dy: 5, turn: 90 }, side);
    expect(isWhole(map)).toBe(true);
    for (let y = 0; y < side; y++)
      for (let x = 0; x < side; x++)
        expect(at(raster, x, y)).toBe(at(source, 13 + side - 1 - y, 19 + x));
  });

  test('four right-angle turns, or two mirrors, bring everything back', () => {
    const source = noise();
    for (const [a, b] of [
      [{ turn: 360 }, {}],
      [{ turn: 180 }, { mirrorX: true, mirrorY: true }],
      [{ turn: -90 }, { turn: 270 }],
    ])
      expect(lay(source, { dx: 3, dy: -4, ...a }).raster.data).toEqual(
        lay(source, { dx: 3, dy: -4, ...b }).raster.data,
      );
  });

  test('a plane stays a plane under any turn, scale and part of a pixel', () => {
    const plane = createRaster(SIDE, SIDE, 3, 'f32');
    for (let p = 0; p < SIDE * SIDE; p++)
      plane.data.fill(0.2 + 0.01 * (p % SIDE) + 0.005 * Math.floor(p / SIDE), 3 * p, 3 * p + 3);
    for (const way of [
      { dx: -6.25, dy: 3.5 },
      { dx: -4, dy: 4, turn: 33 },
      { dx: -4, dy: 4, scale: 2.5, mirrorX: true },
    ]) {
      const { raster, map, target } = lay(plane, way);
      for (let y = 0; y < 9; y++)
        for (let x = 0; x < 9; x++) {
          const [tx, ty] = [target.x + x, target.y + y];
          const sx = map.a * tx + map.b * ty + map.c;
          const sy = map.d * tx + map.e * ty + map.f;
          expect(at(raster, x, y)).toBeCloseTo(0.2 + 0.01 * sx + 0.005 * sy, 5);
        }
    }
  });

  test('reading only what is said to be read gives the same', () => {
    const source = noise();
    const frame = frameOf(source);
    const target = { x: 20, y: 14, width: 9, height: 7 };
    for (const way of [
      { dx: 4, dy: 9 },
      { dx: -9.5, dy: 2, turn: -20, scale: 0.5 },
    ]) {
      const map = placementMap(way, [24, 17]);
      const reads = resampleReads(map, target, frame);
      const part = createRaster(reads.width, reads.height, 3);
      for (let y = 0; y < reads.height; y++)
        for (let i = 0; i < reads.width * 3; i++)
          part.data[y * reads.width * 3 + i] =
            source.data[((reads.y + y) * SIDE + reads.x) * 3 + i]!;
      expect(resample(part, reads, map, target, frame).raster.data).toEqual(
        resample(source, frame, map, target, frame).raster.data,
      );
    }
  });

  test('says where the donor would lie outside the picture', () => {
    const { valid } = lay(noise(), { dx: 15, dy: 0 });
    expect([...valid.slice(0, 9)]).toEqual([1, 1, 1, 1, 1, 0, 0, 0, 0]);
  });
});
