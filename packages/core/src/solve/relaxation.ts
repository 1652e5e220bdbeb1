import type { System } from './system.js';
import { diagonalOf } from './system.js';

/**
 * Plain Gauss-Seidel relaxation: the reference that the solver's speed is measured against.
 * @param x first guess, changed in place
 * @param stop called with the relative residual every 16 sweeps; true ends it
 * @returns sweeps taken
 */
export function relaxPlainly(
  system: System,
  b: Float64Array,
  x: Float64Array,
  stop: (residual: number) => boolean,
): number {
  const { size, neighbours, weights } = system;
  const diagonal = diagonalOf(system);
  const f = new Float64Array(size + 1);
  f.set(x.subarray(0, size));
  const around = (i: number): number => {
    const k = 4 * i;
    return (
      weights[k]! * f[neighbours[k]!]! +
      weights[k + 1]! * f[neighbours[k + 1]!]! +
      weights[k + 2]! * f[neighbours[k + 2]!]! +
      weights[k + 3]! * f[neighbours[k + 3]!]!
    );
  };
  for (let sweep = 1; ; sweep++) {
    for (let i = 0; i < size; i++) f[i] = (b[i]! + around(i)) / diagonal[i]!;
    if (sweep % 16) continue;
    let rest = 0;
    let whole = 0;
    for (let i = 0; i < size; i++) {
      const r = b[i]! + around(i) - diagonal[i]! * f[i]!;
      rest += r * r;
      whole += b[i]! * b[i]!;
    }
    if (stop(Math.sqrt(rest / whole))) {
      x.set(f.subarray(0, size));
      return sweep;
    }
  }
}
