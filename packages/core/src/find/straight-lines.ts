import type { Plane } from '../raster/plane.js';

/** A straight edge, px of the plane it was found in. */
export interface StraightLine {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  /** How far it leans from level, 0 level .. 90 plumb, degrees. */
  readonly lean: number;
  /** px */
  readonly length: number;
}

/** Slope from which on a pixel may lie on an edge, codes a px. */
const LEAST_SLOPE = 5;
/** Directions this much alike grow into one line, radians (22.5 degrees in the source). */
const ALIKE = Math.PI / 8;
/** A line is so many times longer than wide at least. */
const SLENDER = 7;

/**
 * Straight edges of a plane: pixels of like slope direction that touch grow into regions, and those that are long, thin and
 * well filled are lines (after von Gioi, Jakubowicz, Morel, Randall, "LSD: A Fast Line Segment Detector with a False
 * Detection Control", PAMI 32(4), 2010, without its count of false alarms).
 * @param least shortest line, px
 */
export function straightLines(
  { width, height, values }: Plane,
  least: number,
  shut?: Uint8Array,
): StraightLine[] {
  const size = width * height;
  const slope = new Float32Array(size);
  const angle = new Float32Array(size);
  const bins: number[][] = Array.from({ length: 64 }, () => []);
  for (let y = 0; y < height - 1; y++)
    for (let x = 0; x < width - 1; x++) {
      const p = y * width + x;
      if (shut?.[p]) continue;
      const [a, b] = [values[p + width + 1]! - values[p]!, values[p + 1]! - values[p + width]!];
      const [gx, gy] = [(a + b) / 2, (a - b) / 2];
      const g = Math.sqrt(gx * gx + gy * gy);
      if (g < LEAST_SLOPE) continue;
      slope[p] = g;
      angle[p] = Math.atan2(gy, gx);
      bins[Math.min(63, Math.floor(g))]!.push(p);
    }
  const used = new Uint8Array(size);
  const found: StraightLine[] = [];
  for (let k = bins.length - 1; k >= 0; k--)
    for (const seed of bins[k]!) {
      if (used[seed]) continue;
      const region = grown(seed, width, slope, angle, used);
      if (region.length < least) continue;
      const line = fitted(region, width, slope);
      if (line && line.length >= least) found.push(line);
    }
  return found;
}

/** Pixels that touch and slope alike. */
function grown(
  seed: number,
  width: number,
  slope: Float32Array,
  angle: Float32Array,
  used: Uint8Array,
): number[] {
  const region = [seed];
  used[seed] = 1;
  let [sx, sy] = [Math.cos(angle[seed]!), Math.sin(angle[seed]!)];
  let mean = angle[seed]!;
  for (let i = 0; i < region.length; i++) {
    const p = region[i]!;
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) {
        const q = p + dy * width + dx;
        if (q < 0 || q >= slope.length || used[q] || !slope[q]) continue;
        let off = Math.abs(angle[q]! - mean);
        if (off > Math.PI) off = 2 * Math.PI - off;
        if (off > ALIKE) continue;
        used[q] = 1;
        region.push(q);
        sx += Math.cos(angle[q]!);
        sy += Math.sin(angle[q]!);
        mean = Math.atan2(sy, sx);
      }
  }
  return region;
}

/** The line through a region, by its moments; null when it is no thin rectangle. */
function fitted(
  region: readonly number[],
  width: number,
  slope: Float32Array,
): StraightLine | null {
  let [sum, mx, my] = [0, 0, 0];
  for (const p of region) {
    const w = slope[p]!;
    sum += w;
    mx += w * (p % width);
    my += w * Math.floor(p / width);
  }
  [mx, my] = [mx / sum, my / sum];
  let [xx, yy, xy] = [0, 0, 0];
  for (const p of region) {
    const [dx, dy, w] = [(p % width) - mx, Math.floor(p / width) - my, slope[p]!];
    xx += w * dx * dx;
    yy += w * dy * dy;
    xy += w * dx * dy;
  }
  const turn = Math.atan2(2 * xy, xx - yy) / 2;
  const [ux, uy] = [Math.cos(turn), Math.sin(turn)];
  let [low, high, left, right] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const p of region) {
    const [dx, dy] = [(p % width) - mx, Math.floor(p / width) - my];
    const [along, across] = [dx * ux + dy * uy, dy * ux - dx * uy];
    low = Math.min(low, along);
    high = Math.max(high, along);
    left = Math.min(left, across);
    right = Math.max(right, across);
  }
  const [length, wide] = [high - low + 1, right - left + 1];
  if (length < SLENDER * wide || region.length < 0.5 * length) return null;
  const at = (t: number) => [mx + 0.5 + t * ux, my + 0.5 + t * uy] as const;
  const lean = (Math.atan2(Math.abs(uy), Math.abs(ux)) * 180) / Math.PI;
  return { from: at(low), to: at(high), lean, length };
}
