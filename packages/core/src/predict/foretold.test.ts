import { Matrix, solve } from 'ml-matrix';
import { seededRandom } from '../random/random.js';
import type { BringOptions } from './bring.js';
import { bring } from './bring.js';
import { BEFORE, REACH } from './half-plane.js';
import type { Tile, TileRoom } from './tile.js';
import { BLOCK, FOUND, LANES, openTiles } from './tile.js';

type Draw = (x: number, y: number) => number;

/** A tile in a room of its own. */
type Drawn = Tile & { readonly tiles: TileRoom };

/** A tile drawn in three colours, the second and third a little off the first. */
function tileOf(width: number, height: number, draw: Draw, unknown: Draw): Drawn {
  const tiles = openTiles(width, height, 1);
  const tile = tiles.lay(0, width, height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const cell = y * tile.stride + x;
      tile.unknown[cell] = unknown(x, y);
      for (let c = 0; c < 3; c++) tile.values[LANES * cell + c] = draw(x, y) + 5 * c;
    }
  return { ...tile, tiles };
}

/** Goes over to what is foretold wholly, no detail put back. @returns how many runs were foretold */
function told({ tiles, record, grid, detail }: Drawn, options?: BringOptions): number {
  grid.fill(1);
  detail.set([0, 1, 2]);
  bring(tiles, 1, options);
  return record[FOUND]!;
}

const inBox =
  (left: number, top: number, right: number, bottom: number): Draw =>
  (x, y) =>
    x >= left && x < right && y >= top && y < bottom ? 1 : 0;

/** Values drawn once, so that they can be asked for in any order. */
function noise(width: number, height: number, seed: number, size: number): Draw {
  const random = seededRandom(seed);
  const values = Float32Array.from({ length: width * height }, () => random.between(-size, size));
  return (x, y) => values[y * width + x]!;
}

/** Hides what stands in the unknown cells behind another value. */
function hide(tile: Tile, by: number): void {
  tile.unknown.forEach((u, i) => u && tile.values.fill(by, LANES * i, LANES * i + 3));
}

const at = (tile: Tile, x: number, y: number, c = 0): number =>
  tile.values[LANES * (y * tile.stride + x) + c]!;

test('neighbours are the half disc before a pixel', () => {
  expect(BEFORE).toHaveLength(18);
  for (const [x, y] of BEFORE) {
    expect(y < 0 || (y === 0 && x < 0)).toBe(true);
    expect(Math.abs(x)).toBeLessThanOrEqual(REACH);
    // Its mirror through the pixel is not among them: the disc is halved.
    expect(BEFORE.some(([u, v]) => u === -x && v === -y)).toBe(false);
  }
});

/** A cell that no other is foretold from. */
const HIDDEN = [BLOCK - REACH - 1, BLOCK - 1] as const;

test('filters are those of least squares under the condition that taps add up to 1', () => {
  // Correlated noise: every value leans on the ones left of it and above it.
  const fresh = noise(64, 64, 3, 30);
  const values = new Float64Array(64 * 64);
  for (let y = 0; y < 64; y++)
    for (let x = 0; x < 64; x++)
      values[y * 64 + x] =
        fresh(x, y) +
        0.5 * (x > 0 ? values[y * 64 + x - 1]! : 0) +
        0.45 * (y > 0 ? values[(y - 1) * 64 + x]! : 0);
  const tile = tileOf(
    BLOCK,
    BLOCK,
    (x, y) => 128 + values[(y + 30) * 64 + x + 30]!,
    inBox(...HIDDEN, HIDDEN[0] + 1, HIDDEN[1] + 1),
  );
  expect(told(tile, { rounds: 0 })).toBe(1);

  // The same by a dense solve: M a = 1, scaled.
  const n = BEFORE.length;
  const m = Matrix.zeros(n, n);
  const value = (x: number, y: number): number => at(tile, x, y, 1);
  for (let y = REACH; y < BLOCK; y++)
    for (let x = REACH; x < BLOCK - REACH; x++) {
      if (x === HIDDEN[0] && y === HIDDEN[1]) continue;
      const steps = BEFORE.map(([u, v]) => value(x + u, y + v) - value(x, y));
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) m.set(i, j, m.get(i, j) + steps[i]! * steps[j]!);
    }
  const ridge = (0.01 * m.trace()) / n;
  for (let i = 0; i < n; i++) m.set(i, i, m.get(i, i) + ridge);
  const ones = solve(m, Matrix.ones(n, 1)).to1DArray();
  const sum = ones.reduce((a, b) => a + b, 0);
  ones.forEach((v, k) => expect(tile.taps[k]!).toBeCloseTo(v / sum, 3));
  expect(Array.from(tile.taps).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 5);
});

test('what is foretold has the least squared error, as a dense solve has it', () => {
  const grain = noise(48, 40, 5, 12);
  const wave: Draw = (x, y) => 120 + 50 * Math.sin(x / 5 + y / 9) + grain(x, y);
  const tile = tileOf(48, 40, wave, inBox(20, 16, 25, 22));
  hide(tile, 90);
  const before = tile.values.slice();
  expect(told(tile, { rounds: 500, tolerance: 1e-6 })).toBe(6);

  const cells: number[] = [];
  tile.unknown.forEach((u, i) => u && cells.push(i));
  const normal = Matrix.zeros(cells.length, cells.length);
  const right = Matrix.zeros(cells.length, 1);
  for (let y = REACH; y < 40; y++)
    for (let x = REACH; x < 48 - REACH; x++) {
      const block = Math.floor(y / BLOCK) * tile.across + Math.floor(x / BLOCK);
      const here = y * tile.stride + x;
      const row = new Map<number, number>([[here, 1]]);
      BEFORE.forEach(([u, v], k) =>
        row.set(here + v * tile.stride + u, -tile.taps[block * BEFORE.length + k]!),
      );
      const open = cells.flatMap((cell, i) => (row.has(cell) ? [i] : []));
      let known = 0;
      for (const [cell, weight] of row)
        if (!tile.unknown[cell]) known += weight * before[LANES * cell]!;
      for (const i of open) {
        right.set(i, 0, right.get(i, 0) - row.get(cells[i]!)! * known);
        for (const j of open)
          normal.set(i, j, normal.get(i, j) + row.get(cells[i]!)! * row.get(cells[j]!)!);
      }
    }
  const exact = solve(normal, right).to1DArray();
  exact.forEach((v, k) => expect(Math.abs(tile.values[LANES * cells[k]!]! - v)).toBeLessThan(0.05));
  // Known cells are left alone.
  before.forEach((v, j) => {
    if (!tile.unknown[j >> 2]) expect(tile.values[j]).toBe(v);
  });
});

test('a plain ramp and a flat ground go on as they are', () => {
  const ramp = tileOf(60, 50, (x, y) => 40 + 2 * x + y, inBox(24, 20, 33, 30));
  hide(ramp, 100);
  told(ramp, { rounds: 300, tolerance: 1e-6 });
  for (let y = 20; y < 30; y++)
    for (let x = 24; x < 33; x++)
      expect(Math.abs(at(ramp, x, y) - (40 + 2 * x + y))).toBeLessThan(1);
  const flat = tileOf(60, 50, () => 77, inBox(24, 20, 33, 30));
  hide(flat, 10);
  told(flat, { rounds: 300, tolerance: 1e-6 });
  for (let y = 20; y < 30; y++) expect(at(flat, 28, y, 2)).toBeCloseTo(87, 1);
});

test('stripes that cross a gap are foretold better than by any even spread', () => {
  const grain = noise(80, 60, 9, 3);
  const stripes: Draw = (x, y) => 120 + 60 * Math.sin((x + 0.6 * y) / 2.2) + grain(x, y);
  const tile = tileOf(80, 60, stripes, inBox(10, 26, 70, 32));
  hide(tile, 120);
  told(tile);
  let [error, spread] = [0, 0];
  for (let y = 26; y < 32; y++)
    for (let x = 10; x < 70; x++) {
      error += (at(tile, x, y) - stripes(x, y)) ** 2;
      spread += (120 - stripes(x, y)) ** 2;
    }
  expect(error / spread).toBeLessThan(0.1);
});

test('nothing is told of a piece that is all unknown, and it stays', () => {
  const tile = tileOf(
    40,
    40,
    (x) => x,
    () => 1,
  );
  const before = tile.values.slice();
  expect(told(tile)).toBe(0);
  expect(tile.values).toEqual(before);
});
