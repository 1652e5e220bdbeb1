import type { Strand } from '../strands.js';

/** Points of curves with their direction, thinned evenly; px of the picture. */
export interface Crests {
  readonly count: number;
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** Unit vector along the curve. */
  readonly tx: Float32Array;
  readonly ty: Float32Array;
  /** How much of a curve a point stands for, px. */
  readonly length: Float32Array;
  /** Level of the pyramid it was found at. */
  readonly level: Uint8Array;
}

/** Every so many points of a curve one is kept; the direction is that of the chord over twice as many either way. */
const THIN = 3;
const CHORD = 5;

/** Crests of strands of several levels. */
export function crestsOf(strands: readonly Strand[]): Crests {
  const list: number[][] = [];
  for (const { xs, ys, level } of strands) {
    const n = xs.length;
    const side = 2 ** level;
    for (let i = THIN >> 1; i < n; i += THIN) {
      const [a, b] = [Math.max(0, i - CHORD), Math.min(n - 1, i + CHORD)];
      const [dx, dy] = [xs[b]! - xs[a]!, ys[b]! - ys[a]!];
      const d = Math.hypot(dx, dy);
      if (d < (b - a - 2) * side) continue;
      list.push([xs[i]!, ys[i]!, dx / d, dy / d, THIN * side, level]);
    }
  }
  const column = (k: number): Float32Array => Float32Array.from(list, (row) => row[k]!);
  return {
    count: list.length,
    x: column(0),
    y: column(1),
    tx: column(2),
    ty: column(3),
    length: column(4),
    level: Uint8Array.from(list, (row) => row[5]!),
  };
}
