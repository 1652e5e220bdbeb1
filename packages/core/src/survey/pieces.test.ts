import { coverageOf } from '../shape/coverage.js';
import { isWithin } from '../shape/within.js';
import type { Finding } from './finding.js';
import { grownMask } from './grown-mask.js';
import { bordersOf, boxOf, siteOutlines } from './outlines.js';
import { gathered, piecesOf } from './pieces.js';
import { pixelsUp } from './pixels-up.js';
import { strokePixels } from './stroke-mask.js';

describe('pieces of a mask', () => {
  const mask = new Uint8Array(10 * 6);
  for (const p of [0, 1, 11, 25, 26, 58, 59]) mask[p] = 1;

  test('touch at sides and corners, with their bounds', () => {
    const pieces = piecesOf(mask, 10);
    expect(pieces.map(({ pixels }) => [...pixels])).toEqual([
      [0, 1, 11],
      [25, 26],
      [58, 59],
    ]);
    expect(pieces[0]).toMatchObject({ left: 0, top: 0, right: 1, bottom: 1 });
    expect(pieces[2]).toMatchObject({ left: 8, top: 5, right: 9, bottom: 5 });
  });

  test('are gathered where their boxes come near', () => {
    const pieces = piecesOf(mask, 10);
    expect(gathered(pieces, 2)).toHaveLength(3);
    expect(gathered(pieces, 3)).toHaveLength(2);
    expect(gathered(pieces, 4)).toHaveLength(1);
  });
});

describe('pixels of a site', () => {
  const frame = { width: 10, height: 6 };

  test('grow by the margin of their kind, and by their soft edge, within the picture', () => {
    const one = Int32Array.of(22);
    expect([...grownMask(one, boxOf(one, 10), frame, 'specks')]).toEqual([12, 21, 22, 23, 32]);
    expect([...grownMask(one, boxOf(one, 10), frame, 'losses')]).toEqual([12, 21, 22, 23, 32]);
    expect(grownMask(one, boxOf(one, 10), frame, 'losses', 1)).toHaveLength(13);
    expect(grownMask(one, boxOf(one, 10), frame, 'creases')).toHaveLength(13);
    const corner = Int32Array.of(0);
    expect([...grownMask(corner, boxOf(corner, 10), frame, 'specks')]).toEqual([0, 1, 10]);
  });

  test('of a halving are the blocks under it', () => {
    expect([...pixelsUp(Int32Array.of(6), 5, 1, frame)]).toEqual([22, 23, 32, 33]);
    expect([...pixelsUp(Int32Array.of(3), 10, 0, frame)]).toEqual([3]);
  });

  test('of a stroke lie within half its width, clipped to the picture', () => {
    const line = { xs: [2, 6], ys: [2, 2], widths: [1, 1] };
    expect([...strokePixels(line, frame)]).toEqual([22, 23, 24, 25, 26]);
    const wide = strokePixels({ ...line, widths: [3, 3] }, frame);
    expect([...wide].filter((p) => Math.floor(p / 10) === 1)).toEqual([11, 12, 13, 14, 15, 16, 17]);
    expect(strokePixels({ xs: [-9], ys: [-9], widths: [3] }, frame)).toHaveLength(0);
  });
});

describe('outlines of pieces', () => {
  const frame = { x: 0, y: 0, width: 60, height: 50 };
  const covered = (pixels: Int32Array): Set<number> => {
    const inside = new Set<number>();
    for (const points of bordersOf(pixels, 60)) {
      const brush = { width: 1, softness: 0, flow: 1 };
      const { rect, values } = coverageOf({ kind: 'outline', points }, brush, frame);
      values.forEach((v, i) => {
        if (v > 0.5)
          inside.add((rect.y + Math.floor(i / rect.width)) * 60 + rect.x + (i % rect.width));
      });
    }
    return inside;
  };
  const where = (holds: (x: number, y: number) => boolean): Int32Array =>
    Int32Array.from({ length: 3000 }, (_, p) => p).filter((p) => holds(p % 60, Math.floor(p / 60)));

  test('a ring keeps its hole', () => {
    const ring = where((x, y) => Math.abs(Math.hypot(x - 30, y - 25) - 15) < 3);
    const inside = covered(ring);
    expect(inside.has(25 * 60 + 30)).toBe(false);
    const missed = ring.filter((p) => !inside.has(p)).length;
    expect(missed).toBeLessThan(0.02 * ring.length);
    expect(inside.size).toBeLessThan(1.04 * ring.length);
  });

  test('a lattice keeps every one of its holes', () => {
    const lattice = where((x, y) => x > 2 && x < 57 && y > 2 && y < 47 && (x % 9 < 3 || y % 9 < 3));
    const inside = covered(lattice);
    expect([...inside].sort((a, b) => a - b)).toEqual([...lattice]);
  });

  test('an outline a piece: none goes round a hole, and together they hold the pixels once', () => {
    // Slanting wires, rings in rings, and dirt, as bounds and holes of many sizes.
    const pixels = where((x, y) => {
      const far = Math.hypot(x - 30, y - 25);
      return (x + y) % 14 < 2 || Math.abs(far - 20) < 2 || Math.abs(far - 9) < 2 || x * y === 77;
    });
    const lines = bordersOf(pixels, 60);
    const times = new Uint8Array(3000);
    for (const points of lines)
      for (let p = 0; p < 3000; p++)
        if (isWithin(points, [p % 60, Math.floor(p / 60)])) times[p]!++;
    const own = new Set(pixels);
    expect(Math.max(...times)).toBe(1);
    // Corners are rounded, and holes of a few pixels are covered.
    const missed = pixels.filter((p) => !times[p]).length;
    const besides = [...times.keys()].filter((p) => times[p] && !own.has(p)).length;
    expect(missed / pixels.length).toBeLessThan(0.02);
    expect(besides / pixels.length).toBeLessThan(0.02);
  });

  test('of what a repair covers lie the margin of its kind further out', () => {
    const square = where((x, y) => x >= 20 && x < 30 && y >= 20 && y < 30);
    const finding = { parts: [square], kind: 'losses', soft: 0 } as unknown as Finding;
    const xs = siteOutlines(finding, frame).flatMap((line) => line.map(([x]) => x));
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([18.5, 30.5]);
  });

  test('what hangs together by corners alone is covered whole', () => {
    const steps = where((x, y) => x > 4 && x < 44 && Math.floor(x / 5) === Math.floor(y / 5));
    const inside = covered(steps);
    expect(steps.every((p) => inside.has(p))).toBe(true);
  });
});
