import { Matrix, solve } from 'ml-matrix';
import { seededRandom } from '../random/random.js';
import { createSolver } from './multigrid.js';
import { relaxPlainly } from './relaxation.js';
import type { System } from './system.js';
import { diagonalOf, laplacian } from './system.js';

function dense(system: System): Matrix {
  const diagonal = diagonalOf(system);
  const matrix = Matrix.zeros(system.size, system.size);
  for (let i = 0; i < system.size; i++) {
    matrix.set(i, i, diagonal[i]!);
    for (let side = 0; side < 4; side++) {
      const j = system.neighbours[4 * i + side]!;
      if (j < system.size) matrix.set(i, j, matrix.get(i, j) - system.weights[4 * i + side]!);
    }
  }
  return matrix;
}

describe('multigrid solver', () => {
  test.each([1, 2, 3, 4])('agrees with a dense solve to 1e-6 on random mask %d', (seed) => {
    const random = seededRandom(seed);
    const width = 19;
    const height = 17;
    // Ragged masks with islands and holes, some of them touching the window's border.
    const mask = Uint8Array.from({ length: width * height }, () => (random.unit() < 0.7 ? 1 : 0));
    mask[0] = 0;
    const system = laplacian(mask, width, height);
    const b = Float64Array.from({ length: system.size }, () => random.unit() * 255);
    const exact = solve(dense(system), Matrix.columnVector([...b])).to1DArray();
    const x = new Float64Array(system.size);
    const { residual } = createSolver(system, { tolerance: 1e-12 }).solve(b, x);
    expect(residual).toBeLessThanOrEqual(1e-12);
    exact.forEach((value, i) => expect(Math.abs(x[i]! - value)).toBeLessThan(1e-6));
  });

  test('takes hardly more rounds on a large square than on a small one', () => {
    const roundsFor = (side: number): number => {
      const mask = new Uint8Array(side * side).fill(1);
      for (let k = 0; k < side; k++) mask[k] = mask[(side - 1) * side + k] = mask[k * side] = mask[k * side + side - 1] = 0;
      const system = laplacian(mask, side, side);
      const b = system.own.map((own, i) => own * ((i * 7919) % 255));
      return createSolver(system, { tolerance: 1e-6 }).solve(b, new Float64Array(system.size)).rounds;
    };
    expect(roundsFor(130)).toBeLessThanOrEqual(roundsFor(34) + 6);
  });

  test('solves harmonic ramps exactly: linear boundary values give the plane', () => {
    const side = 33;
    const mask = new Uint8Array(side * side);
    for (let y = 1; y < side - 1; y++) for (let x = 1; x < side - 1; x++) mask[y * side + x] = 1;
    const system = laplacian(mask, side, side);
    const plane = (x: number, y: number): number => 3 * x - 2 * y + 40;
    const b = new Float64Array(system.size);
    for (let i = 0; i < system.size; i++) {
      const x = system.column[i]!;
      const y = system.row[i]!;
      for (const [dx, dy] of [[1, 0], [-1, 0], [0, 1], [0, -1]] as const)
        if (!mask[(y + dy) * side + x + dx]) b[i]! += plane(x + dx, y + dy);
    }
    const f = new Float64Array(system.size);
    createSolver(system, { tolerance: 1e-10 }).solve(b, f);
    for (let i = 0; i < system.size; i++)
      expect(f[i]).toBeCloseTo(plane(system.column[i]!, system.row[i]!), 6);
  });

  test('agrees with plain relaxation run to the end', () => {
    const mask = new Uint8Array(20 * 20).fill(1);
    mask[210] = 0;
    const system = laplacian(mask, 20, 20);
    const b = system.own.map((own) => own * 100);
    const slow = new Float64Array(system.size);
    relaxPlainly(system, b, slow, (residual) => residual < 1e-10);
    const fast = new Float64Array(system.size);
    createSolver(system, { tolerance: 1e-10 }).solve(b, fast);
    slow.forEach((value, i) => expect(fast[i]).toBeCloseTo(value, 5));
  });

  test('leaves zero where nothing is asked', () => {
    const system = laplacian(new Uint8Array(9).fill(1, 4, 5), 3, 3);
    const x = Float64Array.of(7);
    createSolver(system).solve(new Float64Array(1), x);
    expect([...x]).toEqual([0]);
  });
});
