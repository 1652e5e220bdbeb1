import { createRaster } from '../raster/raster.js';
import { seededRandom } from '../random/random.js';
import { tiltOf } from './tilt.js';
import { levelPicture } from './upright.js';

/** Boards with noise, all turned counter-clockwise by an angle. */
function boards(angle: number) {
  const picture = createRaster(500, 400, 1);
  const random = seededRandom(5);
  const a = (angle * Math.PI) / 180;
  for (let y = 0, p = 0; y < 400; y++)
    for (let x = 0; x < 500; x++, p++) {
      const [dx, dy] = [x - 250, y - 200];
      const v = dx * Math.sin(a) + dy * Math.cos(a);
      const u = dx * Math.cos(a) - dy * Math.sin(a);
      const board = Math.floor((v + 1000) / 37) % 2 === 0 ? 90 : 150;
      const post = Math.abs(u - 60) < 14 ? 60 : 0;
      picture.data[p] = board + post + random.between(-12, 12);
    }
  return picture;
}

test.each([-7.3, -1.2, 0, 2.6, 11.4])(
  'boards turned by %f degrees are found turned so',
  (angle) => {
    const tilt = tiltOf(boards(angle));
    expect(Math.abs(tilt.angle - angle)).toBeLessThan(0.1);
    expect(tilt.clearness).toBeGreaterThan(6);
  },
);

test('a picture turned back stands level, is smaller and has no gaps', () => {
  const level = levelPicture(boards(4.5), 4.5);
  expect(Math.abs(tiltOf(level).angle)).toBeLessThan(0.2);
  expect(level.width).toBeLessThan(500);
  expect(level.width / level.height).toBeCloseTo(500 / 400, 1);
  expect(level.data.every((v) => v > 50)).toBe(true);
});

test('noise alone is not clearly turned', () => {
  const picture = createRaster(300, 300, 1);
  const random = seededRandom(9);
  for (let p = 0; p < picture.data.length; p++) picture.data[p] = random.between(90, 160);
  expect(tiltOf(picture).clearness).toBeLessThan(6);
});
