import { solveSmall } from '../../solve/small.js';

/**
 * A family of near-parallel lines as a phase: whole numbers on the lines, growing by one from each to the next.
 * A polynomial of third degree in the place, so that bow and fanning fit.
 */
export interface Phase {
  /** Where the polynomial is centred, and what its coordinates are divided by; px. */
  readonly cx: number;
  readonly cy: number;
  readonly unit: number;
  /** Of 1, u, v, uu, uv, vv, uuu, uuv, uvv, vvv. */
  readonly terms: readonly number[];
}

export const TERMS = { flat: 3, bowed: 6, full: 10 } as const;

function powers(u: number, v: number): readonly number[] {
  return [1, u, v, u * u, u * v, v * v, u * u * u, u * u * v, u * v * v, v * v * v];
}

/** The phase at a place. */
export function phaseAt({ cx, cy, unit, terms }: Phase, x: number, y: number): number {
  const u = (x - cx) / unit;
  const v = (y - cy) / unit;
  const [a, b, c, d, e, f, g, h, i, j] = terms as [number, ...number[]];
  return (
    a + u * (b! + u * (d! + u * g! + v * h!) + v * (e! + v * i!)) + v * (c! + v * (f! + v * j!))
  );
}

/** Its slope there, lines a px. */
export function slopeAt({ cx, cy, unit, terms }: Phase, x: number, y: number): [number, number] {
  const u = (x - cx) / unit;
  const v = (y - cy) / unit;
  const [, b, c, d, e, f, g, h, i, j] = terms as [number, ...number[]];
  return [
    (b! + 2 * d! * u + e! * v + 3 * g! * u * u + 2 * h! * u * v + i! * v * v) / unit,
    (c! + e! * u + 2 * f! * v + h! * u * u + 2 * i! * u * v + 3 * j! * v * v) / unit,
  ];
}

/** Points with a weight, and the phase they should have. */
export interface Mark {
  readonly x: number;
  readonly y: number;
  readonly weight: number;
  readonly phase: number;
}

/**
 * The phase nearest to marks by weighted least squares; higher terms are held down a little, so that few marks do not bend it.
 * @param count how many terms may differ from 0
 */
export function phaseThrough(
  marks: readonly Mark[],
  frame: Omit<Phase, 'terms'>,
  count: number,
): Phase {
  const normal = Array.from({ length: count }, () => new Array<number>(count).fill(0));
  const right = new Array<number>(count).fill(0);
  let total = 0;
  for (const { x, y, weight, phase } of marks) {
    const basis = powers((x - frame.cx) / frame.unit, (y - frame.cy) / frame.unit);
    total += weight;
    for (let r = 0; r < count; r++) {
      const row = normal[r]!;
      for (let c = 0; c < count; c++) row[c]! += weight * basis[r]! * basis[c]!;
      right[r]! += weight * basis[r]! * phase;
    }
  }
  for (let r = 0; r < count; r++) normal[r]![r]! += total * (r < TERMS.flat ? 1e-9 : 3e-5);
  const found = solveSmall(normal, right);
  return { ...frame, terms: Array.from({ length: TERMS.full }, (_, k) => found[k] ?? 0) };
}
