import type { Plane } from '../raster/plane.js';
import { blurred } from '../raster/plane.js';

/** Points on the crests of bright and dark lines, found at one scale. */
export interface Ridges {
  readonly width: number;
  readonly height: number;
  /** Number of the point that lies in a pixel, 0 where there is none; point k is numbered k + 1. */
  readonly at: Int32Array;
  readonly count: number;
  /** Where the crest is, px, to a fraction of a pixel. */
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** Unit vector across the line. */
  readonly nx: Float32Array;
  readonly ny: Float32Array;
  /** Second derivative across, positive for bright lines, in grey levels. */
  readonly strength: Float32Array;
}

/** Share of the curvature along a line that takes from its strength: blobs are no lines. */
const BLOB = 0.5;

/**
 * Crest points of lines: where the first derivative across the direction of greatest curvature vanishes within the
 * pixel (Steger, "An unbiased detector of curvilinear structures", 1998).
 * @param plane grey 0..255
 * @param sigma scale, px: finds lines up to about 3 sigma wide
 * @param least least strength kept
 */
export function ridgesOf(plane: Plane, sigma: number, least: number): Ridges {
  const { width, height } = plane;
  const { values } = blurred(plane, sigma);
  const norm = sigma * sigma;
  const crests = new Crests(width * height);
  const bent = new Int32Array(width);
  for (let y = 1; y < height - 1; y++) {
    // The trace bounds what can come of it: most pixels end here.
    const count = bentInRow(values, width, y, (0.5 * least) / norm, bent);
    for (let k = 0; k < count; k++) addCrest(crests, values, width, bent[k]!, norm, least);
  }
  return { width, height, ...crests.taken() };
}

/** The inner pixels of a row whose curvature along rows and columns comes to a least sum. @returns how many */
function bentInRow(
  values: Float32Array,
  width: number,
  y: number,
  least: number,
  found: Int32Array,
): number {
  let count = 0;
  for (let p = y * width + 1, last = (y + 1) * width - 1; p < last; p++) {
    const twice = 2 * values[p]!;
    const xx = values[p - 1]! + values[p + 1]! - twice;
    const yy = values[p - width]! + values[p + width]! - twice;
    if (Math.abs(xx) + Math.abs(yy) >= least) found[count++] = p;
  }
  return count;
}

/** Adds the crest in a pixel, if one is there. */
function addCrest(
  crests: Crests,
  values: Float32Array,
  width: number,
  p: number,
  norm: number,
  least: number,
): void {
  const v = values[p]!;
  const [l, r, u, d] = [values[p - 1]!, values[p + 1]!, values[p - width]!, values[p + width]!];
  const xx = l + r - 2 * v;
  const yy = u + d - 2 * v;
  const xy =
    (values[p - width - 1]! +
      values[p + width + 1]! -
      values[p - width + 1]! -
      values[p + width - 1]!) /
    4;
  const mean = (xx + yy) / 2;
  const half = (xx - yy) / 2;
  const root = Math.sqrt(half * half + xy * xy);
  const large = mean < 0 ? mean - root : mean + root;
  const small = mean < 0 ? mean + root : mean - root;
  const s = (Math.abs(large) - BLOB * Math.abs(small)) * norm;
  if (s < least) return;
  // Eigenvector of the large eigenvalue, by whichever row is longer.
  let ex = xy;
  let ey = large - xx;
  if (Math.abs(large - yy) > Math.abs(ey)) {
    ex = large - yy;
    ey = xy;
  }
  const length = Math.sqrt(ex * ex + ey * ey);
  if (length < 1e-9) {
    ex = 1;
    ey = 0;
  } else {
    ex /= length;
    ey /= length;
  }
  const slope = ((r - l) / 2) * ex + ((d - u) / 2) * ey;
  const t = -slope / large;
  if (Math.abs(t * ex) > 0.6 || Math.abs(t * ey) > 0.6) return;
  const y = Math.floor(p / width);
  crests.add(p, p - y * width + t * ex, y + t * ey, ex, ey, large < 0 ? s : -s);
}

/** Crest points in arrays that grow. */
class Crests {
  private readonly at: Int32Array;
  private count = 0;
  private x = new Float32Array(1 << 14);
  private y = new Float32Array(1 << 14);
  private nx = new Float32Array(1 << 14);
  private ny = new Float32Array(1 << 14);
  private strength = new Float32Array(1 << 14);

  constructor(pixels: number) {
    this.at = new Int32Array(pixels);
  }

  add(p: number, x: number, y: number, nx: number, ny: number, strength: number): void {
    const k = this.count++;
    if (k === this.x.length) this.grow();
    this.x[k] = x;
    this.y[k] = y;
    this.nx[k] = nx;
    this.ny[k] = ny;
    this.strength[k] = strength;
    this.at[p] = k + 1;
  }

  taken(): Omit<Ridges, 'width' | 'height'> {
    const { at, count, x, y, nx, ny, strength } = this;
    return { at, count, x, y, nx, ny, strength };
  }

  private grow(): void {
    this.x = twice(this.x);
    this.y = twice(this.y);
    this.nx = twice(this.nx);
    this.ny = twice(this.ny);
    this.strength = twice(this.strength);
  }
}

function twice(values: Float32Array): Float32Array<ArrayBuffer> {
  const more = new Float32Array(2 * values.length);
  more.set(values);
  return more;
}
