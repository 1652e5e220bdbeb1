import type { Curve } from '../curves.js';

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

/** @param curves by level, px of that level */
export function crestsOf(curves: readonly (readonly Curve[])[]): Crests {
  const list: number[][] = [];
  curves.forEach((ofLevel, level) => {
    const side = 2 ** level;
    const shift = (side - 1) / 2;
    for (const { xs, ys } of ofLevel) {
      const n = xs.length;
      for (let i = THIN >> 1; i < n; i += THIN) {
        const [a, b] = [Math.max(0, i - CHORD), Math.min(n - 1, i + CHORD)];
        const [dx, dy] = [xs[b]! - xs[a]!, ys[b]! - ys[a]!];
        const d = Math.hypot(dx, dy);
        if (d < b - a - 2) continue;
        list.push([xs[i]! * side + shift, ys[i]! * side + shift, dx / d, dy / d, THIN * side, level]);
      }
    }
  });
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
