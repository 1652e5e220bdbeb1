import { seededRandom } from '../random/random.js';
import type { Rect } from '../raster/rect.js';
import { grow, meets } from '../raster/rect.js';
import { wavesOf } from './waves.js';

const NEAR = 18;

/** A grid of so many pieces, in reading order. */
const grid = (across: number, down: number): Rect[] =>
  Array.from({ length: across * down }, (_, k) => ({
    x: 192 * (k % across),
    y: 192 * Math.floor(k / across),
    width: 192,
    height: 192,
  }));

test('a grid goes in slanted waves: two pieces further left with every row', () => {
  const waves = wavesOf(grid(5, 4), NEAR);
  expect(waves).toHaveLength(5 + 2 * 3);
  waves.forEach((wave, k) => {
    for (const { x, y } of wave) expect(x / 192 + (2 * y) / 192).toBe(k);
  });
});

test('pieces that lie apart are one wave', () => {
  const apart = grid(4, 3).map((piece) => ({ ...piece, x: 2 * piece.x, y: 2 * piece.y }));
  expect(wavesOf(apart, NEAR)).toEqual([apart]);
  expect(wavesOf([], NEAR)).toEqual([]);
});

test('of pieces near one another the earlier is always done first, whatever their sizes', () => {
  const random = seededRandom(7);
  const pieces = Array.from({ length: 120 }, () => ({
    x: random.between(0, 1500),
    y: random.between(0, 900),
    width: random.between(1, 192),
    height: random.between(1, 192),
  }));
  const waves = wavesOf(pieces, NEAR);
  expect(waves.flat()).toHaveLength(pieces.length);
  const waveOf = new Map(waves.flatMap((wave, k) => wave.map((piece) => [piece, k] as const)));
  for (const [k, piece] of pieces.entries())
    for (const earlier of pieces.slice(0, k))
      if (meets(earlier, grow(piece, NEAR)))
        expect(waveOf.get(earlier)!).toBeLessThan(waveOf.get(piece)!);
});
