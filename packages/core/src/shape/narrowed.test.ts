import { seededRandom } from '../random/random.js';
import { maskWhere } from './mask-where.js';
import { closed, narrowed, opened } from './narrowed.js';

const [WIDTH, HEIGHT] = [23, 17];

/** Whether a square round a pixel, as far as it lies in the frame, has only pixels that are set. */
function isDeep(mask: Uint8Array, p: number, by: number): boolean {
  const [x, y] = [p % WIDTH, Math.floor(p / WIDTH)];
  for (let v = Math.max(0, y - by); v <= Math.min(HEIGHT - 1, y + by); v++)
    for (let u = Math.max(0, x - by); u <= Math.min(WIDTH - 1, x + by); u++)
      if (!mask[v * WIDTH + u]) return false;
  return true;
}

test.each([0, 1, 3])('left is what has nothing unset within %d px across and down', (by) => {
  const random = seededRandom(by + 1);
  const mask = maskWhere(WIDTH * HEIGHT, () => random.unit() < 0.97);
  const left = narrowed(mask, WIDTH, HEIGHT, by);
  expect(left).toEqual(maskWhere(mask.length, (p) => isDeep(mask, p, by)));
  expect(left).toContain(1);
});

test('gaps are filled up to twice the reach, and nothing else is', () => {
  const parted = (gap: number): Uint8Array =>
    maskWhere(WIDTH * HEIGHT, (p) => Math.abs((p % WIDTH) - 11.5 + 0.5 * (gap % 2)) > gap / 2);
  const whole = new Uint8Array(WIDTH * HEIGHT).fill(1);
  expect(closed(parted(4), WIDTH, HEIGHT, 2)).toEqual(whole);
  expect(closed(parted(5), WIDTH, HEIGHT, 2)).toEqual(parted(5));
});

test('what is thinner than twice the reach goes, and nothing else does', () => {
  const bar = (across: number): Uint8Array =>
    maskWhere(WIDTH * HEIGHT, (p) => p % WIDTH >= 8 && p % WIDTH < 8 + across);
  expect(opened(bar(4), WIDTH, HEIGHT, 2)).toEqual(new Uint8Array(WIDTH * HEIGHT));
  expect(opened(bar(5), WIDTH, HEIGHT, 2)).toEqual(bar(5));
});
