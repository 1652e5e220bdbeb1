import type { System } from './system.js';
import { diagonalOf } from './system.js';

/**
 * Plain Gauss-Seidel relaxation: the reference that the solver's speed is measured against.
 * @param x first guess, changed in place; cells that are no unknowns must be 0
 * @param stop called with the relative residual every 16 sweeps; true ends it
 * @returns sweeps taken
 */
export function relaxPlainly(
  system: System,
  b: Float64Array,
  x: Float64Array,
  stop: (residual: number) => boolean,
): number {
  const { stride, runs, right, below } = system;
  const diagonal = diagonalOf(system);
  const inverse = diagonal.map((d) => (d > 0 ? 1 / d : 0));
  const around = (i: number): number =>
    right[i]! * x[i + 1]! +
    right[i - 1]! * x[i - 1]! +
    below[i]! * x[i + stride]! +
    below[i - stride]! * x[i - stride]!;
  for (let sweep = 1; ; sweep++) {
    let rest = 0;
    let whole = 0;
    for (let k = 0; k < runs.length; k += 2)
      for (let i = runs[k]!; i < runs[k + 1]!; i++) x[i] = (b[i]! + around(i)) * inverse[i]!;
    if (sweep % 16) continue;
    for (let k = 0; k < runs.length; k += 2)
      for (let i = runs[k]!; i < runs[k + 1]!; i++) {
        const r = b[i]! + around(i) - diagonal[i]! * x[i]!;
        rest += r * r;
        whole += b[i]! * b[i]!;
      }
    if (stop(Math.sqrt(rest / whole))) return sweep;
  }
}
