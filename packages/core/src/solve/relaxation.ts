import type { System } from './system.js';
import { diagonalOf } from './system.js';

/**
 * Plain Gauss-Seidel relaxation: the reference that the solver's speed is measured against.
 * @param x first guess, a value a cell, changed in place; cell 0 must be 0
 * @param stop called with the relative residual every 16 sweeps; true ends it
 * @returns sweeps taken
 */
export function relaxPlainly(
  system: System,
  b: Float64Array,
  x: Float64Array,
  stop: (residual: number) => boolean,
): number {
  const { cells, above, under, right, below } = system;
  const diagonal = diagonalOf(system);
  const inverse = diagonal.map((d) => (d > 0 ? 1 / d : 0));
  const around = (i: number): number =>
    (i + 1 < cells ? right[i]! * x[i + 1]! : 0) +
    right[i - 1]! * x[i - 1]! +
    below[i]! * x[under[i]!]! +
    below[above[i]!]! * x[above[i]!]!;
  for (let sweep = 1; ; sweep++) {
    let rest = 0;
    let whole = 0;
    for (let i = 1; i < cells; i++) x[i] = (b[i]! + around(i)) * inverse[i]!;
    if (sweep % 16) continue;
    for (let i = 1; i < cells; i++) {
      const r = b[i]! + around(i) - diagonal[i]! * x[i]!;
      rest += r * r;
      whole += b[i]! * b[i]!;
    }
    if (stop(Math.sqrt(rest / whole))) return sweep;
  }
}
