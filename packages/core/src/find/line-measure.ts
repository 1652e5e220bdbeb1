import { valueAtShare } from '../raster/median.js';
import { pointOnBow } from '../shape/path.js';
import type { Point } from '../shape/site.js';

/** Luma 0..1 at a place of a picture. */
export type Grey = (x: number, y: number) => number;

/** How far to the side a line is compared with, px. */
const BESIDE = 6;
/** A place counts at most so much contrast, so that crossings do not decide. */
const MOST_CONTRAST = 0.2;
/** Runs are added until the line is met within this, px. */
const CLOSE_ENOUGH = 0.6;
const MOST_RUNS = 6;
/** Share of a line's contrast at which it ends. */
const RIM = 0.2;
/** Where a line is jagged: the part of its places that counts, of how much contrast, and how much wider it is at most. */
const OFTEN = 0.88;
const CLEARLY = 0.4;
const MOST_JAGGED = 2.5;

/** How much darker (positive) or brighter (negative) a place is than both of its sides. */
export function contrastAt(grey: Grey, x: number, y: number, nx: number, ny: number): number {
  const middle = grey(x, y);
  const left = grey(x - BESIDE * nx, y - BESIDE * ny);
  const right = grey(x + BESIDE * nx, y + BESIDE * ny);
  const darker = Math.min(left, right) - middle;
  if (darker > 0) return Math.min(MOST_CONTRAST, darker);
  const brighter = middle - Math.max(left, right);
  return brighter > 0 ? -Math.min(MOST_CONTRAST, brighter) : 0;
}

/** Moves an offset that lies on the line to the line's middle: the centre of what stands out across it. */
export function centred(
  grey: Grey,
  [x, y]: Point,
  [nx, ny]: Point,
  off: number,
  dark: boolean,
): number {
  const at = (o: number): number => grey(x + (off + o) * nx, y + (off + o) * ny);
  const side = dark
    ? Math.min(at(-BESIDE - 2), at(BESIDE + 2))
    : Math.max(at(-BESIDE - 2), at(BESIDE + 2));
  let sum = 0;
  let weight = 0;
  for (let o = -BESIDE; o <= BESIDE; o += 0.5) {
    const w = Math.max(0, dark ? side - at(o) : at(o) - side);
    sum += w * o;
    weight += w;
  }
  return weight > 0.05 ? off + sum / weight : off;
}

/** The fewest equal runs whose bows meet the line closely. */
export function asRuns(along: (t: number) => Point): { points: Point[]; bends: number[] } {
  for (let runs = 1; ; runs++) {
    const points = Array.from({ length: runs + 1 }, (_, k) => along(k / runs));
    const bends = points
      .slice(1)
      .map((end, k) => offLine(points[k]!, end, along((k + 0.5) / runs)));
    let worst = 0;
    for (let k = 0; k < runs; k++)
      for (const s of [0.2, 0.35, 0.65, 0.8]) {
        const wanted = along((k + s) / runs);
        const got = pointOnBow(points[k]!, points[k + 1]!, bends[k]!, s);
        worst = Math.max(
          worst,
          Math.abs(
            offLine(points[k]!, points[k + 1]!, wanted) - offLine(points[k]!, points[k + 1]!, got),
          ),
        );
      }
    if (worst <= CLOSE_ENOUGH || runs === MOST_RUNS) return { points, bends };
  }
}

/** Distance of p from the straight line a-b, positive to the right when walking along it. */
export function offLine(a: Point, b: Point, p: Point): number {
  const dx = b[0] - a[0];
  const dy = b[1] - a[1];
  const length = Math.sqrt(dx * dx + dy * dy) || 1;
  return (dx * (p[1] - a[1]) - dy * (p[0] - a[0])) / length;
}

/**
 * Full width of a stretch of a line: down to the rim of the median profile across it, or, where its sides are jagged, as far
 * as it often reaches.
 */
export function widthAcross(grey: Grey, along: (t: number) => Point): number {
  const reach = 24;
  const steps = 4 * reach + 1;
  const samples = 40;
  const across: number[][] = Array.from({ length: steps }, () => []);
  for (let i = 1; i < samples; i++) {
    const a = along((i - 0.5) / samples);
    const b = along((i + 0.5) / samples);
    const length = Math.sqrt((b[0] - a[0]) ** 2 + (b[1] - a[1]) ** 2) || 1;
    const nx = -(b[1] - a[1]) / length;
    const ny = (b[0] - a[0]) / length;
    const [x, y] = along(i / samples);
    for (let k = 0; k < steps; k++) {
      const off = k / 2 - reach;
      across[k]!.push(grey(x + off * nx, y + off * ny));
    }
  }
  const profile = across.map(median);
  const middle = 2 * reach;
  const far = median([...profile.slice(0, reach), ...profile.slice(steps - reach)]);
  const usual = widthOf(profile, middle, far, RIM);
  const sign = profile[middle]! >= far ? 1 : -1;
  const jagged = across.map(
    (values) =>
      sign *
      valueAtShare(
        values.map((v) => sign * v),
        OFTEN,
      ),
  );
  const beyond = median([...jagged.slice(0, reach), ...jagged.slice(steps - reach)]);
  return Math.min(MOST_JAGGED * usual, Math.max(usual, widthOf(jagged, middle, beyond, CLEARLY)));
}

/** Between the places where so much of a profile's height is left on either side, px. */
function widthOf(profile: readonly number[], middle: number, far: number, part: number): number {
  const rim = Math.abs(profile[middle]! - far) * part;
  let left = middle;
  let right = middle;
  while (left > 0 && Math.abs(profile[left]! - far) > rim) left--;
  while (right < profile.length - 1 && Math.abs(profile[right]! - far) > rim) right++;
  return Math.max(1, (right - left) / 2);
}

export function normalAt(from: Point, to: Point, sagitta: number, t: number): Point {
  const a = pointOnBow(from, to, sagitta, t - 0.01);
  const b = pointOnBow(from, to, sagitta, t + 0.01);
  const dx = b[0] - a[0];
  const dy = b[1] - a[1];
  const length = Math.sqrt(dx * dx + dy * dy) || 1;
  return [-dy / length, dx / length];
}

export function median(values: readonly number[]): number {
  return valueAtShare(values, 0.5);
}
