import type { StraightLine } from '../find/straight-lines.js';
import { straightLines } from '../find/straight-lines.js';
import type { Plane } from '../raster/plane.js';

/** What leans less than this from level, or from plumb, goes on unbroken past a splice: within a pixel, degrees. */
const LEVEL = 3;
const PLUMB = 4;
/** Shortest line that is seen to be straight: a share of the longer side, and px of the halved picture. */
const LEAST = { share: 0.05, px: 24 } as const;
/** How much dearer a splice is on a slanting line than anywhere else, usual differences. */
const DEAR = 12;
/** A line is broken by a step across it of so many full px. */
const STEP = 1.2;

/** A splice as far as lines are concerned. */
interface Cut {
  readonly path: Int32Array;
  readonly step: number;
}

/** Straight lines of a picture that a splice would break: those that slant. */
export function leaningLines(grey: Plane, shut: Uint8Array): StraightLine[] {
  const least = Math.max(LEAST.px, LEAST.share * Math.max(grey.width, grey.height));
  return straightLines(grey, least, shut).filter(({ lean }) => lean > LEVEL && lean < 90 - PLUMB);
}

/** Makes splices keep off slanting lines. */
export function guard(
  beside: Float32Array,
  lines: readonly StraightLine[],
  usual: number,
  { width, height }: Plane,
): void {
  for (const { from, to, lean, length } of lines) {
    const cost = DEAR * usual * Math.sin((lean * Math.PI) / 180);
    for (let k = 0; k <= 2 * length; k++) {
      const t = k / (2 * length);
      const x = Math.round(from[0] + t * (to[0] - from[0]));
      const y = Math.round(from[1] + t * (to[1] - from[1]));
      for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++)
        if (y >= 0 && y < height) beside[y * width + u]! += cost;
    }
  }
}

/** How many of the lines a splice crosses with a step that is seen. */
export function brokenLines(lines: readonly StraightLine[], cuts: readonly Cut[]): number {
  return lines.filter((line) => cuts.some((cut) => breaks(line, cut))).length;
}

function breaks({ from, to, lean }: StraightLine, { path, step }: Cut): boolean {
  if (Math.abs(step) * Math.sin((lean * Math.PI) / 180) < STEP) return false;
  const [a, b] = from[1] <= to[1] ? [from, to] : [to, from];
  const side = ([x, y]: readonly [number, number]): number =>
    x - path[Math.min(path.length - 1, Math.max(0, Math.round(y)))]!;
  return side(a) > 0 !== side(b) > 0;
}
