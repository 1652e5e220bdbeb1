import type { InkFlanks } from './ink-flanks.js';
import type { Stroke } from './ink-stroke.js';
import { breadthsOf } from './ink-stroke.js';
import type { StrandTraits } from './strand-traits.js';

/** What strokes of one colour are judged by as a whole. */
export interface InkTraits extends InkFlanks {
  readonly count: number;
  /** How evenly the strokes run in all directions, 0..1: rigging, frames and rails run in few. */
  readonly runs: number;
  /** Means along them of {@link StrandTraits} and of how far the colour strays, levels. */
  readonly unsteady: number;
  readonly straight: number;
  readonly turn: number;
  readonly groundRough: number;
  readonly spread: number;
  /** Breadth of the broader ones, hundredths of the picture's size. */
  readonly broad: number;
  /** How foreign their colour is to a print of one tone, 0..10. */
  readonly hue: number;
}

/** @param size root of the picture's area, px */
export function inkTraits(
  strokes: readonly Stroke[],
  size: number,
  hue: number,
  flanks: InkFlanks,
): InkTraits {
  const reach = strokes.reduce((sum, s) => sum + s.reach, 0);
  const mean = (of: (s: Stroke) => number): number =>
    strokes.reduce((sum, s) => sum + s.reach * of(s), 0) / reach;
  const along = (key: keyof StrandTraits): number => mean(({ traits }) => traits[key]);
  return {
    ...flanks,
    count: strokes.length,
    runs: evennessOf(strokes),
    unsteady: along('unsteady'),
    straight: along('straight'),
    turn: along('turn'),
    groundRough: along('groundRough'),
    spread: mean((s) => s.spread),
    broad: (100 * breadthsOf(strokes).breadth) / size,
    hue,
  };
}

const DIRECTIONS = 12;

/** Entropy of the directions that strokes run in, as a share of the most there is. */
function evennessOf(strokes: readonly Stroke[]): number {
  const runs = new Float64Array(DIRECTIONS);
  for (const { xs, ys, level } of strokes)
    for (let i = 3; i < xs.length; i += 3) {
      const angle = Math.atan2(ys[i]! - ys[i - 3]!, xs[i]! - xs[i - 3]!) / Math.PI;
      runs[Math.floor(((angle % 1) + 1) * DIRECTIONS) % DIRECTIONS]! += 2 ** level;
    }
  const total = runs.reduce((sum, v) => sum + v, 0) || 1;
  let entropy = 0;
  for (const v of runs) if (v) entropy -= (v / total) * Math.log(v / total);
  return entropy / Math.log(DIRECTIONS);
}
