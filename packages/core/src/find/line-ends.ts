import type { Raster } from '../raster/raster.js';
import { pointOnBow } from '../shape/path.js';
import type { Point } from '../shape/site.js';
import { greySampler } from '../raster/grey.js';
import type { Grey } from './line-measure.js';
import { asRuns, centred, contrastAt, normalAt, widthAcross } from './line-measure.js';
import type { LineRun } from './line-run.js';

/** A line as far as it is known. */
export type KnownLine = Pick<LineRun, 'points' | 'bends' | 'widths'>;

/** Steps along the line, and how far to the side the next place is looked for, px. */
const STEP = 3;
const ASIDE = 2;
/** Share of the line's own contrast that the last steps have to keep, and how many those are. */
const KEPT = 0.45;
const LOOKED_BACK = 16;
const MOST_STEPS = 4000;
/** How much of its way the line keeps from step to step. */
const STEADY = 0.85;

/**
 * Follows a line beyond both of its ends for as long as it stands out as it did between them.
 * @returns the line with runs added at its ends; the same where it ends there already
 */
export function toItsEnds(picture: Raster, line: KnownLine): KnownLine {
  const grey = greySampler(picture);
  const look = lookOf(grey, line);
  const back = followed(picture, grey, line, look, false);
  const on = followed(picture, grey, line, look, true);
  const before = back && added(grey, [...back].reverse());
  const after = on && added(grey, on);
  const points = [
    ...(before?.points.slice(0, -1) ?? []),
    ...line.points,
    ...(after?.points.slice(1) ?? []),
  ];
  const bends = [...(before?.bends ?? []), ...line.bends, ...(after?.bends ?? [])];
  // A crossing line must not make it many times wider.
  const widest = 2 * Math.max(...line.widths);
  const own = (width: number): number => Math.min(widest, width);
  const widths = [
    ...(before?.widths.slice(0, -1).map(own) ?? []),
    ...line.widths,
    ...(after?.widths.slice(1).map(own) ?? []),
  ];
  return { points, bends, widths };
}

/** How a line stands out from its sides. */
interface Look {
  /** 1 when it is darker, -1 when it is brighter. */
  readonly sign: 1 | -1;
  /** Share of full scale. */
  readonly contrast: number;
}

function lookOf(grey: Grey, { points, bends }: KnownLine): Look {
  let [sum, count] = [0, 0];
  for (let run = 0; run + 1 < points.length; run++)
    for (let t = 0.1; t < 1; t += 0.2) {
      const [from, to, bend] = [points[run]!, points[run + 1]!, bends[run]!];
      const [x, y] = pointOnBow(from, to, bend, t);
      const [nx, ny] = normalAt(from, to, bend, t);
      sum += contrastAt(grey, x, y, nx, ny);
      count++;
    }
  return { sign: sum >= 0 ? 1 : -1, contrast: Math.abs(sum) / count };
}

/** Places beyond an end, the end itself first; null when the line ends there. */
function followed(
  { width, height }: Raster,
  grey: Grey,
  { points, bends }: KnownLine,
  { sign, contrast }: Look,
  onward: boolean,
): Point[] | null {
  const last = points.length - 1;
  const [from, to, bend, t] = onward
    ? [points[last - 1]!, points[last]!, bends[last - 1]!, 1]
    : [points[0]!, points[1]!, bends[0]!, 0];
  const [nx, ny] = normalAt(from, to, bend, t);
  // The normal turned back by a right angle is the way along.
  let [ux, uy]: Point = onward ? [ny, -nx] : [-ny, nx];
  let [x, y] = onward ? to : from;
  const path: Point[] = [[x, y]];
  const strengths: number[] = [];
  for (let step = 0; step < MOST_STEPS; step++) {
    let best = { gain: -Infinity, strength: 0, off: 0 };
    for (let off = -ASIDE; off <= ASIDE; off += 0.5) {
      const [px, py] = [x + STEP * ux - off * uy, y + STEP * uy + off * ux];
      const strength = Math.max(0, sign * contrastAt(grey, px, py, -uy, ux));
      const gain = strength - 0.004 * off * off;
      if (gain > best.gain) best = { gain, strength, off };
    }
    const middle = centred(grey, [x + STEP * ux, y + STEP * uy], [-uy, ux], best.off, sign > 0);
    const off = Math.max(-ASIDE, Math.min(ASIDE, middle));
    const next: Point = [x + STEP * ux - off * uy, y + STEP * uy + off * ux];
    if (next[0] < 1 || next[1] < 1 || next[0] > width - 2 || next[1] > height - 2) break;
    strengths.push(best.strength);
    path.push(next);
    const recent = strengths.slice(-LOOKED_BACK);
    if (recent.reduce((a, b) => a + b, 0) / recent.length < KEPT * contrast) break;
    const [wx, wy] = [(next[0] - x) / STEP, (next[1] - y) / STEP];
    const length =
      Math.hypot(STEADY * ux + (1 - STEADY) * wx, STEADY * uy + (1 - STEADY) * wy) || 1;
    [ux, uy] = [
      (STEADY * ux + (1 - STEADY) * wx) / length,
      (STEADY * uy + (1 - STEADY) * wy) / length,
    ];
    [x, y] = next;
  }
  // What no longer stood out is not part of it.
  let end = strengths.length;
  while (end > 0 && strengths[end - 1]! < KEPT * contrast) end--;
  // Its very tip has no sides to be centred between; the stroke's round end covers it.
  return end >= 3 ? path.slice(0, end) : null;
}

/** A path as bowed runs with their widths. */
function added(grey: Grey, path: readonly Point[]): KnownLine {
  const along = (t: number): Point => {
    const at = Math.max(0, Math.min(1, t)) * (path.length - 1);
    const k = Math.min(path.length - 2, Math.floor(at));
    const [[ax, ay], [bx, by]] = [path[k]!, path[k + 1]!];
    return [ax + (at - k) * (bx - ax), ay + (at - k) * (by - ay)];
  };
  const { points, bends } = asRuns(along);
  const runs = points.length - 1;
  const widths = points.map((_, i) =>
    widthAcross(grey, (t) =>
      along(Math.max(0, Math.min(1 - 0.5 / runs, (i - 0.25) / runs)) + (0.5 * t) / runs),
    ),
  );
  return { points, bends, widths };
}
