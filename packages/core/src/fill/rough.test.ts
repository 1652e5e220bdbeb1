import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import type { RoughFill } from './rough.js';
import { searchFill } from './search.js';

/** A plain of one colour with little grain, in which a square is to be filled; what the search tells on its way. */
function told(): RoughFill[] {
  const random = seededRandom(4);
  const [width, height] = [150, 130];
  const picture = createRaster(width, height, 3);
  for (let i = 0; i < picture.data.length; i++)
    picture.data[i] = [180, 90, 40][i % 3]! + random.between(-4, 4);
  const hole = new Uint8Array(width * height);
  for (let y = 41; y < 91; y++)
    for (let x = 53; x < 107; x++) {
      hole[y * width + x] = 1;
      picture.data.fill(255, 3 * (y * width + x), 3 * (y * width + x) + 3);
    }
  const roughs: RoughFill[] = [];
  searchFill(picture, { x: 1000, y: 2000, width, height }, hole, new Uint8Array(hole.length), {
    rough: (filling) => roughs.push(filling),
  });
  return roughs;
}

describe('what a filling comes to on the way', () => {
  const roughs = told();

  test('comes from coarse to fine and covers the site', () => {
    const factors = roughs.map(({ factor }) => factor);
    expect(factors.length).toBeGreaterThan(1);
    expect(factors).toEqual([...factors].sort((a, b) => b - a));
    expect(factors.at(-1)).toBe(2);
    for (const { rect, factor, samples } of roughs) {
      expect(samples.length).toBe((4 * rect.width * rect.height) / factor ** 2);
      expect(rect.x).toBeLessThanOrEqual(1053);
      expect(rect.y).toBeLessThanOrEqual(2041);
      expect(rect.x + rect.width).toBeGreaterThanOrEqual(1107 - factor);
      expect(rect.y + rect.height).toBeGreaterThanOrEqual(2091 - factor);
      for (let p = 3; p < samples.length; p += 4) expect(samples[p]).toBe(255);
    }
  });

  test('is filled from the surroundings, never from what stood in the site', () => {
    for (const { samples } of roughs)
      for (let p = 0; p < samples.length; p += 4) {
        expect(Math.abs(samples[p]! - 180)).toBeLessThan(8);
        expect(Math.abs(samples[p + 1]! - 90)).toBeLessThan(8);
        expect(Math.abs(samples[p + 2]! - 40)).toBeLessThan(8);
      }
  });
});
