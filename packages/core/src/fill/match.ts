import { seededRandom } from '../random/random.js';
import type { Field } from './field.js';
import { HALF } from './level.js';

/** Squared difference of the patches centred on pixels a and b; at least `limit` as soon as it is reached. */
export function patchDifference(
  pixels: Uint8Array,
  stride: number,
  a: number,
  b: number,
  limit: number,
): number {
  let i = (a - HALF) * 4 - HALF * stride;
  let j = (b - HALF) * 4 - HALF * stride;
  let sum = 0;
  for (let y = 0; y <= 2 * HALF; y++) {
    for (let k = 0; k < 8 * HALF + 4; k += 4) {
      const r = pixels[i + k]! - pixels[j + k]!;
      const g = pixels[i + k + 1]! - pixels[j + k + 1]!;
      const b = pixels[i + k + 2]! - pixels[j + k + 2]!;
      const t = pixels[i + k + 3]! - pixels[j + k + 3]!;
      sum += r * r + g * g + b * b + t * t;
    }
    if (sum >= limit) return sum;
    i += stride;
    j += stride;
  }
  return sum;
}

/** Brings the distances up to date with the pixels. */
export function measureMatches({ kernel, level, target, match, distance }: Field): void {
  kernel.measure(
    level.pixels.byteOffset,
    target.byteOffset,
    match.byteOffset,
    distance.byteOffset,
    level.width,
    target.length,
  );
}

/**
 * One sweep of PatchMatch (Barnes et al., SIGGRAPH 2009): every target tries its neighbours' matches, shifted,
 * and random places at halving radii. Even passes run forwards, odd ones backwards.
 */
export function improveMatches(field: Field, pass: number, seed: number): void {
  const { kernel, level, source, number, target, match, distance } = field;
  kernel.improve(
    level.pixels.byteOffset,
    source.byteOffset,
    number.byteOffset,
    target.byteOffset,
    match.byteOffset,
    distance.byteOffset,
    level.width,
    level.height,
    target.length,
    pass,
    seed,
  );
}

/** Twin of {@link measureMatches} in plain TypeScript. */
export function measureMatchesPlainly(field: Field): void {
  const { level, target, match, distance } = field;
  const stride = level.width * 4;
  for (let i = 0; i < target.length; i++)
    distance[i] = patchDifference(level.pixels, stride, target[i]!, match[i]!, Infinity);
}

/**
 * Twin of {@link improveMatches} in plain TypeScript: the definition the kernel is held to. Chance is drawn
 * anew from (seed, pass, row), so the result does not depend on how rows are split.
 */
export function improveMatchesPlainly(field: Field, pass: number, seed: number): void {
  const { level, source, number, target, match, distance } = field;
  const { width, height, pixels } = level;
  const stride = width * 4;
  const backwards = (pass & 1) === 1;
  const step = backwards ? 1 : -1;
  const reach = Math.max(width, height);
  let row = -1;
  let random = seededRandom(seed);
  for (let k = 0; k < target.length; k++) {
    const i = backwards ? target.length - 1 - k : k;
    const p = target[i]!;
    const y = (p / width) | 0;
    if (y !== row) {
      row = y;
      random = seededRandom(Math.imul(seed, 0x9e3779b1) ^ (pass * 7919 + y * 104729));
    }
    let best = match[i]!;
    let least = distance[i]!;

    for (let side = 0; side < 2; side++) {
      const shift = side === 0 ? step : step * width;
      const j = number[p + shift]!;
      if (j < 0) continue;
      const candidate = match[j]! - shift;
      if (candidate === best || !source[candidate]) continue;
      const d = patchDifference(pixels, stride, p, candidate, least);
      if (d < least) {
        least = d;
        best = candidate;
      }
    }
    for (let radius = reach; radius >= 1; radius >>= 1) {
      const bx = best % width;
      const by = (best / width) | 0;
      const cx = bx + random.between(-radius, radius);
      const cy = by + random.between(-radius, radius);
      if (cx < HALF || cy < HALF || cx >= width - HALF || cy >= height - HALF) continue;
      const candidate = cy * width + cx;
      if (candidate === best || !source[candidate]) continue;
      const d = patchDifference(pixels, stride, p, candidate, least);
      if (d < least) {
        least = d;
        best = candidate;
      }
    }
    match[i] = best;
    distance[i] = least;
  }
}
