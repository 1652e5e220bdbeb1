/**
 * A symmetric positive definite system on the pixels of a masked window: for every unknown p
 *   sum over its neighbours q of weight(p,q) * (f(p) - f(q)) + own(p) * f(p) = b(p).
 * `own` holds what ties p to known values (Dirichlet ring, screening). Everything lies on a grid with a frame
 * of one cell all round, so that neighbours are at i+1, i-1, i+stride and i-stride without any test.
 */
export interface System {
  /** Cells in a row, frame included: window width + 2. */
  readonly stride: number;
  /** Cells in all, frame included. */
  readonly cells: number;
  /** 1 where a cell is an unknown. */
  readonly unknown: Uint8Array;
  /** Rows of unknowns as pairs: first cell, cell after the last. */
  readonly runs: Int32Array;
  /** Weight between a cell and the one to its right; 0 unless both are unknowns. */
  readonly right: Float32Array;
  /** Weight between a cell and the one below it; 0 unless both are unknowns. */
  readonly below: Float32Array;
  /** Weight that ties each unknown to known values. */
  readonly own: Float32Array;
}

/** Cell of window pixel x, y. */
export function cellOf(stride: number, x: number, y: number): number {
  return (y + 1) * stride + x + 1;
}

/** Sum of all weights at each unknown (the diagonal of the matrix); 0 elsewhere. */
export function diagonalOf({ cells, stride, runs, right, below, own }: System): Float64Array {
  const diagonal = new Float64Array(cells);
  for (let k = 0; k < runs.length; k += 2)
    for (let i = runs[k]!; i < runs[k + 1]!; i++)
      diagonal[i] = own[i]! + right[i]! + right[i - 1]! + below[i]! + below[i - stride]!;
  return diagonal;
}

/** Rows of unknowns as pairs of cells; no row ends with one. */
function runsOf(unknown: Uint8Array): Int32Array {
  const runs: number[] = [];
  for (let i = unknown.indexOf(1); i >= 0; i = unknown.indexOf(1, i)) {
    runs.push(i);
    while (unknown[i]) i++;
    runs.push(i);
  }
  return Int32Array.from(runs);
}

/**
 * The 5-point Laplacian of a masked window: weight 1 between neighbouring unknowns, 1 in `own` for every
 * neighbour that is known, nothing across the window's border (natural boundary): a window must reach one
 * pixel beyond the site wherever the picture goes on.
 * @param mask 1 = unknown, width * height
 */
export function laplacian(mask: Uint8Array, width: number, height: number): System {
  const stride = width + 2;
  const cells = stride * (height + 2);
  const unknown = new Uint8Array(cells);
  for (let y = 0; y < height; y++)
    unknown.set(mask.subarray(y * width, (y + 1) * width), cellOf(stride, 0, y));
  const runs = runsOf(unknown);
  const right = new Float32Array(cells);
  const below = new Float32Array(cells);
  const own = new Float32Array(cells);
  for (let k = 0; k < runs.length; k += 2) {
    for (let i = runs[k]!; i < runs[k + 1]!; i++) {
      const x = (i % stride) - 1;
      const y = Math.floor(i / stride) - 1;
      if (unknown[i + 1]) right[i] = 1;
      else if (x + 1 < width) own[i]! += 1;
      if (!unknown[i - 1] && x > 0) own[i]! += 1;
      if (unknown[i + stride]) below[i] = 1;
      else if (y + 1 < height) own[i]! += 1;
      if (!unknown[i - stride] && y > 0) own[i]! += 1;
    }
  }
  return { stride, cells, unknown, runs, right, below, own };
}

/** out = b - A x at the unknowns, four right-hand sides at once: four values a cell. */
export function residualOf(
  system: System,
  b: Float32Array | Float64Array,
  x: Float32Array | Float64Array,
  out: Float32Array | Float64Array,
): void {
  const { stride, runs, right, below, own } = system;
  const row = 4 * stride;
  for (let k = 0; k < runs.length; k += 2)
    for (let i = runs[k]!, end = runs[k + 1]!; i < end; i++) {
      const east = right[i]!;
      const west = right[i - 1]!;
      const south = below[i]!;
      const north = below[i - stride]!;
      const diagonal = own[i]! + east + west + south + north;
      for (let j = 4 * i; j < 4 * i + 4; j++)
        out[j] =
          b[j]! +
          east * x[j + 4]! +
          west * x[j - 4]! +
          south * x[j + row]! +
          north * x[j - row]! -
          diagonal * x[j]!;
    }
}
