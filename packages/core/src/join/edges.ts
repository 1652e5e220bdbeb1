import type { Rect } from '../raster/rect.js';

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
