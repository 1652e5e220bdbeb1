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
  const at = new Int32Array(width * height);
  const norm = sigma * sigma;
  let room = 1 << 14;
  let [x, y, nx, ny, strength] = [0, 0, 0, 0, 0].map(() => new Float32Array(room)) as [
    Float32Array,
    Float32Array,
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  let count = 0;
  for (let py = 1; py < height - 1; py++)
    for (let px = 1, p = py * width + 1; px < width - 1; px++, p++) {
      const v = values[p]!;
      const [l, r, u, d] = [values[p - 1]!, values[p + 1]!, values[p - width]!, values[p + width]!];
      const xx = l + r - 2 * v;
      const yy = u + d - 2 * v;
      // The trace bounds what can come of it: most pixels end here.
      if ((Math.abs(xx) + Math.abs(yy)) * norm < 0.5 * least) continue;
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
      if (s < least) continue;
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
      if (Math.abs(t * ex) > 0.6 || Math.abs(t * ey) > 0.6) continue;
      if (count === room) {
        room *= 2;
        [x, y, nx, ny, strength] = [x, y, nx, ny, strength].map((old) => {
          const more = new Float32Array(room);
          more.set(old);
          return more;
        }) as [Float32Array, Float32Array, Float32Array, Float32Array, Float32Array];
      }
      x[count] = px + t * ex;
      y[count] = py + t * ey;
      nx[count] = ex;
      ny[count] = ey;
      strength[count] = large < 0 ? s : -s;
      at[p] = ++count;
    }
  return { width, height, at, count, x, y, nx, ny, strength };
}
