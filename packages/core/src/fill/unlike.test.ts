import { firstState, seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { alone } from '../task/crew.js';
import { fieldOf } from './field.js';
import { mannerFor } from './manner.js';
import { pyramidOf } from './pyramid.js';
import { unlikeByChance } from './unlike.js';

const [width, height] = [120, 90];

/** What a missing side of an even ground with grain differs by from places by chance. @param grain codes up and down */
function unlikeOf(grain: number): number {
  const raster = createRaster(width, height, 3);
  const random = seededRandom(3);
  for (let p = 0; p < width * height; p++)
    raster.data.fill(128 + random.between(-grain, grain), 3 * p, 3 * p + 3);
  const hole = Uint8Array.from({ length: width * height }, (_, p) => (p % width >= 90 ? 1 : 0));
  const banned = new Uint8Array(hole.length);
  const pyramid = pyramidOf({ raster, hole, banned }, 30, mannerFor(30), alone);
  pyramid.work.dice[0] = firstState(5);
  return unlikeByChance(fieldOf(pyramid, 0), { reach: 60, sheets: 0, rows: 0 });
}

test('on a ground that is all one tone places by chance differ in nothing', () => {
  expect(unlikeOf(0)).toBe(0);
});

test('they differ by the variance of the grain over a patch, since what is peeled inwards has none', () => {
  for (const grain of [10, 20, 40]) {
    // Of whole numbers from -grain to grain, in quarters of a code, over 49 pixels of three channels.
    const grainOver = (16 * grain * (grain + 1) * 49 * 3) / 3;
    expect(unlikeOf(grain) / grainOver).toBeGreaterThan(0.8);
    expect(unlikeOf(grain) / grainOver).toBeLessThan(2);
  }
});
