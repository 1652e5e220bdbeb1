import { NOT_FILLED } from '../fill/donor-map.js';
import type { DonorMap } from '../fill/donor-map.js';
import { createRaster } from '../raster/raster.js';
import { fillFigures, tellScore } from './fill-figures.js';
import { unsurePlaces } from './unsure.js';

const W = 40;

function stripes(inside: (x: number, y: number) => number) {
  const raster = createRaster(W, W, 1);
  const hole = new Uint8Array(W * W);
  for (let y = 0, p = 0; y < W; y++)
    for (let x = 0; x < W; x++, p++) {
      hole[p] = x >= 14 && x < 26 && y >= 14 && y < 26 ? 1 : 0;
      raster.data[p] = hole[p] ? inside(x, y) : x % 2 ? 140 : 100;
    }
  return { raster, hole };
}

function mapOf(n: number, dx: number): DonorMap {
  return {
    rect: { x: 14, y: 14, width: n, height: n },
    dx: new Int16Array(n * n).fill(dx),
    dy: new Int16Array(n * n),
    confidence: new Uint8Array(n * n).fill(255),
  };
}

describe('what gives a filling away', () => {
  test('the same texture throughout gives nothing away', () => {
    const { raster, hole } = stripes((x) => (x % 2 ? 140 : 100));
    const figures = fillFigures(raster, hole, mapOf(12, 12));
    expect(figures.seam).toBeCloseTo(1, 1);
    expect(figures.texture).toBeCloseTo(1, 1);
    expect(figures.repeats).toBe(0);
    expect(tellScore(figures)).toBeLessThan(0.1);
  });

  test('a washed-out filling has no texture, a lighter one a seam', () => {
    const flat = stripes(() => 120);
    expect(fillFigures(flat.raster, flat.hole, mapOf(12, 12)).texture).toBe(0);
    const light = stripes((x) => (x % 2 ? 220 : 180));
    const figures = fillFigures(light.raster, light.hole, mapOf(12, 12));
    expect(figures.seam).toBeGreaterThan(2.5);
    expect(figures.texture).toBeCloseTo(1, 1);
  });

  test('a column copied over and over is a repeat', () => {
    const map = mapOf(12, 0);
    for (let i = 0; i < 144; i++) map.dx[i] = -(i % 12) - 2;
    // Twelve columns all come from one: eleven in twelve were there before.
    expect(fillFigures(stripes(() => 1).raster, stripes(() => 1).hole, map).repeats).toBeCloseTo(
      11 / 12,
    );
  });
});

describe('unsure places', () => {
  test('the doubtful part of a map is named by its middle, worst first; small spots are left', () => {
    const map = mapOf(40, 3);
    const doubt = (x0: number, y0: number, n: number, sure: number): void => {
      for (let y = y0; y < y0 + n; y++)
        for (let x = x0; x < x0 + n; x++) map.confidence[y * 40 + x] = sure;
    };
    doubt(2, 2, 9, 80);
    doubt(20, 24, 11, 20);
    doubt(36, 0, 3, 0);
    map.dx[0] = NOT_FILLED;
    const [worst, second, ...more] = unsurePlaces(map);
    expect(more).toHaveLength(0);
    expect(worst).toMatchObject({ x: 14 + 25, y: 14 + 29 });
    expect(worst!.confidence).toBeCloseTo(20 / 255);
    expect(second).toMatchObject({ x: 14 + 6, y: 14 + 6 });
    expect(worst!.width).toBeGreaterThan(11);
  });
});
