import { searchWindow } from './window.js';

const FRAME = { x: 0, y: 0, width: 2000, height: 1500 };
const full = ({ width, height }: { width: number; height: number }): Uint8Array =>
  new Uint8Array(width * height).fill(1);

/** A hole as broad as its box, as a mask of any part of the picture. */
const holeIn =
  (box: typeof FRAME) =>
  (part: typeof FRAME): Uint8Array =>
    full(part).map((_, i) => {
      const [x, y] = [part.x + (i % part.width), part.y + Math.floor(i / part.width)];
      return x >= box.x && x < box.x + box.width && y >= box.y && y < box.y + box.height ? 1 : 0;
    });

describe('where a hole is filled from', () => {
  test('the deeper the hole, the further round it, within the picture', () => {
    const thin = { x: 900, y: 700, width: 300, height: 5 };
    const broad = { x: 900, y: 700, width: 60, height: 60 };
    const round = (box: typeof FRAME): number => box.y - searchWindow(box, FRAME, holeIn(box)).y;
    expect(round(thin)).toBe(48 + 6 * 3);
    expect(round(broad)).toBe(48 + 6 * 30);
    const huge = { x: 500, y: 400, width: 900, height: 900 };
    expect(searchWindow(huge, FRAME, holeIn(huge))).toEqual({
      x: 116,
      y: 16,
      width: 1668,
      height: 1484,
    });
  });

  test('a hole that fills its box is as deep as it is broad, not endlessly deep', () => {
    // All of the box is hole: without what is around it there would be no border to measure from.
    const box = { x: 1900, y: 0, width: 100, height: 1500 };
    expect(searchWindow(box, FRAME, holeIn(box)).x).toBe(1900 - 384);
    const edge = { x: 1990, y: 0, width: 10, height: 1500 };
    expect(searchWindow(edge, FRAME, holeIn(edge)).x).toBe(1990 - 48 - 6 * 10);
  });

  test('a margin that is asked for is taken', () => {
    const box = { x: 100, y: 100, width: 50, height: 50 };
    expect(searchWindow(box, FRAME, holeIn(box), 48)).toEqual({
      x: 52,
      y: 52,
      width: 146,
      height: 146,
    });
  });
});
