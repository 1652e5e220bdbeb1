import type { Course } from './crease-run.js';
import type { Paper } from './paper.js';
import { middleOver } from './running.js';

/** The same line with a point every px or so. */
export function evenly({ xs, ys, widths }: Course): Course {
  const [x, y, w]: [number[], number[], number[]] = [[], [], []];
  for (let i = 0; i + 1 < xs.length; i++) {
    const n = Math.max(1, Math.round(Math.hypot(xs[i + 1]! - xs[i]!, ys[i + 1]! - ys[i]!)));
    for (let k = 0; k < n; k++) {
      const t = k / n;
      x.push(xs[i]! + t * (xs[i + 1]! - xs[i]!));
      y.push(ys[i]! + t * (ys[i + 1]! - ys[i]!));
      w.push(widths[i]! + t * (widths[i + 1]! - widths[i]!));
    }
  }
  return { xs: Float32Array.from(x), ys: Float32Array.from(y), widths: Float32Array.from(w) };
}

/** The unit normal to a line with a point every px, at a point. */
export function acrossAt({ xs, ys }: Course, i: number): [number, number] {
  const [a, b] = [Math.max(0, i - 8), Math.min(xs.length - 1, i + 8)];
  const [dx, dy] = [xs[b]! - xs[a]!, ys[b]! - ys[a]!];
  const d = Math.hypot(dx, dy) || 1;
  return [-dy / d, dx / d];
}

/** How far a crumb may stand out from the edge's run, px. */
const BULGE = 2.0;
/** Dirt on paper is no longer than this across it, px. */
const DIRT = 4;

/** How far paper reaches to either side of a line point by point, px, and how jagged its edge is, px. */
export interface Flanks {
  readonly left: Float32Array;
  readonly right: Float32Array;
  readonly rough: number;
}

/**
 * The flanks of a line.
 * @param line a point every px
 * @param tone how near bare paper itself comes to its colour, 0..255
 */
export function flanksOf(paper: Paper, line: Course, tone: number): Flanks {
  const n = line.xs.length;
  const usual = [...line.widths].sort((a, b) => a - b)[n >> 1]! / 2;
  const sides = [-1, 1].map((way) => {
    const reach = new Float32Array(n);
    for (let i = 0; i < n; i++) {
      const [nx, ny] = acrossAt(line, i);
      const at = (o: number): number =>
        paper.at(line.xs[i]! + way * o * nx, line.ys[i]! + way * o * ny);
      const side = (at(1.8 * usual + 3) + at(1.8 * usual + 5) + at(2.2 * usual + 5)) / 3;
      const half = (tone + side) / 2;
      let found = usual;
      // The last px of paper; dirt on it does not end it, but what is bright beyond a gap is another thing.
      if (tone - side > 25)
        for (let o = 0, last = usual / 2; o < 1.9 * usual + 3 && o < last + DIRT; o += 0.5)
          if (at(o) > half) last = found = o + 0.5;
      reach[i] = found;
    }
    return reach;
  });
  const steady = sides.map((s) => middleOver(s, 15));
  const jag = sides
    .flatMap((s, k) => [...s].map((v, i) => Math.abs(v - steady[k]![i]!)))
    .sort((a, b) => a - b);
  const limited = sides.map((s, k) => s.map((v, i) => Math.min(v, steady[k]![i]! + BULGE)));
  return { left: limited[0]!, right: limited[1]!, rough: jag[Math.floor(0.7 * jag.length)]! };
}

/** Pixels between the left and the right flank of a line, in reading order. */
export function between(
  line: Course,
  left: Float32Array,
  right: Float32Array,
  { width, height }: Paper,
): Int32Array {
  const found = new Set<number>();
  for (let i = 0; i < line.xs.length; i++) {
    const [nx, ny] = acrossAt(line, i);
    for (let o = -left[i]!; o <= right[i]!; o += 0.5) {
      const x = Math.round(line.xs[i]! + o * nx);
      const y = Math.round(line.ys[i]! + o * ny);
      if (x >= 0 && y >= 0 && x < width && y < height) found.add(y * width + x);
    }
  }
  return Int32Array.from(found).sort();
}
