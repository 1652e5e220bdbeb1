import { Matrix, solve } from 'ml-matrix';
import { seededRandom } from '../random/random.js';
import { LANES } from './levels.js';
import { solveSystem } from './multigrid.js';
import { relaxPlainly } from './relaxation.js';
import type { System } from './system.js';
import { cellsOf, diagonalOf, laplacian } from './system.js';

/** Cells of the unknowns, and the matrix over them. */
function dense(system: System): { at: number[]; matrix: Matrix } {
  const at = Array.from({ length: system.cells - 1 }, (_, k) => k + 1);
  const diagonal = diagonalOf(system);
  const matrix = Matrix.zeros(at.length, at.length);
  at.forEach((i, row) => {
    matrix.set(row, row, diagonal[i]!);
    for (const [j, weight] of [
      [i + 1, system.right[i]!],
      [i - 1, system.right[i - 1]!],
      [system.under[i]!, system.below[i]!],
      [system.above[i]!, system.below[system.above[i]!]!],
    ] as const)
      if (weight) matrix.set(row, at.indexOf(j), -weight);
  });
  return { at, matrix };
}

function square(side: number): System {
  const mask = new Uint8Array(side * side);
  for (let y = 1; y < side - 1; y++) for (let x = 1; x < side - 1; x++) mask[y * side + x] = 1;
  return laplacian(mask, side, side);
}

/** The same right-hand side, scaled, in all four lanes. */
function lanes(b: Float64Array): Float64Array {
  return new Float64Array(b.length * LANES).map((_, i) => b[i >> 2]! * ((i & 3) + 1));
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
    const { at, matrix } = dense(system);
    const b = new Float64Array(system.cells);
    for (const i of at) b[i] = random.unit() * 255;
    const exact = solve(matrix, Matrix.columnVector(at.map((i) => b[i]!))).to1DArray();
    const { x, residual } = solveSystem(system, lanes(b), { tolerance: 1e-12 });
    expect(residual).toBeLessThanOrEqual(1e-12);
    exact.forEach((value, k) => {
      for (let c = 0; c < LANES; c++)
        expect(Math.abs(x[LANES * at[k]! + c]! - (c + 1) * value)).toBeLessThan(1e-6);
    });
  });

  test('takes hardly more rounds on a large square than on a small one', () => {
    const roundsFor = (side: number): number => {
      const system = square(side);
      const b = Float64Array.from(system.own, (own, i) => own * ((i * 7919) % 255));
      return solveSystem(system, lanes(b), { tolerance: 1e-6 }).rounds;
    };
    expect(roundsFor(258)).toBeLessThanOrEqual(roundsFor(34) + 3);
  });

  test('solves harmonic ramps exactly: linear boundary values give the plane', () => {
    const side = 33;
    const system = square(side);
    const plane = (x: number, y: number): number => 3 * x - 2 * y + 40;
    const b = new Float64Array(system.cells);
    const cells = cellsOf(system);
    const at = (u: number, v: number): number => cells[v * side + u]!;
    for (let k = 1; k < side - 1; k++) {
      b[at(k, 1)]! += plane(k, 0);
      b[at(k, side - 2)]! += plane(k, side - 1);
      b[at(1, k)]! += plane(0, k);
      b[at(side - 2, k)]! += plane(side - 1, k);
    }
    const { x } = solveSystem(system, lanes(b), { tolerance: 1e-11 });
    for (let v = 1; v < side - 1; v++)
      for (let u = 1; u < side - 1; u++) expect(x[LANES * at(u, v)]).toBeCloseTo(plane(u, v), 6);
  });

  test('agrees with plain relaxation run to the end', () => {
    const mask = new Uint8Array(20 * 20).fill(1);
    mask[210] = 0;
    const system = laplacian(mask, 20, 20);
    const b = Float64Array.from(system.own, (own) => own * 100);
    const slow = new Float64Array(system.cells);
    relaxPlainly(system, b, slow, (residual) => residual < 1e-10);
    const { x } = solveSystem(system, lanes(b), { tolerance: 1e-10 });
    slow.forEach((value, i) => expect(x[LANES * i]).toBeCloseTo(value, 5));
  });

  test('leaves zero where nothing is asked', () => {
    const system = square(5);
    const { x } = solveSystem(system, new Float64Array(system.cells * LANES));
    expect(x.every((v) => v === 0)).toBe(true);
  });

  test.each([1e-3, 1e-9])(
    'a good guess saves rounds, a bad one leads to the same, to %d',
    (tolerance) => {
      const system = square(70);
      // Of the last lane nothing is asked.
      const b = lanes(Float64Array.from(system.own, (own, i) => own * ((i * 7919) % 255)));
      for (let i = 3; i < b.length; i += LANES) b[i] = 0;
      const { x, rounds } = solveSystem(system, b, { tolerance });
      // The same system, some cells held a little more firmly.
      const firmer = { ...system, own: system.own.map((own, i) => own + (i % 90 ? 0 : 1e-3)) };
      const afresh = solveSystem(firmer, b, { tolerance });
      const guessed = solveSystem(firmer, b, { tolerance, start: x });
      expect(guessed.rounds).toBeLessThan(rounds);
      const bad = solveSystem(firmer, b, { tolerance, start: x.map((v, i) => v + (i % 13)) });
      expect(bad.residual).toBeLessThanOrEqual(tolerance);
      const most = Math.max(...x);
      for (const other of [guessed, bad])
        other.x.forEach((v, i) => {
          expect(Math.abs(v - afresh.x[i]!)).toBeLessThan(3 * tolerance * most);
          if ((i & 3) === 3) expect(v).toBe(0);
        });
    },
  );

  test.each([1e-3, 1e-9])('what is asked of no unknown has no say, to %d', (tolerance) => {
    const random = seededRandom(9);
    const mask = Uint8Array.from({ length: 23 * 19 }, () => (random.unit() < 0.6 ? 1 : 0));
    const system = laplacian(mask, 23, 19);
    const values = (outside: () => number): Float64Array =>
      lanes(Float64Array.from(system.own, (_, i) => (i ? (i * 7919) % 255 : outside())));
    const clean = solveSystem(
      system,
      values(() => 0),
      { tolerance },
    );
    const into = new Float64Array(clean.x.length).fill(3);
    const soiled = solveSystem(
      system,
      values(() => 1e4),
      { tolerance, into },
    );
    expect(soiled.x).toBe(into);
    expect(Array.from(into)).toEqual(Array.from(clean.x));
    expect(clean.x.some((v) => v !== 0)).toBe(true);
    expect(Array.from(into.subarray(0, LANES))).toEqual([0, 0, 0, 0]);
  });
});
