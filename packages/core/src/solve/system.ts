/**
 * A symmetric positive definite system on the pixels of a mask: for every unknown p
 *   sum over its neighbours q of weight(p,q) * (f(p) - f(q)) + own(p) * f(p) = b(p).
 * `own` holds what ties p to known values (Dirichlet ring, screening). Unknowns are numbered row by row.
 */
export interface System {
  readonly size: number;
  /** Neighbours of unknown i at 4i..4i+3: right, left, below, above; `size` where there is none. */
  readonly neighbours: Int32Array;
  /** Weights in the same order; 0 where there is no neighbour. */
  readonly weights: Float64Array;
  /** Weight that ties each unknown to known values. */
  readonly own: Float64Array;
  /** Column and row of each unknown on its grid, for coarsening. */
  readonly column: Int32Array;
  readonly row: Int32Array;
}

/** Sum of all weights at unknown i: the diagonal of the matrix. */
export function diagonalOf(system: System): Float64Array {
  const { size, weights, own } = system;
  const diagonal = new Float64Array(size);
  for (let i = 0; i < size; i++) {
    const k = 4 * i;
    diagonal[i] = own[i]! + weights[k]! + weights[k + 1]! + weights[k + 2]! + weights[k + 3]!;
  }
  return diagonal;
}

/** Number of each masked pixel, or `size` where the mask is 0. */
export function numberPixels(mask: Uint8Array): { index: Int32Array; size: number } {
  const index = new Int32Array(mask.length);
  let size = 0;
  for (let i = 0; i < mask.length; i++) if (mask[i]) index[i] = size++;
  for (let i = 0; i < mask.length; i++) if (!mask[i]) index[i] = size;
  return { index, size };
}

/**
 * The 5-point Laplacian of a masked window: weight 1 between neighbouring unknowns, 1 in `own` for every
 * neighbour that is known, nothing across the window's border (natural boundary): a window must reach one
 * pixel beyond the site wherever the picture goes on.
 * @param mask 1 = unknown, width * height
 */
export function laplacian(mask: Uint8Array, width: number, height: number): System {
  const { index, size } = numberPixels(mask);
  const neighbours = new Int32Array(4 * size).fill(size);
  const weights = new Float64Array(4 * size);
  const own = new Float64Array(size);
  const column = new Int32Array(size);
  const row = new Int32Array(size);
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p++) {
      if (!mask[p]) continue;
      const i = index[p]!;
      column[i] = x;
      row[i] = y;
      for (let side = 0; side < 4; side++) {
        const q = neighbourPixel(p, x, y, width, height, side);
        if (q < 0) continue;
        if (mask[q]) {
          neighbours[4 * i + side] = index[q]!;
          weights[4 * i + side] = 1;
        } else own[i]! += 1;
      }
    }
  }
  return { size, neighbours, weights, own, column, row };
}

/** Pixel beside p on `side` (0 right, 1 left, 2 below, 3 above), or -1 outside the window. */
export function neighbourPixel(
  p: number,
  x: number,
  y: number,
  width: number,
  height: number,
  side: number,
): number {
  if (side === 0) return x + 1 < width ? p + 1 : -1;
  if (side === 1) return x > 0 ? p - 1 : -1;
  if (side === 2) return y + 1 < height ? p + width : -1;
  return y > 0 ? p - width : -1;
}
