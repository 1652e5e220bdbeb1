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
  return rings.flatMap((radius) =>
    ([1, -1] as const).flatMap((polarity) => spotsOfRing(plane, radius, polarity, level, taken)),
  );
}

function spotsOfRing(
  { width, height, values }: Plane,
  radius: number,
  polarity: 1 | -1,
  level: number,
  taken: Uint8Array,
): Spot[] {
  const ring = ringOf(radius);
  const across = Math.round(radius * Math.SQRT1_2);
  const [down, falling, rising] = [radius * width, across * (width + 1), across * (width - 1)];
  const stands = (p: number, x: number, y: number): boolean => {
    const floor = polarity * values[p]! - LEAST;
    if (x >= radius && y >= radius && x < width - radius && y < height - radius)
      return (
        polarity * values[p + radius]! <= floor &&
        polarity * values[p - radius]! <= floor &&
        polarity * values[p + down]! <= floor &&
        polarity * values[p - down]! <= floor &&
        polarity * values[p + falling]! <= floor &&
        polarity * values[p - falling]! <= floor &&
        polarity * values[p + rising]! <= floor &&
        polarity * values[p - rising]! <= floor
      );
    let sides = 0;
    for (const [dx, dy] of ring) {
      const [qx, qy] = [x + dx, y + dy];
      if (qx < 0 || qy < 0 || qx >= width || qy >= height) continue;
      if (polarity * values[qy * width + qx]! > floor) return false;
      sides++;
    }
    return sides >= LEAST_SIDES;
  };
  const summits: number[] = [];
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      if (!stands(p, x, y)) continue;
      const v = polarity * values[p]!;
      // Of pixels of the same height the first is the summit.
      if (x > 0 && polarity * values[p - 1]! >= v) continue;
      if (x < width - 1 && polarity * values[p + 1]! > v) continue;
      if (y > 0 && polarity * values[p - width]! >= v) continue;
      if (y < height - 1 && polarity * values[p + width]! > v) continue;
      summits.push(p);
    }
  summits.sort((a, b) => polarity * (values[b]! - values[a]!) || a - b);
  const spots: Spot[] = [];
  for (const summit of summits) {
    if (taken[summit]) continue;
    const grownTo = grown({ width, height, values }, summit, polarity, radius);
    if (!grownTo) continue;
    for (const p of grownTo.pixels) taken[p] = 1;
    spots.push({ polarity, summit, level, ...grownTo });
  }
  return spots;
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
