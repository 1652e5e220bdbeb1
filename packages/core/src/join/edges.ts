import type { Rect } from '../raster/rect.js';
import { maskBox } from '../shape/mask-box.js';

/** The largest rectangle without a gap (largest rectangle under a histogram, row by row, with a stack). */
export function fullRect(covered: Uint8Array, width: number): Rect {
  const height = covered.length / width;
  const tall = new Int32Array(width + 1);
  let best: Rect = { x: 0, y: 0, width: 0, height: 0 };
  for (let y = 0; y < height; y++) {
    const stack: number[] = [];
    for (let x = 0; x <= width; x++) {
      tall[x] = x < width && covered[y * width + x] ? tall[x]! + 1 : 0;
      while (stack.length && tall[stack.at(-1)!]! >= tall[x]!) {
        const h = tall[stack.pop()!]!;
        const left = stack.length ? stack.at(-1)! + 1 : 0;
        if (h * (x - left) > best.width * best.height)
          best = { x: left, y: y - h + 1, width: x - left, height: h };
      }
      stack.push(x);
    }
  }
  return best;
}

/**
 * A crop between the largest without a gap and all that any frame shows.
 * @param share 0 = without a gap .. 1 = everything
 */
export function cropBetween(covered: Uint8Array, width: number, share: number): Rect {
  const inner = fullRect(covered, width);
  const outer = maskBox(covered, width) ?? inner;
  const between = (a: number, b: number): number => Math.round(a + share * (b - a));
  const x = between(inner.x, outer.x);
  const y = between(inner.y, outer.y);
  return {
    x,
    y,
    width: between(inner.x + inner.width, outer.x + outer.width) - x,
    height: between(inner.y + inner.height, outer.y + outer.height) - y,
  };
}

/** Share of a crop that no frame shows and that would be invented, 0..1. */
export function bareShare(covered: Uint8Array, width: number, rect: Rect): number {
  let bare = 0;
  for (let y = rect.y; y < rect.y + rect.height; y++)
    for (let x = rect.x; x < rect.x + rect.width; x++) bare += 1 - covered[y * width + x]!;
  return bare / (rect.width * rect.height);
}
