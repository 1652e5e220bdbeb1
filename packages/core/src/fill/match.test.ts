import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { fieldOf, matchByChance } from './field.js';
import { finestLevel } from './level.js';
import {
  improveMatches,
  improveMatchesPlainly,
  measureMatches,
  measureMatchesPlainly,
  patchDifference,
} from './match.js';
import { vote, votePlainly } from './vote.js';

function field(width: number, height: number, seed: number) {
  const random = seededRandom(seed);
  const raster = createRaster(width, height, 3);
  for (let i = 0; i < raster.data.length; i++) raster.data[i] = random.between(0, 255);
  const hole = new Uint8Array(width * height);
  for (let y = 10; y < 22; y++) for (let x = 12; x < 30; x++) hole[y * width + x] = 1;
  const made = fieldOf(finestLevel(raster, hole, new Uint8Array(width * height)));
  matchByChance(made, seededRandom(seed + 1));
  return made;
}

describe('matching', () => {
  test.each([1, 2, 3])('kernel and plain twin agree to the last match, seed %d', (seed) => {
    const fast = field(57, 43, seed);
    const plain = field(57, 43, seed);
    measureMatches(fast);
    measureMatchesPlainly(plain);
    expect(fast.distance).toEqual(plain.distance);
    for (let pass = 0; pass < 5; pass++) {
      improveMatches(fast, pass, seed * 77);
      improveMatchesPlainly(plain, pass, seed * 77);
      expect(fast.match).toEqual(plain.match);
      expect(fast.distance).toEqual(plain.distance);
    }
  });

  test('votes of kernel and plain twin agree to the last byte', () => {
    const fast = field(57, 43, 6);
    const plain = field(57, 43, 6);
    for (const made of [fast, plain]) measureMatches(made);
    for (const sharpness of [0.5, 0.08]) {
      vote(fast, sharpness);
      votePlainly(plain, sharpness);
      expect(fast.level.pixels).toEqual(plain.level.pixels);
    }
  });

  test('a patch differs from itself by nothing, and by the sum of squares from another', () => {
    const pixels = new Uint8Array(20 * 20 * 4).fill(7);
    expect(patchDifference(pixels, 80, 105, 110, Infinity)).toBe(0);
    pixels[4 * 105] = 10;
    // One byte differs by 3, and lies in both patches at different places: 9 + 9.
    expect(patchDifference(pixels, 80, 105, 106, Infinity)).toBe(18);
  });

  test('matches only ever get better', () => {
    const made = field(57, 43, 4);
    measureMatches(made);
    const before = made.distance.reduce((a, b) => a + b, 0);
    improveMatches(made, 0, 9);
    expect(made.distance.reduce((a, b) => a + b, 0)).toBeLessThan(before);
    made.match.forEach((p) => expect(made.source[p]).toBe(1));
  });
});
