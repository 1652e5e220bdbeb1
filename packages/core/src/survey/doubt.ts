import type { Strand } from './strands.js';

type Judge = (strand: Strand) => number;

/** Log odds between which a strand is doubtful: not what is looked for, but like it. */
const DOUBTFUL = { from: -4, to: -1 } as const;
/** Length of doubtful strands that any picture has, in sides of a square as large. */
const ANY = 0.2;

/** What a picture that holds hardly any speaks for its strands at most: it may hold no line at all. */
const MOST = 0.8;

/** How doubtful strands of a picture speak against all of its strands. */
export interface Doubt {
  /** What speaks for a strand where their length comes to the side of a square as large as the picture. */
  readonly free: number;
  /** What speaks against it where there is e times as much of them. */
  readonly each: number;
}

/**
 * A judge that asks the picture as a whole: where much is nearly like what is looked for, among twigs, fur and masonry,
 * a strand has to be more than that; on a plain ground it need not. Bright and dark strands are apart.
 * @param judge log odds of a strand by itself
 */
export function inDoubt(
  strands: readonly Strand[],
  { width, height }: { readonly width: number; readonly height: number },
  judge: Judge,
  { free, each }: Doubt,
): Judge {
  const length = { '-1': 0, '1': 0 };
  for (const strand of strands) {
    const odds = judge(strand);
    if (odds > DOUBTFUL.from && odds < DOUBTFUL.to)
      length[strand.polarity] += strand.xs.length * 2 ** strand.level;
  }
  const side = Math.sqrt(width * height);
  const speaks = (polarity: 1 | -1): number =>
    Math.min(MOST, free - each * Math.log(ANY + length[polarity] / side));
  const shift = { '-1': speaks(-1), '1': speaks(1) };
  return (strand) => judge(strand) + shift[strand.polarity];
}
