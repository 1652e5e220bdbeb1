/** Interleaved floats, row by row. */
export interface Sheet {
  readonly width: number;
  readonly height: number;
  readonly channels: number;
  readonly values: Float32Array;
}

/** Samples of one piece of the canvas, and how much each counts there (0..1). Place and sides are multiples of 2^levels. */
export interface Piece {
  readonly x: number;
  readonly y: number;
  readonly sheet: Sheet;
  readonly weight: Sheet;
}

/** Sums of bands over a canvas whose sides are multiples of 2^levels. */
export class Bands {
  private readonly sums: Sheet[];
  private readonly weights: Sheet[];

  constructor(
    width: number,
    height: number,
    channels: number,
    private readonly levels: number,
  ) {
    const sized = (k: number, n: number) => sheetOf(width >> k, height >> k, n);
    this.sums = Array.from({ length: levels + 1 }, (_, k) => sized(k, channels));
    this.weights = Array.from({ length: levels + 1 }, (_, k) => sized(k, 1));
  }

  /** Adds a piece band by band (Burt, Adelson, "A Multiresolution Spline", ACM TOG 2(4), 1983). */
  add({ x, y, sheet, weight }: Piece): void {
    let [fine, share] = [sheet, weight];
    for (let k = 0; k <= this.levels; k++) {
      const last = k === this.levels;
      const coarse = last ? fine : reduced(fine);
      if (!last) addExpanded(coarse, fine.values, -1);
      addWeighted(fine, share, this.sums[k]!, this.weights[k]!, x >> k, y >> k);
      fine = coarse;
      if (!last) share = reduced(share);
    }
  }

  /** The pieces put together. */
  merged(): Sheet {
    let whole: Sheet | null = null;
    for (let k = this.levels; k >= 0; k--) {
      const { values, channels } = this.sums[k]!;
      const weight = this.weights[k]!.values;
      for (let p = 0, i = 0; p < weight.length; p++) {
        const by = weight[p]! > 1e-6 ? 1 / weight[p]! : 0;
        for (let c = 0; c < channels; c++, i++) values[i]! *= by;
      }
      if (whole) addExpanded(whole, values, 1);
      whole = this.sums[k]!;
    }
    return whole!;
  }
}

export function sheetOf(width: number, height: number, channels: number): Sheet {
  return { width, height, channels, values: new Float32Array(width * height * channels) };
}

function addWeighted(
  from: Sheet,
  share: Sheet,
  sums: Sheet,
  weights: Sheet,
  x: number,
  y: number,
): void {
  const { width, height, channels } = from;
  for (let v = 0, p = 0, i = 0; v < height; v++) {
    let q = (y + v) * weights.width + x;
    let o = q * channels;
    for (let u = 0; u < width; u++, p++, q++) {
      const w = share.values[p]!;
      weights.values[q]! += w;
      for (let c = 0; c < channels; c++, i++, o++) sums.values[o]! += w * from.values[i]!;
    }
  }
}

/** Half the size, by the kernel 1 4 6 4 1; sides must be even. */
function reduced({ width, height, channels: n, values }: Sheet): Sheet {
  const w = width >> 1;
  const h = height >> 1;
  const rows = new Float32Array(w * height * n);
  for (let y = 0, o = 0; y < height; y++) {
    const from = y * width * n;
    for (let x = 0; x < w; x++) {
      const p = from + 2 * x * n;
      const left = x > 0 ? n : 0;
      const right = x < w - 1 ? 2 * n : n;
      for (let c = 0; c < n; c++, o++)
        rows[o] =
          (6 * values[p + c]! +
            4 * (values[p + c - left]! + values[p + c + n]!) +
            values[p + c - 2 * left]! +
            values[p + c + right]!) /
          16;
    }
  }
  const out = sheetOf(w, h, n);
  const row = w * n;
  for (let y = 0, o = 0; y < h; y++) {
    const up = y > 0 ? row : 0;
    const far = y < h - 1 ? 2 * row : row;
    for (let i = 2 * y * row, end = i + row; i < end; i++, o++)
      out.values[o] =
        (6 * rows[i]! + 4 * (rows[i - up]! + rows[i + row]!) + rows[i - 2 * up]! + rows[i + far]!) /
        16;
  }
  return out;
}

/** Adds a sheet at twice its size, by the same kernel. @param sign 1 to add, -1 to take away */
function addExpanded(
  { width, height, channels: n, values }: Sheet,
  into: Float32Array,
  sign: 1 | -1,
): void {
  const row = 2 * width * n;
  // Rows twice as wide, three at a time: whole sheets of them would not stay in the cache.
  const rows = [new Float32Array(row), new Float32Array(row), new Float32Array(row)];
  const widened = (y: number, out: Float32Array): Float32Array => {
    for (let x = 0; x < width; x++) {
      const p = (y * width + x) * n;
      const o = 2 * x * n;
      const left = x > 0 ? n : 0;
      const right = x < width - 1 ? n : 0;
      for (let c = 0; c < n; c++) {
        const here = values[p + c]!;
        const next = values[p + c + right]!;
        out[o + c] = (values[p + c - left]! + 6 * here + next) / 8;
        out[o + n + c] = (here + next) / 2;
      }
    }
    return out;
  };
  let here = widened(0, rows[0]!);
  let up = here;
  for (let y = 0; y < height; y++) {
    const down = y < height - 1 ? widened(y + 1, rows[(y + 1) % 3]!) : here;
    for (let i = 0, o = 2 * y * row; i < row; i++, o++) {
      into[o]! += (sign * (up[i]! + 6 * here[i]! + down[i]!)) / 8;
      into[o + row]! += (sign * (here[i]! + down[i]!)) / 2;
    }
    up = here;
    here = down;
  }
}
