import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { beyondBackdrop } from './backdrop.js';

const [WIDTH, HEIGHT] = [240, 180];
/** px that it is taken wider. */
const WIDE = 4;
const isThing = (x: number, y: number): boolean => x >= 100 && x < 140 && y >= 60 && y < 150;

/** A thing before a roll of paper that comes down onto a floor, and the room where the paper is too narrow. */
function studio(from: number, to: number, top = 0): { picture: Raster; subject: Uint8Array } {
  const picture = createRaster(WIDTH, HEIGHT, 3);
  const subject = new Uint8Array(WIDTH * HEIGHT);
  const random = seededRandom(9);
  for (let y = 0, p = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, p++) {
      const paper = x >= from && x < to && y >= top;
      let colour = [176 - 0.1 * y, 178 - 0.1 * y, 182 - 0.1 * y];
      if (!paper) colour = y < 150 ? [70, 62, 55] : [105, 80, 60];
      if (isThing(x, y)) colour = [160, 40, 30];
      subject[p] = isThing(x, y) ? 1 : 0;
      picture.data.set(
        colour.map((c) => c + random.between(-3, 3)),
        3 * p,
      );
    }
  return { picture, subject };
}

/** Shares of what lies beyond that is found, and of what is found that lies beyond; the floor's strip apart. */
function scored(mask: Uint8Array, from: number, to: number, top = 0): [number, number] {
  let [true_, found, all] = [0, 0, 0];
  for (let y = 0; y < 145; y++)
    for (let x = 0; x < WIDTH; x++) {
      const beyond = x < from || x >= to || y < top;
      // It is taken a little wider.
      const near =
        (from > 0 && x < from + WIDE) ||
        (to < WIDTH && x >= to - WIDE) ||
        (top > 0 && y < top + WIDE);
      if (beyond) all++;
      if (mask[y * WIDTH + x]) {
        found++;
        if (near) true_++;
      }
    }
  return [true_ / all, true_ / found];
}

test.each([
  [40, WIDTH, 0],
  [0, 205, 0],
  [36, 200, 0],
  [0, WIDTH, 30],
])('the room beyond paper from %i to %i px, from %i down, is told', (from, to, top) => {
  const { picture, subject } = studio(from, to, top);
  const mask = beyondBackdrop(picture, subject)!;
  const [recall, precision] = scored(mask, from, to, top);
  expect(recall).toBeGreaterThan(0.97);
  expect(precision).toBe(1);
  for (let p = 0; p < mask.length; p++) if (subject[p]) expect(mask[p]).toBe(0);
});

test('paper that reaches all edges, and a plain picture, have nothing beyond', () => {
  const { picture, subject } = studio(0, WIDTH);
  expect(beyondBackdrop(picture, subject)).toBeNull();
  expect(beyondBackdrop(picture, null)).toBeNull();
});
