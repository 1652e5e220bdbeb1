import { NOT_FILLED } from '@tersum/core';
import { plainFill } from '../schema/fill.js';
import { searchDonorMap } from './fill-search.js';
import { testId, testPicture, testRepair } from './test-picture.js';

const [width, height] = [72, 60];
const original = testPicture(width, height, 'u8', 3);
const repair = testRepair(1, { kind: 'dab', at: [36, 30] }, plainFill(testId(3, 1)));
const around = { repair, original, below: [], others: [], later: [] };

/** A rectangle that is kept off. */
const kept = (x0: number, y0: number, x1: number, y1: number) => ({
  allow: false,
  shape: {
    kind: 'outline' as const,
    points: [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ] as [number, number][],
  },
  width: 1,
});

/** Places that pixels are copied from, whose own place lies in a rectangle. */
function copiedFrom(
  { rect, dx, dy }: ReturnType<typeof searchDonorMap>,
  inside: (x: number, y: number) => boolean,
): number {
  let n = 0;
  dx.forEach((d, i) => {
    if (d === NOT_FILLED) return;
    const [x, y] = [rect.x + (i % rect.width) + d, rect.y + Math.floor(i / rect.width) + dy[i]!];
    if (inside(x, y)) n++;
  });
  return n;
}

test('nothing is copied from damage that no repair mends yet', () => {
  // Everything right of the site, where without it some is copied from.
  const right = (x: number): boolean => x >= 44;
  expect(copiedFrom(searchDonorMap({ ...around, damage: [] }), right)).toBeGreaterThan(0);
  const damage = [kept(44, 0, width - 1, height - 1)];
  expect(copiedFrom(searchDonorMap({ ...around, damage }), right)).toBe(0);
});

test('what a person allows is copied from all the same, and damage too where nothing else is left', () => {
  const damage = [kept(0, 0, width - 1, height - 1)];
  expect(copiedFrom(searchDonorMap({ ...around, damage }), () => true)).toBeGreaterThan(0);
  const allowed = { ...kept(50, 0, width - 1, height - 1), allow: true };
  const asked = { ...repair, method: { ...plainFill(testId(3, 2)), areas: [allowed] } };
  const map = searchDonorMap({ ...around, repair: asked, damage });
  expect(copiedFrom(map, (x) => x < 50)).toBe(0);
});
