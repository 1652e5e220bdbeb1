import type { Plane } from '../raster/plane.js';
import { SIDES } from '../shape/sides.js';

/** A place that stands out from all sides, and the pixels that belong to it. */
export interface Spot {
  readonly polarity: 1 | -1;
  /** How far its summit stands over the mean of the places round it, grey levels. */
  readonly stands: number;
  /** Pixel of its summit in the plane it was found in. */
  readonly summit: number;
  /** Its pixels in that plane, in reading order. */
  readonly pixels: Int32Array;
  /** Level of the pyramid it was found at. */
  readonly level: number;
}

/** Distances at which a spot's surroundings are read, px of the level. */
const RINGS = [3, 6] as const;
/** Least height over every side, grey levels. */
const LEAST = 11;
/** At the picture's border fewer places lie round a spot; so many must be left. */
const LEAST_SIDES = 3;

/** Offsets to the eight places round a pixel at a distance, opposite ones in turn so that lines fall out early. */
function ringOf(radius: number): readonly (readonly [number, number])[] {
  const d = Math.round(radius * Math.SQRT1_2);
  return [
    [radius, 0],
    [-radius, 0],
    [0, radius],
    [0, -radius],
    [d, d],
    [-d, -d],
    [d, -d],
    [-d, d],
  ];
}

/**
 * Spots of one level: pixels higher (or lower) than eight places round them, grown down to half their height.
 * @param plane grey 0..255, lightly blurred
 */
export function spotsAt(plane: Plane, level: number): Spot[] {
  const taken = new Uint8Array(plane.values.length);
  // At coarser levels what the small ring finds has been found before.
  const rings = level === 0 ? RINGS : RINGS.slice(1);
  const peaks = peaksOf(plane, rings);
  const spots: Spot[] = [];
  for (const radius of rings)
    for (const polarity of [1, -1] as const)
      for (const summit of standing(plane, peaks[polarity === 1 ? 0 : 1], radius, polarity)) {
        if (taken[summit]) continue;
        const grownTo = grown(plane, summit, polarity, radius);
        if (!grownTo) continue;
        for (const p of grownTo.pixels) taken[p] = 1;
        spots.push({ polarity, summit, level, ...grownTo });
      }
  return spots;
}

/**
 * Pixels higher than their four neighbours, and lower ones, in reading order; of pixels of the same height the first.
 * Those that cannot stand out from a ring for the places left and right of them are left out: most cannot.
 */
function peaksOf(plane: Plane, rings: readonly number[]): [high: number[], low: number[]] {
  const [near, far] = [rings[0]!, rings.at(-1)!];
  const peaks: [number[], number[]] = [[], []];
  const tops = new Int32Array(plane.width);
  for (let y = 0; y < plane.height; y++) {
    const count = topsOfRow(plane, y, tops);
    for (let k = 0; k < count; k++) {
      const p = Math.abs(tops[k]!) - 1;
      const polarity = tops[k]! > 0 ? 1 : -1;
      const x = p - y * plane.width;
      const mayStand =
        x < far ||
        x >= plane.width - far ||
        standsOver(plane.values, p, near, polarity) ||
        standsOver(plane.values, p, far, polarity);
      if (mayStand) peaks[polarity > 0 ? 0 : 1].push(p);
    }
  }
  return peaks;
}

/**
 * The pixels of a row that are higher or lower than their neighbours.
 * @param tops filled with numbers from 1 of the pixels, negative ones for those that are lower
 * @returns how many
 */
function topsOfRow({ width, height, values }: Plane, y: number, tops: Int32Array): number {
  const up = y > 0 ? -width : 0;
  const down = y < height - 1 ? width : 0;
  const first = y * width;
  const last = first + width - 1;
  let count = 0;
  for (let p = first; p <= last; p++) {
    const v = values[p]!;
    const left = p > first ? values[p - 1]! : NaN;
    const right = p < last ? values[p + 1]! : v;
    if (!(left >= v) && right <= v) {
      if ((up === 0 || values[p + up]! < v) && values[p + down]! <= v) tops[count++] = p + 1;
    }
    if (!(left <= v) && right >= v) {
      if ((up === 0 || values[p + up]! > v) && values[p + down]! >= v) tops[count++] = -p - 1;
    }
  }
  return count;
}

function standsOver(values: Float32Array, p: number, radius: number, polarity: 1 | -1): boolean {
  const floor = polarity * values[p]! - LEAST;
  return polarity * values[p - radius]! <= floor && polarity * values[p + radius]! <= floor;
}

/** The peaks that stand out from every place of a ring round them, furthest from grey's middle first. */
function standing(
  { width, height, values }: Plane,
  peaks: readonly number[],
  radius: number,
  polarity: 1 | -1,
): number[] {
  const ring = ringOf(radius);
  const steps = ring.map(([dx, dy]) => dy * width + dx);
  const stands = (p: number): boolean => {
    const [x, y] = [p % width, (p / width) | 0];
    const floor = polarity * values[p]! - LEAST;
    const inner = x >= radius && y >= radius && x < width - radius && y < height - radius;
    let sides = 0;
    for (let k = 0; k < ring.length; k++) {
      if (!inner) {
        const [qx, qy] = [x + ring[k]![0], y + ring[k]![1]];
        if (qx < 0 || qy < 0 || qx >= width || qy >= height) continue;
      }
      if (polarity * values[p + steps[k]!]! > floor) return false;
      sides++;
    }
    return sides >= LEAST_SIDES;
  };
  return peaks.filter(stands).sort((a, b) => polarity * (values[b]! - values[a]!) || a - b);
}

/** Pixels joined to a summit above half its height over its mean surroundings, or over its nearest side where that runs away. */
function grown(
  { width, height, values }: Plane,
  summit: number,
  polarity: 1 | -1,
  radius: number,
): Pick<Spot, 'pixels' | 'stands'> | null {
  const [cx, cy] = [summit % width, (summit / width) | 0];
  let [sum, most, count] = [0, -Infinity, 0];
  for (const [dx, dy] of ringOf(radius)) {
    const [x, y] = [cx + dx, cy + dy];
    if (x < 0 || y < 0 || x >= width || y >= height) continue;
    const v = polarity * values[y * width + x]!;
    sum += v;
    most = Math.max(most, v);
    count++;
  }
  const top = polarity * values[summit]!;
  for (const base of [sum / count, (sum / count + most) / 2, most]) {
    const pixels = flooded((top + base) / 2);
    if (pixels) return { pixels, stands: top - sum / count };
  }
  return null;

  function flooded(floor: number): Int32Array | null {
    const found = [summit];
    const seen = new Set(found);
    for (let k = 0; k < found.length; k++) {
      const p = found[k]!;
      const x = p % width;
      const y = (p / width) | 0;
      for (const [dx, dy] of SIDES) {
        const [qx, qy] = [x + dx, y + dy];
        if (qx < 0 || qy < 0 || qx >= width || qy >= height) continue;
        const q = qy * width + qx;
        if (seen.has(q) || polarity * values[q]! < floor) continue;
        if (Math.max(Math.abs(qx - cx), Math.abs(qy - cy)) > radius + 1) return null;
        seen.add(q);
        found.push(q);
      }
    }
    return Int32Array.from(found).sort();
  }
}
