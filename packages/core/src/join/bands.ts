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
      if (!last) subtract(fine.values, expanded(coarse).values);
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
      const finer = whole ? expanded(whole).values : null;
      for (let p = 0, i = 0; p < weight.length; p++) {
        const by = weight[p]! > 1e-6 ? 1 / weight[p]! : 0;
        for (let c = 0; c < channels; c++, i++)
          values[i] = values[i]! * by + (finer ? finer[i]! : 0);
      }
      whole = this.sums[k]!;
    }
    return whole!;
  }
}

export function sheetOf(width: number, height: number, channels: number): Sheet {
  return { width, height, channels, values: new Float32Array(width * height * channels) };
}

function subtract(values: Float32Array, by: Float32Array): void {
  for (let i = 0; i < values.length; i++) values[i]! -= by[i]!;
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

/** Twice the size by the same kernel. */
function expanded({ width, height, channels: n, values }: Sheet): Sheet {
  const rows = new Float32Array(2 * width * height * n);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const p = (y * width + x) * n;
      const o = 2 * p;
      const left = x > 0 ? n : 0;
      const right = x < width - 1 ? n : 0;
      for (let c = 0; c < n; c++) {
        const here = values[p + c]!;
        const next = values[p + c + right]!;
        rows[o + c] = (values[p + c - left]! + 6 * here + next) / 8;
        rows[o + n + c] = (here + next) / 2;
      }
    }
  const out = sheetOf(2 * width, 2 * height, n);
  const row = 2 * width * n;
  for (let y = 0; y < height; y++) {
    const up = y > 0 ? row : 0;
    const down = y < height - 1 ? row : 0;
    for (let i = y * row, o = 2 * y * row, end = i + row; i < end; i++, o++) {
      const here = rows[i]!;
      const next = rows[i + down]!;
      out.values[o] = (rows[i - up]! + 6 * here + next) / 8;
      out.values[o + row] = (here + next) / 2;
    }
  }
  return out;
}
