/**
 * A symmetric positive definite system on the pixels of a mask: for every unknown p
 *   sum over its neighbours q of weight(p,q) * (f(p) - f(q)) + own(p) * f(p) = b(p).
 * `own` holds what ties p to known values (Dirichlet ring, screening). Unknowns are numbered from 1 as they are read, so
 * that one and the next of its row follow one another; cell 0 stands for what is no unknown.
 */
export interface System {
  /** Of the window that the mask lies in, px. */
  readonly width: number;
  readonly height: number;
  /** Unknowns and one more. */
  readonly cells: number;
  /** Rows of unknowns as pairs: first pixel of the window, pixel after the last. */
  readonly runs: Int32Array;
  /** The cell above each and the one below it, 0 where there is none. */
  readonly above: Int32Array;
  readonly under: Int32Array;
  /** Weight between a cell and the one to its right; 0 where there is none. */
  readonly right: Float32Array;
  /** Weight between a cell and the one below it; 0 where there is none. */
  readonly below: Float32Array;
  /** Weight that ties each unknown to known values. */
  readonly own: Float32Array;
}

/** Sum of all weights at each unknown (the diagonal of the matrix); 0 at cell 0. */
export function diagonalOf({ cells, above, right, below, own }: System): Float64Array {
  const diagonal = new Float64Array(cells);
  for (let i = 1; i < cells; i++)
    diagonal[i] = own[i]! + right[i]! + right[i - 1]! + below[i]! + below[above[i]!]!;
  return diagonal;
}

/** The cell of every pixel of a system's window, 0 where there is none. */
export function cellsOf({ width, height, runs }: System): Int32Array {
  const cells = new Int32Array(width * height);
  let cell = 0;
  for (let k = 0; k < runs.length; k += 2)
    for (let p = runs[k]!; p < runs[k + 1]!; p++) cells[p] = ++cell;
  return cells;
}

/** Rows of a mask as pairs of pixels; a run ends with its row. */
function runsOf(mask: Uint8Array, width: number): Int32Array {
  const runs: number[] = [];
  for (let p = mask.indexOf(1); p >= 0; p = mask.indexOf(1, p)) {
    const end = p - (p % width) + width;
    runs.push(p);
    while (p < end && mask[p]) p++;
    runs.push(p);
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
  const runs = runsOf(mask, width);
  let cells = 1;
  for (let k = 0; k < runs.length; k += 2) cells += runs[k + 1]! - runs[k]!;
  const [above, under] = [new Int32Array(cells), new Int32Array(cells)];
  const right = new Float32Array(cells).fill(1);
  const below = new Float32Array(cells);
  const own = new Float32Array(cells);
  // Cells of the row that is read and of the one before it, and which row that was.
  let [here, before] = [new Int32Array(width), new Int32Array(width)];
  let row = -1;
  for (let k = 0, i = 1; k < runs.length; k += 2) {
    const y = Math.floor(runs[k]! / width);
    const [begin, end] = [runs[k]! - y * width, runs[k + 1]! - y * width];
    if (y !== row) {
      [here, before] = [before.fill(0), here];
      if (y !== row + 1) before.fill(0);
      row = y;
    }
    if (begin > 0) own[i]! += 1;
    for (let x = begin; x < end; x++, i++) {
      here[x] = i;
      const up = before[x]!;
      if (up) {
        above[i] = up;
        under[up] = i;
        below[up] = 1;
      } else if (y > 0) own[i]! += 1;
      if (y + 1 < height && !mask[(y + 1) * width + x]) own[i]! += 1;
    }
    right[i - 1] = 0;
    if (end < width) own[i - 1]! += 1;
  }
  right[0] = 0;
  return { width, height, cells, runs, above, under, right, below, own };
}

/** out = b - A x at the unknowns, four right-hand sides at once: four values a cell, those of cell 0 being 0. */
export function residualOf(
  system: System,
  b: Float32Array | Float64Array,
  x: Float32Array | Float64Array,
  out: Float32Array | Float64Array,
): void {
  const { cells, above, under, right, below, own } = system;
  for (let i = 1; i < cells; i++) {
    const east = right[i]!;
    const west = right[i - 1]!;
    const south = below[i]!;
    const up = above[i]!;
    const north = below[up]!;
    const diagonal = own[i]! + east + west + south + north;
    for (let c = 0, j = 4 * i; c < 4; c++, j++)
      out[j] =
        b[j]! +
        (east && east * x[j + 4]!) +
        west * x[j - 4]! +
        south * x[4 * under[i]! + c]! +
        north * x[4 * up + c]! -
        diagonal * x[j]!;
  }
}
