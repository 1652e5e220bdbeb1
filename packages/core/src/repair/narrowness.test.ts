import { Narrowness } from './narrowness.js';
import { narrowAt } from './plain/narrow-at.js';

const [WIDTH, HEIGHT] = [200, 150];

/** A site of bars, each so many px high, all across the left half. */
function bars(...rows: readonly (readonly [top: number, height: number])[]): Uint8Array {
  const site = new Uint8Array(WIDTH * HEIGHT);
  for (const [top, height] of rows)
    for (let y = top; y < top + height; y++) site.fill(1, y * WIDTH, y * WIDTH + 100);
  return site;
}

const frame = { width: WIDTH, height: HEIGHT };

test('a bar is narrow up to a half of 16 px, and deep from a half of 24 px on', () => {
  const of = (height: number): number =>
    narrowAt(new Narrowness(bars([40, height]), frame), 20, 50);
  expect(of(30)).toBe(1);
  expect(of(40)).toBeCloseTo(0.5, 6);
  expect(of(50)).toBe(0);
});

test('what is deep counts a square beyond, and the picture goes on as it ends', () => {
  const narrowness = new Narrowness(bars([0, 10], [80, 60]), frame);
  expect(narrowAt(narrowness, 20, 5)).toBe(1);
  expect(narrowAt(narrowness, 20, 75)).toBe(0);
  expect(narrowAt(narrowness, -7, -3)).toBe(narrowAt(narrowness, 0, 0));
  expect(narrowAt(narrowness, 20, HEIGHT + 9)).toBe(narrowAt(narrowness, 20, HEIGHT - 1));
});

test('deep parts are left, narrow ones stay', () => {
  const site = bars([0, 10], [80, 60]);
  new Narrowness(site, frame).leaveDeep(site);
  expect(site.subarray(5 * WIDTH, 5 * WIDTH + 100).every((v) => v === 1)).toBe(true);
  expect(site.subarray(110 * WIDTH, 110 * WIDTH + 60).every((v) => v === 0)).toBe(true);
});

test('a piece is slender where no part of the site in or beside it is deeper than 8 px', () => {
  const narrowness = new Narrowness(bars([10, 14], [100, 20]), frame);
  expect(narrowness.isSlender({ x: 0, y: 0, width: 60, height: 30 })).toBe(true);
  expect(narrowness.isSlender({ x: 0, y: 90, width: 60, height: 30 })).toBe(false);
});
