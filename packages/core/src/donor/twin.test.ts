import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { findTwins } from './twin.js';

const W = 200;
const H = 120;

test('the lost half of a symmetric thing is found in the other half, with its axis', () => {
  // A round window with a cross, symmetric about x = 99.5, on a grainy wall; its right half is lost.
  const random = seededRandom(3);
  const picture = createRaster(W, H, 1);
  const site = new Uint8Array(W * H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const [u, v] = [x - 99.5, y - 60];
      const r = Math.hypot(u, v);
      const slanted = Math.abs(v - 0.4 * Math.abs(u)) < 3;
      const tone = r > 40 ? 150 : r > 32 ? 210 : slanted || Math.abs(u) < 3 ? 200 : 60;
      picture.data[y * W + x] = tone + random.between(-3, 3);
      if (u > 12 && u < 30 && Math.abs(v) < 16) {
        site[y * W + x] = 1;
        picture.data[y * W + x] = 250;
      }
    }
  const box = { x: 112, y: 45, width: 17, height: 31 };
  const [twin] = findTwins(picture, site, new Uint8Array(W * H), box, 60);
  expect(twin!.over).toBe('x');
  // The site's middle is 120, 60; mirrored about 99.5 it is 79, 60.
  expect(Math.abs(twin!.dx - (79 - 120))).toBeLessThanOrEqual(1);
  expect(Math.abs(twin!.dy)).toBeLessThanOrEqual(1);
  expect(Math.abs(twin!.axis![0][0] - 99.5)).toBeLessThanOrEqual(1);
});
