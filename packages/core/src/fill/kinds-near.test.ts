import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { withUnlike } from './kinds-near.js';
import { searchFill } from './search.js';

const [WIDTH, HEIGHT] = [240, 200];
type Colour = readonly [number, number, number];
const SKY: Colour = [170, 190, 215];
const DOOR: Colour = [38, 74, 78];
const WATER: Colour = [42, 48, 50];
const DEPTH = 40;

/** Sky with a door in it, water below; a light in the water far from the hole. The bottom is torn off. */
function scene(light: Colour = WATER): Raster {
  const picture = createRaster(WIDTH, HEIGHT, 3);
  const random = seededRandom(4);
  for (let y = 0, p = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, p++) {
      const isDoor = x > 150 && x < 210 && y > 10 && y < 60;
      const isLight = x < 30 && y > 80 && y < 104;
      const colour = isDoor ? DOOR : isLight ? light : y < 70 ? SKY : WATER;
      const grain = random.between(-6, 6);
      colour.forEach((v, c) => (picture.data[3 * p + c] = v + grain));
    }
  return picture;
}

const bottom = (from: number): Uint8Array =>
  Uint8Array.from({ length: WIDTH * HEIGHT }, (_, p) => (p >= from * WIDTH ? 1 : 0));
const at = (x: number, y: number): number => y * WIDTH + x;
const nothing = new Uint8Array(WIDTH * HEIGHT);

test('what is of a kind not seen near a torn edge is not copied into it', () => {
  const closed = withUnlike(scene(), bottom(160), nothing, DEPTH);
  expect(closed[at(180, 30)]).toBe(1);
  expect(closed[at(60, 30)]).toBe(1);
  expect(closed[at(60, 150)]).toBe(0);
  // As far away as the sky, but of a kind seen near.
  expect(closed[at(120, 76)]).toBe(0);
  const lit = withUnlike(scene([230, 200, 90]), bottom(160), nothing, DEPTH);
  expect(lit[at(12, 92)]).toBe(1);
});

test('a scratch elsewhere allows nothing of what it lies in', () => {
  const hole = bottom(160);
  const scratched = hole.slice();
  for (let x = 90; x < 130; x++) scratched[at(x, 20)] = 1;
  const [own, both] = [hole, scratched].map((h) => withUnlike(scene(), h, nothing, DEPTH));
  expect(both![at(60, 30)]).toBe(1);
  expect(both![at(110, 24)]).toBe(1);
  expect(both![at(60, 150)]).toBe(0);
  let unlike = 0;
  for (let p = 0; p < own!.length; p++)
    if (own![p] !== both![p] && Math.abs(Math.floor(p / WIDTH) - 20) > 8) unlike++;
  expect(unlike).toBe(0);
});

test('what was forbidden stays so', () => {
  const banned = nothing.slice();
  banned[at(60, 150)] = 1;
  const closed = withUnlike(scene(), bottom(160), banned, DEPTH);
  expect(closed[at(60, 150)]).toBe(1);
  expect(banned.reduce((n, v) => n + v, 0)).toBe(1);
});

test('holes that are held from all sides, shallow ones, and those with little left to copy are left alone', () => {
  const inner = nothing.map((_, p) =>
    p % WIDTH > 80 && p % WIDTH < 160 && p > at(0, 90) && p < at(0, 170) ? 1 : 0,
  );
  expect(withUnlike(scene(), inner, nothing, DEPTH)).toBe(nothing);
  expect(withUnlike(scene(), bottom(180), nothing, 20)).toBe(nothing);
  expect(withUnlike(scene(), bottom(90), nothing, 110)).toBe(nothing);
});

test('one channel is told by grey and texture', () => {
  const colours = scene();
  const grey = createRaster(WIDTH, HEIGHT, 1);
  grey.data.forEach((_, p) => (grey.data[p] = colours.data[3 * p]!));
  const closed = withUnlike(grey, bottom(160), nothing, DEPTH);
  expect(closed[at(60, 30)]).toBe(1);
  expect(closed[at(60, 150)]).toBe(0);
});

test('a fill so bound takes every pixel from kinds seen near', () => {
  const picture = scene();
  const hole = bottom(160);
  const origin = { x: 0, y: 0, width: WIDTH, height: HEIGHT };
  const { rect, dx, dy } = searchFill(picture, origin, hole, nothing, { near: true });
  const closed = withUnlike(picture, hole, nothing, DEPTH);
  let filled = 0;
  for (let k = 0; k < dx.length; k++) {
    const x = rect.x + (k % rect.width) + dx[k]!;
    const y = rect.y + Math.floor(k / rect.width) + dy[k]!;
    if (x < 0 || y < 0 || x >= WIDTH || y >= HEIGHT) continue;
    expect(closed[at(x, y)]).toBe(0);
    filled++;
  }
  expect(filled).toBe(WIDTH * 40);
});
