import { maskCoverage, strokesCoverage } from './mask.js';
import { throughTones } from './stack.js';
import type { ToneMask, TonePlace } from './step.js';
import { createRaster } from '../raster/raster.js';

const SIZE = { width: 80, height: 60 };
const whole: TonePlace = { ...SIZE, x: 0, y: 0, scale: 1 };
const half: TonePlace = { ...SIZE, x: 0, y: 0, scale: 2 };

const square: ToneMask = {
  kind: 'outline',
  inverted: false,
  feather: 0,
  points: [
    [20, 15],
    [60, 15],
    [60, 45],
    [20, 45],
  ],
};
const gradient: ToneMask = { kind: 'gradient', inverted: false, from: [10, 30], to: [70, 30] };
const painted: ToneMask = {
  kind: 'painted',
  inverted: false,
  feather: 0,
  strokes: [
    {
      points: [
        [10, 30],
        [70, 30],
      ],
      width: 12,
    },
  ],
};

const at = (cover: Float32Array, x: number, y: number, width = SIZE.width): number =>
  cover[y * width + x]!;

test('an outline lets everything through inside and nothing outside', () => {
  const cover = maskCoverage(square, SIZE, whole);
  expect(at(cover, 40, 30)).toBe(1);
  expect(at(cover, 10, 30)).toBe(0);
  const area = cover.reduce((a, b) => a + b, 0);
  expect(area).toBeGreaterThan(39 * 29);
  expect(area).toBeLessThan(41 * 31);
});

test('a feathered outline is half through at its border and keeps its area', () => {
  const hard = maskCoverage(square, SIZE, whole);
  const soft = maskCoverage({ ...square, feather: 8 }, SIZE, whole);
  expect((at(soft, 19, 30) + at(soft, 20, 30)) / 2).toBeCloseTo(0.5, 1);
  expect(at(soft, 14, 30)).toBeGreaterThan(0.02);
  expect(at(soft, 40, 30)).toBeCloseTo(1, 2);
  const sum = (values: Float32Array): number => values.reduce((a, b) => a + b, 0);
  expect(sum(soft) / sum(hard)).toBeCloseTo(1, 2);
});

test('a gradient is nothing at its start, half in its middle, all at its end and beyond', () => {
  const cover = maskCoverage(gradient, SIZE, whole);
  expect(at(cover, 10, 30)).toBe(0);
  expect(at(cover, 2, 5)).toBe(0);
  expect(at(cover, 40, 30)).toBeCloseTo(0.5, 6);
  expect(at(cover, 70, 55)).toBe(1);
  expect(at(cover, 79, 30)).toBe(1);
});

test('a gradient of no length does not divide by it', () => {
  const cover = maskCoverage({ ...gradient, to: gradient.from }, SIZE, whole);
  expect(cover.every((v) => v >= 0 && v <= 1)).toBe(true);
});

test.each<[string, ToneMask]>([
  ['an outline', { ...square, feather: 6 }],
  ['a gradient', gradient],
  ['what is painted', painted],
])('%s turned about lets through what it kept, and the other way round', (_, mask) => {
  const cover = maskCoverage(mask, SIZE, whole);
  const other = maskCoverage({ ...mask, inverted: true }, SIZE, whole);
  for (let p = 0; p < cover.length; p++) expect(cover[p]! + other[p]!).toBeCloseTo(1, 6);
});

test.each<[string, ToneMask]>([
  ['an outline', { ...square, feather: 8 }],
  ['a gradient', gradient],
  ['what is painted', painted],
])('%s lies at the same place in a view of half the size', (_, mask) => {
  const full = maskCoverage(mask, SIZE, whole);
  const small = maskCoverage(mask, { width: 40, height: 30 }, half);
  let off = 0;
  for (let y = 0; y < 30; y++)
    for (let x = 0; x < 40; x++) {
      const four =
        (at(full, 2 * x, 2 * y) +
          at(full, 2 * x + 1, 2 * y) +
          at(full, 2 * x, 2 * y + 1) +
          at(full, 2 * x + 1, 2 * y + 1)) /
        4;
      off += Math.abs(four - at(small, x, y, 40));
    }
  expect(off / 1200).toBeLessThan(0.02);
});

test('a region cut out of the picture has its part of the mask', () => {
  const full = maskCoverage(square, SIZE, whole);
  const part = maskCoverage(square, { width: 30, height: 20 }, { ...whole, x: 50, y: 35 });
  for (let y = 0; y < 20; y++)
    for (let x = 0; x < 30; x++) expect(at(part, x, y, 30)).toBe(at(full, x + 50, y + 35));
});

test('where strokes cross, nothing is counted twice', () => {
  const strokes = [
    {
      points: [
        [10, 30],
        [70, 30],
      ],
      width: 10,
    },
    {
      points: [
        [40, 5],
        [40, 55],
      ],
      width: 10,
    },
  ] as const;
  const cover = strokesCoverage(strokes, 0.5, SIZE, whole);
  expect(Math.max(...cover)).toBeLessThanOrEqual(1);
  const alone = strokes.map((s) => strokesCoverage([s], 0.5, SIZE, whole));
  for (let p = 0; p < cover.length; p++)
    expect(cover[p]).toBe(Math.max(alone[0]![p]!, alone[1]![p]!));
});

test('a step counts by its strength and by its mask', () => {
  const region = createRaster(SIZE.width, SIZE.height, 3, 'f32');
  for (let i = 0; i < region.data.length; i++) region.data[i] = i % 3 === 0 ? 0.8 : 0.4;
  const act = { kind: 'saturation', amount: -1 } as const;
  const done = throughTones(
    region,
    [{ act, enabled: true, strength: 0.5, mask: square }],
    whole,
  ).data;
  const grey = 0.2126 * 0.8 + 0.7874 * 0.4;
  expect(done[3 * (30 * 80 + 40)]).toBeCloseTo((0.8 + grey) / 2, 5);
  expect(done[3 * (30 * 80 + 5)]).toBeCloseTo(0.8, 6);
});
