import { seededRandom } from '../random/random.js';
import { blurred } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import { detailReach } from './detail.js';
import { quadOf } from './quad.js';
import { throughMap } from './upright.js';

/** Things of all sizes with sharp edges, and a little grain: power falls with the square of the frequency. */
function scene(width: number, height: number): Raster {
  const random = seededRandom(9);
  const picture = createRaster(width, height, 1);
  picture.data.fill(120);
  for (let k = 0; k < 900; k++) {
    const size = Math.round(200 / (1 + random.between(0, 60)));
    const [x0, y0] = [random.between(0, width - 1), random.between(0, height - 1)];
    const tone = random.between(40, 210);
    for (let y = y0; y < Math.min(height, y0 + size); y++)
      for (let x = x0; x < Math.min(width, x0 + size); x++) picture.data[y * width + x] = tone;
  }
  const values = blurred({ width, height, values: Float32Array.from(picture.data) }, 0.5).values;
  values.forEach((v, p) => (picture.data[p] = Math.round(v + random.between(-2, 2))));
  return picture;
}

const photo = scene(420, 360);

test('a sharp picture holds detail to the end', () => {
  const facts = detailReach(photo);
  expect(facts.interpolated).toBe(false);
  expect(facts.reach).toBeGreaterThan(0.9);
});

test.each([2, 3])('one enlarged %d times holds about so much less, and is told', (times) => {
  const large = throughMap(photo, quadOf(frameOf(photo)), 420 * times, 360 * times);
  const facts = detailReach(large);
  expect(facts.interpolated).toBe(true);
  expect(facts.reach).toBeGreaterThan(0.8 / times);
  expect(facts.reach).toBeLessThan(1.6 / times);
});

test('nothing is said of a picture too small or empty to tell', () => {
  expect(detailReach(createRaster(60, 60, 3)).interpolated).toBe(false);
  expect(detailReach(createRaster(300, 300, 3)).interpolated).toBe(false);
});
