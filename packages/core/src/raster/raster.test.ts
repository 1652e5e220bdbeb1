import { LINEAR_OF_CODE } from '../colour/srgb.js';
import { psnr } from '../proof/psnr.js';
import { seededRandom } from '../random/random.js';
import { digest, digestText } from './digest.js';
import { halveForDisplay, toDisplay } from './display.js';
import { colourChannels, createRaster, depthOf, whiteOf } from './raster.js';
import { crop, EMPTY_RECT, enclose, grow, intersect, meets, shift, unite } from './rect.js';

describe('rasters', () => {
  test('know their depth, white and colour channels', () => {
    expect(depthOf(createRaster(2, 2, 3, 'u16').data)).toBe('u16');
    expect(whiteOf(new Float32Array(1))).toBe(1);
    expect([1, 2, 3, 4].map((c) => colourChannels(c as 1))).toEqual([1, 1, 3, 3]);
    expect(() => createRaster(0, 4, 1)).toThrow(RangeError);
  });

  test('are cropped by copy, within their bounds only', () => {
    const raster = createRaster(4, 3, 1);
    raster.data.forEach((_, i) => (raster.data[i] = i));
    expect([...crop(raster, { x: 1, y: 1, width: 2, height: 2 }).data]).toEqual([5, 6, 9, 10]);
    expect(() => crop(raster, { x: 3, y: 0, width: 2, height: 1 })).toThrow(RangeError);
  });
});

describe('rectangles', () => {
  const a = { x: 0, y: 0, width: 10, height: 10 };
  const b = { x: 6, y: 8, width: 10, height: 10 };

  test('meet, unite and part', () => {
    expect(intersect(a, b)).toEqual({ x: 6, y: 8, width: 4, height: 2 });
    expect(intersect(a, shift(b, 20, 0))).toEqual(EMPTY_RECT);
    expect(meets(a, b)).toBe(true);
    expect(meets(a, shift(b, 4, 0))).toBe(false);
    expect(unite(a, b)).toEqual({ x: 0, y: 0, width: 16, height: 18 });
    expect(unite(EMPTY_RECT, b)).toEqual(b);
    expect(grow(a, 2)).toEqual({ x: -2, y: -2, width: 14, height: 14 });
    expect(enclose(0.2, 0.2, 3.1, 1)).toEqual({ x: 0, y: 0, width: 5, height: 2 });
  });
});

describe('display', () => {
  test('rounds 16 bits to the nearest of 256 codes', () => {
    const raster = {
      width: 4,
      height: 1,
      channels: 1,
      data: Uint16Array.of(0, 65535, 128, 129),
    } as const;
    expect([...toDisplay(raster).data]).toEqual([0, 255, 0, 1]);
  });

  test('averages light, not codes: half black and half white is code 188', () => {
    const raster = {
      width: 2,
      height: 2,
      channels: 1,
      data: Uint8Array.of(0, 255, 255, 0),
    } as const;
    expect(halveForDisplay(raster).data[0]).toBe(188);
    expect(LINEAR_OF_CODE[188]).toBeCloseTo(0.5, 1);
  });

  test('an odd last column stands for itself', () => {
    const raster = { width: 3, height: 1, channels: 1, data: Uint8Array.of(10, 10, 200) } as const;
    expect([...halveForDisplay(raster).data]).toEqual([10, 200]);
  });
});

describe('digest', () => {
  test('tells apart what differs in one byte, in length or in order', () => {
    const random = seededRandom(1);
    const bytes = Uint8Array.from({ length: 1000 }, () => random.between(0, 255));
    const seen = new Set([
      digest(bytes),
      digest(bytes.subarray(1)),
      digest(bytes.slice().reverse()),
    ]);
    for (let i = 0; i < 1000; i++) {
      const other = bytes.slice();
      other[i]! ^= 1;
      seen.add(digest(other));
    }
    expect(seen.size).toBe(1003);
    expect(digest(bytes)).toHaveLength(32);
    expect(digestText('ab')).not.toBe(digestText('ba'));
  });
});

describe('chance', () => {
  test('is the same for a seed and even over its range', () => {
    const one = seededRandom(7);
    const two = seededRandom(7);
    const counts = new Array<number>(10).fill(0);
    for (let k = 0; k < 20_000; k++) {
      const v = one.between(0, 9);
      expect(two.between(0, 9)).toBe(v);
      counts[v]!++;
    }
    for (const n of counts) expect(Math.abs(n - 2000)).toBeLessThan(200);
  });
});

describe('PSNR', () => {
  // Worked example: every sample off by 16 of 255: 20 log10(255 / 16) = 24.05 dB.
  test('is 24.05 dB for an even error of 16 codes', () => {
    const one = createRaster(5, 5, 3);
    const two = { ...one, data: one.data.map(() => 16) };
    expect(psnr(one, two)).toBeCloseTo(24.05, 2);
    expect(psnr(one, one)).toBe(Infinity);
    expect(psnr(one, two, new Uint8Array(25).fill(1, 3, 9))).toBeCloseTo(24.05, 2);
  });
});
