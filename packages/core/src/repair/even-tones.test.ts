import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { evenTones } from './even-tones.js';
import { layCopies } from './laid-copies.js';

const [WIDTH, HEIGHT] = [64, 48];
const BOX = { x: 20, y: 14, width: 16, height: 12 };

function draw(tone: (x: number, y: number, c: number) => number): Raster {
  const picture = createRaster(WIDTH, HEIGHT, 3);
  for (let p = 0; p < WIDTH * HEIGHT; p++)
    for (let c = 0; c < 3; c++)
      picture.data[3 * p + c] = Math.round(tone(p % WIDTH, Math.floor(p / WIDTH), c));
  return picture;
}

/** The box filled from so far to the side, the same all over or column by column; what comes of it. */
function evened(
  picture: Raster,
  shift: number | ((x: number) => number),
  adapt: number,
): Float32Array {
  const from = new Int32Array(WIDTH * HEIGHT).fill(-1);
  for (let y = BOX.y; y < BOX.y + BOX.height; y++)
    for (let x = BOX.x; x < BOX.x + BOX.width; x++)
      from[y * WIDTH + x] = y * WIDTH + x + (typeof shift === 'number' ? shift : shift(x));
  const copies = layCopies(picture, from);
  evenTones(copies, [BOX], adapt);
  return copies.colour as Float32Array;
}

const inBox = (x: number, y: number): boolean =>
  x >= BOX.x && x < BOX.x + BOX.width && y >= BOX.y && y < BOX.y + BOX.height;

/** Greatest difference from a tone over the box. */
function off(colour: Float32Array, tone: (x: number, y: number, c: number) => number): number {
  let most = 0;
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      for (let c = 0; c < 3 && inBox(x, y); c++)
        most = Math.max(most, Math.abs(colour[3 * (y * WIDTH + x) + c]! - tone(x, y, c)));
  return most;
}

test('a pattern copied from brighter ground takes the tone round the site', () => {
  const stripes = (x: number, y: number, c: number): number =>
    100 + 3 * c + (y % 4 < 2 ? 8 : 0) + (x >= 40 ? 30 : 0);
  const here = (x: number, y: number, c: number): number => stripes(Math.min(x, 30), y, c);
  const picture = draw((x, y, c) => (inBox(x, y) ? 255 : stripes(x, y, c)));
  expect(off(evened(picture, 22, 1), here)).toBeLessThan(1);
  // Without adaptation nearly all of the difference stays.
  const raw = evened(picture, 22, 0);
  expect(off(raw, here)).toBeGreaterThan(25);
  const half = off(evened(picture, 22, 0.5), here);
  expect(half).toBeLessThan(off(raw, here));
});

test('only the box is written, and what stood in the site has no say', () => {
  const ground = (x: number, _y: number, c: number): number => 90 + x / 2 + c;
  const [one, other] = [255, 0].map((old) =>
    evened(
      draw((x, y, c) => (inBox(x, y) ? old : ground(x, y, c))),
      24,
      1,
    ),
  );
  expect(one).toEqual(other);
  for (let p = 0; p < WIDTH * HEIGHT; p++)
    if (!inBox(p % WIDTH, Math.floor(p / WIDTH))) expect(one![3 * p]).toBe(0);
});

test('a ramp copied along itself continues as the ramp', () => {
  const ramp = (x: number, y: number): number => 40 + 2 * x + y;
  const picture = draw((x, y) => (inBox(x, y) ? 0 : ramp(x, y)));
  expect(off(evened(picture, 20, 1), ramp)).toBeLessThan(1);
});

test('a change of colour alone is held where a change of light goes through', () => {
  const apart = (tint: readonly number[]) => {
    const picture = draw((x, y, c) => (inBox(x, y) ? 0 : 110 + (x >= 40 ? 0 : tint[c]!)));
    // How far the middle of the site has come towards what stands beside it.
    const colour = evened(picture, 24, 1);
    const p = (BOX.y + 6) * WIDTH + BOX.x + 8;
    return [0, 1, 2].map((c) => (colour[3 * p + c]! - 110) / tint[c]!);
  };
  const [light] = apart([20, 20, 20]);
  expect(light).toBeGreaterThan(0.99);
  for (const share of apart([40, -20, -20])) expect(share).toBeLessThan(light! - 0.02);
});

test('where one thing ends and another begins, neither runs into the other', () => {
  const [door, stones] = [
    [30, 90, 60],
    [150, 140, 130],
  ] as const;
  const ground = (x: number, _y: number, c: number): number => (x < 28 ? door : stones)[c]!;
  const picture = draw((x, y, c) => (inBox(x, y) ? 0 : ground(x, y, c)));
  expect(
    off(
      evened(picture, (x) => (x < 28 ? -16 : 20), 1),
      ground,
    ),
  ).toBeLessThan(3);
});
