import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { cutOff } from './cut-off.js';

const [width, height] = [240, 200];

/** A pot before a wall over a strip of floor, one with a long handle, or hills in many layers; 30 px at the left are missing. */
function scene(kind: 'pot' | 'pan' | 'hills') {
  const random = seededRandom(4);
  const picture = createRaster(width, height, 3);
  const hole = new Uint8Array(width * height);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const pot =
        Math.hypot(x - 130, (y - 90) / 1.4) < 34 ||
        (kind === 'pan' && x >= 38 && x < 130 && Math.abs(y - 90) < 5);
      const wall = y < 176 ? [150 - y / 4, 140 - y / 4, 120 - y / 4] : [90, 60, 36];
      const hill = [
        [200, 210, 220],
        [120, 130, 90],
        [60, 80, 50],
        [130, 110, 70],
      ][Math.floor(y / 50)]!;
      const tone = pot ? [40, 80, 120] : kind === 'hills' ? hill : wall;
      for (let c = 0; c < 3; c++) picture.data[3 * p + c] = tone[c]! + random.between(-6, 6);
      if (x < 30) hole[p] = 1;
    }
  return { picture, hole };
}

test('sides that are missing beside a thing before a backdrop are told, with the thing', () => {
  const { picture, hole } = scene('pot');
  const { sides, picture: inner, subject } = cutOff(picture, hole)!;
  expect(sides).toEqual({ left: 30, right: 0, top: 0, bottom: 0 });
  expect([inner.width, inner.height]).toEqual([width - 30, height]);
  expect(inner.data[0]).toBe(picture.data[3 * 30]);
  expect(subject[90 * inner.width + 100]).toBe(1);
  expect(subject[20 * inner.width + 20]).toBe(0);
});

test('a scene of many grounds, a hole that is no whole side, and one that is all have no backdrop to go by', () => {
  const hills = scene('hills');
  expect(cutOff(hills.picture, hills.hole)).toBeNull();
  const { picture, hole } = scene('pot');
  const more = hole.slice();
  more[100 * width + 100] = 1;
  expect(cutOff(picture, more)).toBeNull();
  const less = hole.slice();
  less[100 * width + 10] = 0;
  expect(cutOff(picture, less)).toBeNull();
  expect(cutOff(picture, new Uint8Array(hole.length))).toBeNull();
  expect(cutOff(picture, new Uint8Array(hole.length).fill(1))).toBeNull();
});

test('a thing that comes up to a missing side was cut off with it', () => {
  const { picture, hole } = scene('pan');
  expect(cutOff(picture, hole)).toBeNull();
});
