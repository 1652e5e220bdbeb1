import type { Plane } from '../raster/plane.js';

/** Half the side of a patch, px. */
export const HALF = 5;
export const SIDE = 2 * HALF + 1;
/** Share of a patch's slopes that lie in one direction, from which on it is an edge, and like itself along itself. */
const ONE_WAY = 0.6;

/** Whether a patch round a pixel lies in the picture as a whole. */
function isWhole({ width, height }: Plane, p: number): boolean {
  const x = p % width;
  return x >= HALF && x < width - HALF && p >= HALF * width && p < (height - HALF) * width;
}

/** Standard deviation in a patch, codes; 0 where it would lie outside of the picture. */
export function deviationAt(plane: Plane, p: number): number {
  if (!isWhole(plane, p)) return 0;
  const { width, values } = plane;
  let [sum, square] = [0, 0];
  for (let v = -HALF; v <= HALF; v++)
    for (let i = p + v * width - HALF, end = i + SIDE; i < end; i++) {
      const value = values[i]!;
      sum += value;
      square += value * value;
    }
  return deviationFrom(sum, square);
}

/** Standard deviations round pixels; quick where they follow each other along rows. */
export function deviationsOf(plane: Plane, pixels: Int32Array): Float32Array {
  const { width, values } = plane;
  let [sum, square, last] = [0, 0, -2];
  return Float32Array.from(pixels, (p) => {
    if (!isWhole(plane, p)) return 0;
    const follows = p === last + 1;
    if (!follows) [sum, square] = [0, 0];
    last = p;
    for (let v = -HALF; v <= HALF; v++) {
      const end = p + v * width + HALF;
      for (let i = follows ? end : end - SIDE + 1; i <= end; i++) {
        const value = values[i]!;
        sum += value;
        square += value * value;
      }
      if (!follows) continue;
      const left = values[end - SIDE]!;
      sum -= left;
      square -= left * left;
    }
    return deviationFrom(sum, square);
  });
}

/** Standard deviations round every so many-th pixel of every so many-th row. @param step px, at most a patch's side */
export function deviationsOnGrid(plane: Plane, step: number): Float32Array {
  const { width, height, values } = plane;
  const columns = Math.ceil(width / step);
  const found = new Float32Array(columns * Math.ceil(height / step));
  // Sums over the rows of a patch, pixel by pixel.
  const sums = new Float64Array(width);
  const squares = new Float64Array(width);
  const count = (y: number, sign: 1 | -1): void => {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      const value = values[i]!;
      sums[x]! += sign * value;
      squares[x]! += sign * value * value;
    }
  };
  let [top, bottom] = [0, 0];
  for (let y = Math.ceil(HALF / step) * step; y < height - HALF; y += step) {
    for (; bottom <= y + HALF; bottom++) count(bottom, 1);
    for (; top < y - HALF; top++) count(top, -1);
    const row = (y / step) * columns;
    for (let x = Math.ceil(HALF / step) * step; x < width - HALF; x += step) {
      let [sum, square] = [0, 0];
      for (let i = x - HALF; i <= x + HALF; i++) {
        sum += sums[i]!;
        square += squares[i]!;
      }
      found[row + x / step] = deviationFrom(sum, square);
    }
  }
  return found;
}

function deviationFrom(sum: number, square: number): number {
  const n = SIDE * SIDE;
  return Math.sqrt(Math.max(0, square / n - (sum / n) ** 2));
}

/** Whether a patch's slopes all lie one way (coherence of the structure tensor, Bigun and Granlund 1987). */
export function isEdge({ width, values }: Plane, p: number): boolean {
  let [xx, xy, yy] = [0, 0, 0];
  for (let v = -HALF + 1; v < HALF; v++)
    for (let i = p + v * width - HALF + 1, end = i + SIDE - 2; i < end; i++) {
      const gx = values[i + 1]! - values[i - 1]!;
      const gy = values[i + width]! - values[i - width]!;
      xx += gx * gx;
      xy += gx * gy;
      yy += gy * gy;
    }
  const root = Math.sqrt((xx - yy) ** 2 + 4 * xy * xy);
  return root > ONE_WAY * (xx + yy);
}

/** Whether two patches differ by at most so much. @param most root mean square, codes */
export function isWithin({ width, values }: Plane, p: number, q: number, most: number): boolean {
  const limit = (most * SIDE) ** 2;
  let sum = 0;
  for (let v = -HALF; v <= HALF; v++) {
    for (let i = p + v * width - HALF, j = q + v * width - HALF, end = i + SIDE; i < end; i++, j++)
      sum += (values[i]! - values[j]!) ** 2;
    if (sum > limit) return false;
  }
  return true;
}

/**
 * Correlation of two patches, their means left out; 0 where one of them shows nothing.
 * @param every of how many rows and columns one is looked at
 */
export function correlation({ width, values }: Plane, p: number, q: number, every = 1): number {
  let [n, a, b, aa, bb, ab] = [0, 0, 0, 0, 0, 0];
  for (let v = -HALF; v <= HALF; v += every) {
    let j = q + v * width - HALF;
    for (let i = p + v * width - HALF, end = i + SIDE; i < end; i += every, j += every) {
      const one = values[i]!;
      const two = values[j]!;
      a += one;
      b += two;
      aa += one * one;
      bb += two * two;
      ab += one * two;
      n++;
    }
  }
  const va = aa - (a * a) / n;
  const vb = bb - (b * b) / n;
  return va < 0.4 * n || vb < 0.4 * n ? 0 : (ab - (a * b) / n) / Math.sqrt(va * vb);
}
