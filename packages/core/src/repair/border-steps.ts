import type { Border } from './border.js';
import type { ToneFit } from './tone-match.js';

const REACH = 3;
/** A step this many standard errors high is certain; the rest could be grain. */
const CERTAIN = 2;

/**
 * The steps a tone match leaves along the border, evened over the few pixels around so that the grain of single
 * border pixels is not drawn into the site, and shrunk where they could be grain alone.
 * @returns three values a pair, 8-bit codes
 */
export function smoothSteps(
  border: Border,
  { rest, trust, spread }: ToneFit,
  width: number,
  height: number,
): Float64Array {
  const n = width * height;
  const weight = new Float64Array(n);
  const squares = new Float64Array(n);
  for (let k = 0; k < border.count; k++) {
    weight[border.outside[k]!]! += trust[k]!;
    squares[border.outside[k]!]! += trust[k]! * trust[k]!;
  }
  const weights = boxSum(weight, width, height);
  const counts = boxSum(squares, width, height);
  const out = new Float64Array(3 * border.count);
  const sum = new Float64Array(n);
  for (let c = 0; c < 3; c++) {
    sum.fill(0);
    for (let k = 0; k < border.count; k++) sum[border.outside[k]!]! += trust[k]! * rest[3 * k + c]!;
    const sums = boxSum(sum, width, height);
    for (let k = 0; k < border.count; k++) {
      const q = border.outside[k]!;
      const w = weights[q]!;
      if (w <= 1e-9) continue;
      const step = sums[q]! / w;
      const error = (CERTAIN * CERTAIN * spread[c]! * spread[c]! * counts[q]!) / (w * w);
      out[3 * k + c] = step * Math.max(0, 1 - error / (step * step + 1e-12));
    }
  }
  return out;
}

/** Sums over the square of {@link REACH} around every pixel. */
function boxSum(values: Float64Array, width: number, height: number): Float64Array {
  const rows = new Float64Array(values.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const v = values[y * width + x]!;
      if (v === 0) continue;
      const last = Math.min(width - 1, x + REACH);
      for (let i = Math.max(0, x - REACH); i <= last; i++) rows[y * width + i]! += v;
    }
  }
  const out = new Float64Array(values.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const v = rows[y * width + x]!;
      if (v === 0) continue;
      const last = Math.min(height - 1, y + REACH);
      for (let i = Math.max(0, y - REACH); i <= last; i++) out[i * width + x]! += v;
    }
  }
  return out;
}
