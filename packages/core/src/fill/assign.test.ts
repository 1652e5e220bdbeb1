import { bandsOf } from './assign.js';

const WIDTH = 200;

/** Holes of some rows, so many a row. */
function rows(...counts: readonly (readonly [row: number, count: number])[]): Int32Array {
  return Int32Array.from(
    counts.flatMap(([y, count]) => Array.from({ length: count }, (_, x) => y * WIDTH + x)),
  );
}

test('few holes are one band', () => {
  expect(bandsOf(rows([3, 40], [4, 60]), WIDTH)).toEqual([[0, 100]]);
  expect(bandsOf(rows(), WIDTH)).toEqual([]);
});

test('bands are whole rows, hold every hole once, and every other one lies apart', () => {
  const counts = Array.from({ length: 300 }, (_, y) => [y, 20 + ((y * 37) % 150)] as const);
  const holes = rows(...counts);
  const bands = bandsOf(holes, WIDTH);
  expect(bands.length).toBeGreaterThan(4);
  expect(bands[0]![0]).toBe(0);
  expect(bands.at(-1)![1]).toBe(holes.length);
  const rowOf = (k: number): number => Math.floor(holes[k]! / WIDTH);
  for (let k = 1; k < bands.length; k++) {
    expect(bands[k]![0]).toBe(bands[k - 1]![1]);
    expect(rowOf(bands[k]![0])).toBeGreaterThan(rowOf(bands[k]![0] - 1));
    if (k > 1) expect(rowOf(bands[k]![0]) - rowOf(bands[k - 2]![1] - 1)).toBeGreaterThan(1);
  }
});

test('a row of more holes than a band has is not cut', () => {
  const wide = Int32Array.from({ length: 9000 }, (_, p) => p);
  expect(bandsOf(wide, 9000)).toEqual([[0, 9000]]);
});
