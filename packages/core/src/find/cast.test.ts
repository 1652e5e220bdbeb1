import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { castBy } from './cast.js';

const [WIDTH, HEIGHT] = [160, 130];
/** Where the floor begins. */
const JOINT = 75;
const thing = (x: number, y: number): boolean => x >= 65 && x < 95 && y >= 30 && y < 100;

/** Share of the light that a shadow to the right of the thing takes, its border soft. */
function shade(x: number, y: number): number {
  const r = Math.hypot((x - 108) / 28, (y - 97) / 10);
  return y < JOINT ? 0 : 0.45 * Math.max(0, Math.min(1, 3 * (1 - r)));
}

/** A thing on a floor before a wall, both with a fall-off, grain, and what is asked for besides. */
function set({ shadow = false, mirrored = false, pattern = 0 } = {}): {
  picture: Raster;
  subject: Uint8Array;
} {
  const picture = createRaster(WIDTH, HEIGHT, 3);
  const subject = new Uint8Array(WIDTH * HEIGHT);
  const random = seededRandom(4);
  for (let y = 0, p = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, p++) {
      const ground = y < JOINT ? [190, 184, 170] : [150, 132, 118];
      const light = (0.8 + (0.2 * x) / WIDTH) * (1 - 0.1 * (y / HEIGHT));
      let colour = ground.map((c) => c * light * (shadow ? 1 - shade(x, y) : 1));
      if (mirrored && y >= 100 && thing(x, 199 - y))
        colour = colour.map((c, k) => 0.75 * c + 0.25 * [30, 90, 130][k]!);
      if (thing(x, y)) {
        subject[p] = 1;
        colour = [30, 90, 130];
      }
      const grain =
        random.between(-30, 31) / 10 + (pattern ? random.between(-pattern, pattern + 1) : 0);
      picture.data.set(
        colour.map((c) => Math.round(c + grain)),
        3 * p,
      );
    }
  return { picture, subject };
}

const count = (mask: Uint8Array): number => mask.reduce((n, m) => n + m, 0);

/** Whether any shade lies within so many px. */
function shaded(x: number, y: number, by: number): boolean {
  for (let v = y - by; v <= y + by; v++)
    for (let u = x - by; u <= x + by; u++) if (shade(u, v) > 0) return true;
  return false;
}

test('a shadow beside a thing is found, and nothing besides', () => {
  const { picture, subject } = set({ shadow: true });
  const cast = castBy(picture, subject);
  let [deep, found, wrong] = [0, 0, 0];
  for (let y = 0, p = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, p++) {
      if (subject[p]) continue;
      if (shade(x, y) > 0.12) {
        deep++;
        found += cast[p]!;
      } else if (!shaded(x, y, 3)) wrong += cast[p]!;
    }
  expect(found / deep).toBeGreaterThan(0.97);
  expect(wrong / deep).toBeLessThan(0.02);
});

test('a reflection below a thing is found', () => {
  const { picture, subject } = set({ mirrored: true });
  const cast = castBy(picture, subject);
  let found = 0;
  for (let y = 100; y < HEIGHT; y++) for (let x = 65; x < 95; x++) found += cast[y * WIDTH + x]!;
  expect(found / (30 * 30)).toBeGreaterThan(0.95);
  expect(count(cast)).toBeLessThan(1.4 * 900);
});

test('a thing that casts nothing, one on a strong pattern, and none at all cast nothing', () => {
  const plain = set();
  expect(count(castBy(plain.picture, plain.subject))).toBe(0);
  const rough = set({ pattern: 60 });
  expect(count(castBy(rough.picture, rough.subject))).toBe(0);
  expect(count(castBy(plain.picture, new Uint8Array(WIDTH * HEIGHT)))).toBe(0);
});
