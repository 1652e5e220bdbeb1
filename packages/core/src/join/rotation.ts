/** A turn of space, row by row. */
export type Rotation = readonly number[];
/** A direction or place in space: x right, y down, z forward. */
export type Vector = readonly [number, number, number];

export const UNTURNED: Rotation = [1, 0, 0, 0, 1, 0, 0, 0, 1];

export function times(a: readonly number[], b: readonly number[]): number[] {
  const out = new Array<number>(9).fill(0);
  for (let r = 0; r < 3; r++)
    for (let c = 0; c < 3; c++)
      out[3 * r + c] = a[3 * r]! * b[c]! + a[3 * r + 1]! * b[3 + c]! + a[3 * r + 2]! * b[6 + c]!;
  return out;
}

export function transposed(m: readonly number[]): number[] {
  return [m[0]!, m[3]!, m[6]!, m[1]!, m[4]!, m[7]!, m[2]!, m[5]!, m[8]!];
}

export function turnedBy(m: readonly number[], [x, y, z]: Vector): Vector {
  return [
    m[0]! * x + m[1]! * y + m[2]! * z,
    m[3]! * x + m[4]! * y + m[5]! * z,
    m[6]! * x + m[7]! * y + m[8]! * z,
  ];
}

/** The turn about an axis by its length in radians (Rodrigues' formula). */
export function rotationOf([x, y, z]: Vector): Rotation {
  const angle = Math.hypot(x, y, z);
  if (angle < 1e-12) return [1, -z, y, z, 1, -x, -y, x, 1];
  const [u, v, w] = [x / angle, y / angle, z / angle];
  const [s, c] = [Math.sin(angle), Math.cos(angle)];
  const d = 1 - c;
  return [
    c + u * u * d,
    u * v * d - w * s,
    u * w * d + v * s,
    v * u * d + w * s,
    c + v * v * d,
    v * w * d - u * s,
    w * u * d - v * s,
    w * v * d + u * s,
    c + w * w * d,
  ];
}

/**
 * The turn nearest to a matrix (Higham, "Computing the Polar Decomposition", SIAM J. Sci. Stat. Comput. 7(4), 1986), and how
 * far from it the matrix is once its scale is taken off.
 */
export function nearestRotation(matrix: readonly number[]): { turn: Rotation; off: number } {
  const scale = Math.cbrt(determinant(matrix)) || 1;
  const plain = matrix.map((v) => v / scale);
  let m = plain;
  for (let k = 0; k < 30; k++) {
    const back = transposed(inverse(m));
    const next = m.map((v, i) => (v + back[i]!) / 2);
    const moved = Math.max(...next.map((v, i) => Math.abs(v - m[i]!)));
    m = next;
    if (moved < 1e-13) break;
  }
  return { turn: m, off: Math.hypot(...plain.map((v, i) => v - m[i]!)) };
}

export function determinant(m: readonly number[]): number {
  return (
    m[0]! * (m[4]! * m[8]! - m[5]! * m[7]!) -
    m[1]! * (m[3]! * m[8]! - m[5]! * m[6]!) +
    m[2]! * (m[3]! * m[7]! - m[4]! * m[6]!)
  );
}

function inverse(m: readonly number[]): number[] {
  const d = determinant(m) || 1e-300;
  return [
    m[4]! * m[8]! - m[5]! * m[7]!,
    m[2]! * m[7]! - m[1]! * m[8]!,
    m[1]! * m[5]! - m[2]! * m[4]!,
    m[5]! * m[6]! - m[3]! * m[8]!,
    m[0]! * m[8]! - m[2]! * m[6]!,
    m[2]! * m[3]! - m[0]! * m[5]!,
    m[3]! * m[7]! - m[4]! * m[6]!,
    m[1]! * m[6]! - m[0]! * m[7]!,
    m[0]! * m[4]! - m[1]! * m[3]!,
  ].map((v) => v / d);
}

export function cross([a, b, c]: Vector, [x, y, z]: Vector): Vector {
  return [b * z - c * y, c * x - a * z, a * y - b * x];
}

export function unit([x, y, z]: Vector): Vector {
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
}
