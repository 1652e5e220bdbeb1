import type { Field } from './field.js';
import { HALF } from './level.js';
import { fallOff } from './vote.js';

const SIDE = 2 * HALF + 1;
const SWEEPS = 4;
/** How much leaving the voted colour costs beside a visible seam. */
const FAITH = 0.25;

/**
 * Ends the search with one source a pixel, so that nothing is averaged and nothing blurs. Each hole pixel
 * first takes the shift that most of the trusted patches over it agree on; then labels settle where switching
 * source shows least (the seam cost of Kwatra et al., "Graphcut Textures", SIGGRAPH 2003, lowered by
 * iterated conditional modes).
 * @param allowed 1 where a pixel may be copied
 * @returns for every pixel of the level the source pixel, -1 outside the hole
 */
export function assignSources(field: Field, allowed: Uint8Array): Int32Array {
  const sourceOf = agree(field, allowed);
  for (let sweep = 0; sweep < SWEEPS; sweep++) if (!settle(field, allowed, sourceOf, sweep)) break;
  return sourceOf;
}

function agree(field: Field, allowed: Uint8Array): Int32Array {
  const { level, number, match, distance, trust, holes } = field;
  const { width, height } = level;
  const sourceOf = new Int32Array(width * height).fill(-1);
  const candidates = new Int32Array(SIDE * SIDE);
  const weights = new Float64Array(SIDE * SIDE);
  for (const p of holes) {
    const x = p % width;
    const y = (p / width) | 0;
    let count = 0;
    let least = Infinity;
    let mean = 0;
    let patches = 0;
    for (let pass = 0; pass < 2; pass++) {
      const scale = Math.max(mean / Math.max(1, patches), 1) * 0.25;
      for (let dy = -HALF; dy <= HALF; dy++) {
        if (y + dy < HALF || y + dy >= height - HALF) continue;
        for (let dx = -HALF; dx <= HALF; dx++) {
          if (x + dx < HALF || x + dx >= width - HALF) continue;
          const shift = dy * width + dx;
          const i = number[p + shift]!;
          if (i < 0) continue;
          if (pass === 0) {
            patches++;
            mean += distance[i]!;
            least = Math.min(least, distance[i]!);
            continue;
          }
          const from = match[i]! - shift;
          if (!allowed[from]) continue;
          const w = trust[i]! * fallOff((distance[i]! - least) / scale);
          let k = 0;
          while (k < count && candidates[k] !== from) k++;
          if (k === count) {
            candidates[count] = from;
            weights[count++] = 0;
          }
          weights[k]! += w;
        }
      }
    }
    let best = -1;
    for (let k = 0; k < count; k++) if (best < 0 || weights[k]! > weights[best]!) best = k;
    sourceOf[p] = best < 0 ? field.sources[0]! : candidates[best]!;
  }
  return sourceOf;
}

/** One sweep over the hole; true when any label changed. */
function settle(field: Field, allowed: Uint8Array, sourceOf: Int32Array, sweep: number): boolean {
  const { level, holes } = field;
  const { width, height, pixels, hole } = level;
  const beside = [1, -1, width, -width];
  const difference = (a: number, b: number): number => {
    const r = pixels[4 * a]! - pixels[4 * b]!;
    const g = pixels[4 * a + 1]! - pixels[4 * b + 1]!;
    const c = pixels[4 * a + 2]! - pixels[4 * b + 2]!;
    return r * r + g * g + c * c;
  };
  const inside = (p: number, x: number, side: number): boolean =>
    side === 0
      ? x + 1 < width
      : side === 1
        ? x > 0
        : side === 2
          ? p < width * (height - 1)
          : p >= width;

  const cost = (p: number, x: number, from: number): number => {
    let sum = FAITH * difference(p, from);
    for (let side = 0; side < 4; side++) {
      if (!inside(p, x, side)) continue;
      const q = p + beside[side]!;
      const other = hole[q] ? sourceOf[q]! : q;
      const mine = from + beside[side]!;
      if (mine === other) continue;
      // Where this source goes on beyond the seam, and where the neighbour's comes from, must look alike.
      sum += allowed[mine] === 1 ? difference(mine, other) : 4000;
      const theirs = other - beside[side]!;
      if (hole[q]) sum += allowed[theirs] === 1 ? difference(theirs, from) : 4000;
    }
    return sum;
  };

  let changed = false;
  for (let k = 0; k < holes.length; k++) {
    const p = holes[sweep & 1 ? holes.length - 1 - k : k]!;
    const x = p % width;
    let best = sourceOf[p]!;
    let least = -1;
    for (let side = 0; side < 4; side++) {
      if (!inside(p, x, side)) continue;
      const q = p + beside[side]!;
      if (!hole[q]) continue;
      const candidate = sourceOf[q]! - beside[side]!;
      if (candidate === best || allowed[candidate] !== 1) continue;
      if (least < 0) least = cost(p, x, best);
      const c = cost(p, x, candidate);
      if (c < least) {
        least = c;
        best = candidate;
      }
    }
    if (best === sourceOf[p]) continue;
    sourceOf[p] = best;
    changed = true;
  }
  return changed;
}
