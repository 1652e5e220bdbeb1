import type { Range } from '../../task/crew.js';
import type { Field } from '../field.js';

/** Leaving the voted colour counts a quarter of a visible seam. */
const SEAM = 4;
/** What going on into forbidden pixels costs. */
const UNLIKE = 4 * 64_000;

/** Twin of settle in kernels/fill/settle.ts: the definition the kernel is held to. @returns whether any label changed */
export function settlePlainly(
  { level, holes }: Pick<Field, 'level' | 'holes'>,
  sourceOf: Int32Array,
  backwards: boolean,
  [from, to]: Range = [0, holes.length],
): boolean {
  const { width, height, pixels, hole, banned } = level;
  const count = width * height;
  const allowed = (p: number): boolean => p >= 0 && p < count && !hole[p] && !banned[p];
  const difference = (a: number, b: number): number => {
    let sum = 0;
    for (let c = 0; c < 3; c++) sum += (pixels[4 * a + c]! - pixels[4 * b + c]!) ** 2;
    return sum;
  };
  const waysFrom = (p: number): number[] => {
    const x = p % width;
    const ways = [
      x + 1 < width && 1,
      x > 0 && -1,
      p + width < count && width,
      p >= width && -width,
    ];
    return ways.filter((way): way is number => way !== false);
  };
  const cost = (p: number, from: number): number => {
    let sum = difference(p, from);
    for (const way of waysFrom(p)) {
      const q = p + way;
      const other = hole[q] ? sourceOf[q]! : q;
      const mine = from + way;
      if (mine === other) continue;
      // Where this source goes on beyond the seam, and where the neighbour's comes from, must look alike.
      sum += allowed(mine) ? SEAM * difference(mine, other) : UNLIKE;
      const theirs = other - way;
      if (hole[q]) sum += allowed(theirs) ? SEAM * difference(theirs, from) : UNLIKE;
    }
    return sum;
  };

  let changed = false;
  for (let k = from; k < to; k++) {
    const p = holes[backwards ? from + to - 1 - k : k]!;
    let best = sourceOf[p]!;
    let least = -1;
    for (const way of waysFrom(p)) {
      if (!hole[p + way]) continue;
      const candidate = sourceOf[p + way]! - way;
      if (candidate === best || !allowed(candidate)) continue;
      if (least < 0) least = cost(p, best);
      const c = cost(p, candidate);
      if (c >= least) continue;
      least = c;
      best = candidate;
    }
    if (best === sourceOf[p]) continue;
    sourceOf[p] = best;
    changed = true;
  }
  return changed;
}
