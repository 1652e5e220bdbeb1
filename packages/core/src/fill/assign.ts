import type { Field } from './field.js';
import { agree } from './vote.js';

/** Sharpness of the votes that choose single sources. */
const AGREEMENT = 0.25;
const SWEEPS = 4;
/** How much leaving the voted colour costs beside a visible seam. */
const FAITH = 0.25;
/** What going on into forbidden pixels costs. */
const UNLIKE = 64_000;

/**
 * Ends the search with one source a pixel, so that nothing is averaged and nothing blurs. Each hole pixel
 * first takes the shift that most of the trusted patches over it agree on; then labels settle where switching
 * source shows least (the seam cost of Kwatra et al., "Graphcut Textures", SIGGRAPH 2003, lowered by
 * iterated conditional modes).
 * @returns for every pixel of the level the source pixel, -1 outside the hole
 */
export function assignSources(field: Field): Int32Array {
  const { hole, banned } = field.level;
  const allowed = new Uint8Array(hole.length);
  for (let p = 0; p < hole.length; p++) allowed[p] = hole[p] || banned[p] ? 0 : 1;
  const sourceOf = new Int32Array(hole.length).fill(-1);
  agree(field, AGREEMENT, field.chosen);
  for (let k = 0; k < field.holes.length; k++)
    sourceOf[field.holes[k]!] = field.chosen[k]! < 0 ? field.sources[0]! : field.chosen[k]!;
  for (let sweep = 0; sweep < SWEEPS; sweep++) if (!settle(field, allowed, sourceOf, sweep)) break;
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
      sum += allowed[mine] === 1 ? difference(mine, other) : UNLIKE;
      const theirs = other - beside[side]!;
      if (hole[q]) sum += allowed[theirs] === 1 ? difference(theirs, from) : UNLIKE;
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
