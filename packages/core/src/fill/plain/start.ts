import type { Level } from '../level.js';

/** Twin of inwards in kernels/fill/begin.ts: peeled from the border inwards, each ring the mean of its known neighbours. */
export function peelInwardsPlainly(level: Level, holes: Int32Array): void {
  const sum = new Int32Array(4);
  ringByRing(level, holes, (p, unknown) => takesMean(level, unknown, p, sum));
}

/** The same, but what stands beside the hole mirrored into it, at the known pixel nearest to each: as lively as it is there. */
export function mirrorInwardsPlainly(level: Level, holes: Int32Array): void {
  const { width, height, pixels, hole, banned } = level;
  const nearest = new Int32Array(hole.length).fill(-1);
  ringByRing(level, holes, (p, unknown) => {
    const q = nearestOf(level, unknown, nearest, p);
    if (q < 0) return false;
    nearest[p] = q;
    const x = 2 * (q % width) - (p % width);
    const y = 2 * Math.floor(q / width) - Math.floor(p / width);
    const mirrored = y * width + x;
    const isKnown = x >= 0 && y >= 0 && x < width && y < height && !hole[mirrored];
    const from = 4 * (isKnown && !banned[mirrored] ? mirrored : q);
    pixels.copyWithin(4 * p, from, from + 4);
    return true;
  });
}

/** Goes inwards from the border: a ring is what `take` takes with all rings before it known. */
function ringByRing(
  { hole }: Level,
  holes: Int32Array,
  take: (p: number, unknown: Uint8Array) => boolean,
): void {
  const unknown = Uint8Array.from(hole);
  let waiting: Int32Array | number[] = holes;
  while (waiting.length) {
    const ring: number[] = [];
    const rest: number[] = [];
    for (let k = 0; k < waiting.length; k++)
      (take(waiting[k]!, unknown) ? ring : rest).push(waiting[k]!);
    if (!ring.length) return;
    for (let k = 0; k < ring.length; k++) unknown[ring[k]!] = 0;
    waiting = rest;
  }
}

/** Gives a pixel the mean of its known neighbours; false, and nothing is given, if it has none. */
function takesMean(
  { width, height, pixels }: Level,
  unknown: Uint8Array,
  p: number,
  sum: Int32Array,
): boolean {
  const x = p % width;
  const y = (p / width) | 0;
  sum.fill(0);
  let n = 0;
  for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
    for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
      const q = v * width + u;
      if (unknown[q]) continue;
      n++;
      for (let c = 0; c < 4; c++) sum[c]! += pixels[4 * q + c]!;
    }
  if (n === 0) return false;
  for (let c = 0; c < 4; c++) pixels[4 * p + c] = sum[c]! / n;
  return true;
}

/** The nearest of the pixels outside the hole that a pixel's neighbours are, or are nearest to; -1 if it has none. */
function nearestOf(
  { width, height, hole }: Level,
  unknown: Uint8Array,
  nearest: Int32Array,
  p: number,
): number {
  const x = p % width;
  const y = (p / width) | 0;
  let [found, least] = [-1, Infinity];
  for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
    for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
      const q = v * width + u;
      if (unknown[q]) continue;
      const known = hole[q] ? nearest[q]! : q;
      const [right, down] = [(known % width) - x, Math.floor(known / width) - y];
      const distance = right * right + down * down;
      if (distance < least) [found, least] = [known, distance];
    }
  return found;
}
