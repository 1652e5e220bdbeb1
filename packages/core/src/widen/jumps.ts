import type { Background } from './background.js';
import { guard } from './lines.js';
import type { SpliceCosts } from './splice.js';
import { leastSplice, spliceCosts } from './splice.js';

/** Thrown when a side has too little background to be stretched or narrowed. */
export class CannotStretch extends Error {}

/** One splice: after column path[y] (of the halved picture) the row goes back by `step` px of the full one, or on below 0. */
export interface Jump {
  readonly path: Int32Array;
  readonly step: number;
  /** Mean cost a row. */
  readonly cost: number;
}

/** Steps a splice goes back by that are tried, px of the halved picture. */
const STEPS = [32, 20, 12, 6, 3];
/** How much dearer a longer step may be and still be taken. */
const DEARER = 1.3;
/** px of the halved picture that splices keep from what is protected. */
const CLEAR = 1;
/** What keeps splices apart: the cost added at one for the next, in usual differences. */
const APART = 4;

/**
 * The splices that make the left side longer, or shorter below 0, the cheapest first.
 * @param amount px @param side what it is called @param scale full px a pixel of the picture stands for
 * @throws CannotStretch
 */
export function jumpsFor(
  amount: number,
  { detail, bars, usual, lines }: Background,
  side: string,
  scale = 1,
): Jump[] {
  const { width, height } = detail[0]!;
  const shorter = amount < 0;
  // Where hardly anything is left beside what is protected, a splice may touch both.
  const clear = Math.min(CLEAR, Math.max(0, Math.min(...bars) - 2));
  // On a small copy, background that is there in full may be gone.
  const least = scale > 1 ? 1 : 0;
  const open = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = clear; x < Math.max(least, bars[y]! - clear); x++) open[y * width + x] = 1;
  const much = Math.abs(amount);
  const steps = STEPS.map((s) => Math.max(1, Math.round(s / scale))).filter((s) => s <= much / 2);
  const tried = (steps.length ? steps : [Math.max(1, Math.round(much / 2))]).map((step) => {
    const costs = spliceCosts(detail, shorter ? -step : step, open, bars);
    guard(costs.beside, lines, usual, detail[0]!);
    return { step, costs, first: leastSplice(costs, width, height) };
  });
  const cheapest = Math.min(...tried.map((t) => t.first?.cost ?? Infinity));
  const best = tried.findIndex((t) => t.first && t.first.cost <= DEARER * cheapest);
  // Where there is no room for all splices of the best step, shorter ones find it.
  for (const { step, costs } of best < 0 ? [] : tried.slice(best)) {
    const jumps = placed(amount, step, costs, usual, bars);
    if (jumps) return jumps;
  }
  throw new CannotStretch(
    shorter
      ? `what is protected leaves too little background at the ${side} to take so much away; crop a part of the way`
      : `what is protected leaves too little background at the ${side} to stretch; fill that side instead`,
  );
}

/** Splices of one step, each as cheap as those before leave it; null where there is no room for all. */
function placed(
  amount: number,
  step: number,
  { beside, above }: SpliceCosts,
  usual: number,
  bars: Int32Array,
): Jump[] | null {
  const height = bars.length;
  const width = beside.length / height;
  const shorter = amount < 0;
  const plain = beside.slice();
  const each = Math.abs(amount) / (2 * step);
  const count = Math.max(1, shorter ? Math.ceil(each) : Math.round(each));
  const jumps: Jump[] = [];
  for (let k = 0; k < count; k++) {
    const found = leastSplice({ beside, above }, width, height);
    if (!found) return null;
    const own = Math.round((amount * (k + 1)) / count) - Math.round((amount * k) / count);
    const cost = found.path.reduce((sum, x, y) => sum + plain[y * width + x]!, 0);
    jumps.push({ path: found.path, step: own, cost: cost / height });
    for (let y = 0; y < height; y++) {
      // As far apart as the row allows.
      const reach = Math.max(1, Math.floor((0.6 * bars[y]!) / count));
      const at = found.path[y]!;
      for (let x = Math.max(0, at - reach); x <= Math.min(width - 1, at + reach); x++)
        beside[y * width + x]! += APART * usual * (1 - Math.abs(x - at) / (reach + 1));
      // What is taken away is taken away once.
      if (shorter)
        beside.fill(
          Infinity,
          y * width + Math.max(0, at - step),
          y * width + Math.min(width, at + step + 1),
        );
    }
  }
  return jumps;
}
