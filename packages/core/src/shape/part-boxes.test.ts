import { seededRandom } from '../random/random.js';
import { partBoxes } from './part-boxes.js';
import { partsOf } from './parts.js';

/** Boxes by way of every part's pixels. */
function byPixels(mask: Uint8Array, width: number) {
  return partsOf(mask, width).map((part) => {
    const xs = Array.from(part, (p) => p % width);
    const ys = Array.from(part, (p) => Math.floor(p / width));
    const [x, y] = [Math.min(...xs), Math.min(...ys)];
    return { x, y, width: Math.max(...xs) - x + 1, height: Math.max(...ys) - y + 1 };
  });
}

test('a U, what lies in it, and what touches it at a corner', () => {
  const rows = ['#...#..', '#.#.#..', '#...#..', '#####..', '.....#.'];
  const mask = Uint8Array.from(rows.join(''), (c) => (c === '#' ? 1 : 0));
  expect(partBoxes(mask, 7)).toEqual([
    { x: 0, y: 0, width: 6, height: 5 },
    { x: 2, y: 1, width: 1, height: 1 },
  ]);
  expect(partBoxes(new Uint8Array(12), 4)).toEqual([]);
});

test.each([0.1, 0.35, 0.6, 0.95])('as its pixels say, with a share of %d set', (share) => {
  const random = seededRandom(11);
  for (let round = 0; round < 6; round++) {
    const [width, height] = [random.between(1, 40), random.between(1, 40)];
    const mask = Uint8Array.from({ length: width * height }, () => (random.unit() < share ? 1 : 0));
    expect(partBoxes(mask, width)).toEqual(byPixels(mask, width));
  }
});
