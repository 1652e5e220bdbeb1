import { seededRandom } from '../random/random.js';
import type { BringOptions, Detail } from './bring.js';
import { bring } from './bring.js';
import type { Tile, TileRoom } from './tile.js';
import { FOUND, LANES, openTiles } from './tile.js';

const [SIDE, FROM, TO] = [64, 24, 40] as const;
const USUAL: Detail = { strength: 1.2, softest: 1, half: 2 };

/** Values drawn once, so that they can be asked for in any order. */
function noise(seed: number, size: number): (x: number, y: number) => number {
  const random = seededRandom(seed);
  const values = Float32Array.from({ length: SIDE * SIDE }, () => random.between(-size, size));
  return (x, y) => values[y * SIDE + x]!;
}

const isOpen = (x: number, y: number): boolean => x >= FROM && x < TO && y >= FROM && y < TO;

/** Lays a rough texture into a room's tile, a square of it unknown and so many times as rough. */
function layRough(tiles: TileRoom, slot: number, rough: number, detail: Detail, weight = 1): Tile {
  const grain = noise(11, 40);
  const tile = tiles.lay(slot, SIDE, SIDE);
  tile.grid.fill(weight);
  tile.detail.set([detail.strength, detail.softest, detail.half]);
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++) {
      const cell = y * tile.stride + x;
      tile.unknown[cell] = isOpen(x, y) ? 1 : 0;
      const by = isOpen(x, y) ? rough : 1;
      for (let c = 0; c < 3; c++) tile.values[LANES * cell + c] = 128 + 5 * c + by * grain(x, y);
    }
  return tile;
}

/** What comes of one such tile, and how steep its unknown cells were and are, in the mean. */
function brought(rough: number, detail: Detail, options: BringOptions & { weight?: number } = {}) {
  const tiles = openTiles(SIDE, SIDE, 1);
  const tile = layRough(tiles, 0, rough, detail, options.weight);
  const before = tile.values.slice();
  bring(tiles, 1, options);
  return { tile, before, was: steepness(tile, before), is: steepness(tile, tile.values) };
}

function steepness({ stride }: Tile, values: Float32Array): number {
  let sum = 0;
  for (let y = FROM + 2; y < TO - 2; y++)
    for (let x = FROM + 2; x < TO - 2; x++) {
      const j = LANES * (y * stride + x);
      sum += Math.hypot(values[j + LANES]! - values[j]!, values[j + LANES * stride]! - values[j]!);
    }
  return sum;
}

test('detail comes to be as strong as it was before: what is foretold alone is softer', () => {
  const [soft, kept] = [{ ...USUAL, strength: 0 }, USUAL].map((detail) => {
    const { is, was } = brought(1, detail, { share: 0.6 });
    return is / was;
  });
  expect(soft).toBeLessThan(0.5);
  expect(kept).toBeGreaterThan(0.9);
  expect(kept).toBeLessThan(1.4);
});

test('the detail of copies softer than what lies round them is made up for as far as allowed', () => {
  const strongest = (softest: number): number => {
    const { is, was } = brought(0.4, { strength: 1, softest, half: 2 }, { rounds: 0 });
    return is / was;
  };
  expect(strongest(1)).toBeLessThan(1.3);
  expect(strongest(1.5)).toBeGreaterThan(1.15 * strongest(1));
});

test('cells of no weight stay, and all that are known', () => {
  const { tile, before } = brought(0.4, USUAL, { weight: 0 });
  expect(tile.record[FOUND]).toBe(TO - FROM);
  before.forEach((v, j) => expect(Math.abs(tile.values[j]! - v)).toBeLessThan(1e-3));
  const moved = brought(0.4, USUAL);
  moved.before.forEach((v, j) => {
    if (!moved.tile.unknown[j >> 2]) expect(moved.tile.values[j]).toBe(v);
  });
});

test('the share says how far cells go', () => {
  // Detail that is not asked for is not put back: cells stand between what they were and what was foretold.
  const mild: Detail = { strength: 0, softest: 1, half: 2 };
  const [whole, half] = [1, 0.5].map((share) => brought(1, mild, { share }));
  for (let y = FROM; y < TO; y++) {
    const j = LANES * (y * whole!.tile.stride + FROM + 5);
    const middle = (whole!.tile.values[j]! + whole!.before[j]!) / 2;
    expect(half!.tile.values[j]!).toBeCloseTo(middle, 2);
  }
});

test('each tile of a room is brought by its own detail, as it would be alone', () => {
  const strong: Detail = { strength: 1.6, softest: 1.5, half: 3 };
  const tiles = openTiles(SIDE, SIDE, 2);
  const both = [USUAL, strong].map((detail, slot) => layRough(tiles, slot, 0.4, detail));
  bring(tiles, 2);
  [USUAL, strong].forEach((detail, k) =>
    expect(both[k]!.values).toEqual(brought(0.4, detail).tile.values),
  );
  expect(both[0]!.values).not.toEqual(both[1]!.values);
});
