import type { Raster } from '../raster/raster.js';
import { pointOnBow } from '../shape/path.js';
import type { Point } from '../shape/site.js';
import { greySampler } from '../raster/grey.js';
import type { Grey } from './line-measure.js';
import { asRuns, centred, contrastAt, normalAt, widthAcross } from './line-measure.js';

/** A thin line found between two points. */
export interface LineRun {
  /** Corners from end to end, moved onto the line; the runs between them bow by `bends`. */
  readonly points: readonly Point[];
  /** Sagitta of each run, px; positive to the right when walking along it. */
  readonly bends: readonly number[];
  /** Width of the line where it is widest, px, between the places where a fifth of its contrast is left. */
  readonly width: number;
  /** Its width at every corner, px, none over {@link width}. */
  readonly widths: readonly number[];
  /** Contrast of the line against both sides, share of full scale 0..1. */
  readonly contrast: number;
}

/** Options of {@link fitLineRun}. */
export interface LineRunOptions {
  /** Greatest sagitta tried, as a share of the distance between the points. @default 0.12 */
  mostBow?: number;
  /** Least contrast that counts as a line. @default 0.03 */
  leastContrast?: number;
  /** How far off the bow the line is followed, px. @default 6 % of the length, at least 10 */
  corridor?: number;
}

const STRETCHES = 5;

/**
 * Finds the thin line (wire, hair, scratch) between two clicks: first the parabola along which the picture
 * differs most from both of its sides, then, in a corridor about it, the smooth path of most contrast (dynamic
 * programming), told as bowed runs. Returns null when nothing looks like a line.
 */
export function fitLineRun(
  picture: Raster,
  from: Point,
  to: Point,
  options: LineRunOptions = {},
): LineRun | null {
  const length = Math.sqrt((to[0] - from[0]) ** 2 + (to[1] - from[1]) ** 2);
  if (length < 8) return null;
  const grey = greySampler(picture);
  const most = Math.max(3, (options.mostBow ?? 0.12) * length);
  const bow = bestBow(grey, from, to, most, length);
  if (bow.contrast < (options.leastContrast ?? 0.03)) return null;
  const offsets = follow(
    grey,
    from,
    to,
    bow,
    length,
    options.corridor ?? Math.max(10, 0.06 * length),
  );
  const along = (t: number): Point => {
    const at = t * (offsets.length - 1);
    const k = Math.min(offsets.length - 2, Math.floor(at));
    const off = offsets[k]! + (offsets[k + 1]! - offsets[k]!) * (at - k);
    const [x, y] = pointOnBow(from, to, bow.sagitta, t);
    const [nx, ny] = normalAt(from, to, bow.sagitta, t);
    return [x + off * nx, y + off * ny];
  };
  const { points, bends } = asRuns(along);
  // A line in perspective gets wider along its way; one odd stretch, at a crossing say, does not count.
  const stretches = Array.from({ length: STRETCHES }, (_, k) =>
    widthAcross(grey, (t) => along((k + t) / STRETCHES)),
  );
  const width = [...stretches].sort((a, b) => a - b).at(-2)!;
  const widths = points.map((_, i) => {
    const at = (i / (points.length - 1)) * STRETCHES - 0.5;
    const k = Math.max(0, Math.min(STRETCHES - 2, Math.floor(at)));
    const part = Math.max(0, Math.min(1, at - k));
    return Math.min(width, stretches[k]! + part * (stretches[k + 1]! - stretches[k]!));
  });
  return { points, bends, width, widths, contrast: bow.contrast };
}

interface Bow {
  readonly sagitta: number;
  readonly contrast: number;
  readonly dark: boolean;
}

function bestBow(grey: Grey, from: Point, to: Point, most: number, length: number): Bow {
  const samples = Math.min(400, Math.max(24, Math.round(length / 3)));
  let best: Bow = { sagitta: 0, contrast: -1, dark: true };
  for (let sagitta = -most; sagitta <= most; sagitta += 0.5) {
    let dark = 0;
    let bright = 0;
    for (let i = 1; i < samples; i++) {
      const [x, y] = pointOnBow(from, to, sagitta, i / samples);
      const [nx, ny] = normalAt(from, to, sagitta, i / samples);
      // A click may miss the line by a little: the best of three places across counts.
      let d = 0;
      let b = 0;
      for (let off = -1.5; off <= 1.5; off += 1.5) {
        const c = contrastAt(grey, x + off * nx, y + off * ny, nx, ny);
        if (c > d) d = c;
        if (-c > b) b = -c;
      }
      dark += d;
      bright += b;
    }
    const contrast = Math.max(dark, bright) / (samples - 1);
    if (contrast > best.contrast) best = { sagitta, contrast, dark: dark >= bright };
  }
  return best;
}

/** Offsets from the bow, px, about every 4 px along it, along which the line shows best. */
function follow(
  grey: Grey,
  from: Point,
  to: Point,
  bow: Bow,
  length: number,
  corridor: number,
): number[] {
  const stations = Math.max(4, Math.round(length / 4));
  const step = 0.5;
  const lanes = 2 * Math.round(corridor / step) + 1;
  const gain = new Float64Array(lanes * (stations + 1));
  const came = new Int8Array(lanes * (stations + 1));
  for (let i = 0; i <= stations; i++) {
    const t = i / stations;
    const [x, y] = pointOnBow(from, to, bow.sagitta, t);
    const [nx, ny] = normalAt(from, to, bow.sagitta, t);
    for (let k = 0; k < lanes; k++) {
      const off = k * step - corridor;
      const c = contrastAt(grey, x + off * nx, y + off * ny, nx, ny);
      // Straying costs a little, so that the clicks decide between parallel lines.
      const here = Math.max(0, bow.dark ? c : -c) - 0.00002 * off * off;
      let best = -Infinity;
      for (let from1 = -2; from1 <= 2 && i > 0; from1++) {
        const j = k + from1;
        if (j < 0 || j >= lanes) continue;
        const value = gain[(i - 1) * lanes + j]! - 0.004 * from1 * from1;
        if (value > best) {
          best = value;
          came[i * lanes + k] = from1;
        }
      }
      gain[i * lanes + k] = here + (i > 0 ? best : 0);
    }
  }
  let k = 0;
  for (let j = 0; j < lanes; j++)
    if (gain[stations * lanes + j]! > gain[stations * lanes + k]!) k = j;
  const offsets = new Array<number>(stations + 1);
  for (let i = stations; i >= 0; i--) {
    const t = i / stations;
    offsets[i] = centred(
      grey,
      pointOnBow(from, to, bow.sagitta, t),
      normalAt(from, to, bow.sagitta, t),
      k * step - corridor,
      bow.dark,
    );
    k += came[i * lanes + k]!;
  }
  return smooth(offsets);
}

function smooth(offsets: number[]): number[] {
  return offsets.map((_, i) => {
    let sum = 0;
    let n = 0;
    for (let j = Math.max(0, i - 2); j <= Math.min(offsets.length - 1, i + 2); j++) {
      sum += offsets[j]!;
      n++;
    }
    return sum / n;
  });
}
