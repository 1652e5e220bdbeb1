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
  /** Whether only those round it count, as if all the picture were so: the rest of it says nothing of what it runs over. */
  readonly isNear?: boolean;
}

/** Parts of the picture's width and height that strands are counted in, and how much their own part counts beside the next. */
const PARTS = 4;
const OWN = 4;

/**
 * A judge that asks the picture as a whole: where much is nearly like what is looked for, among twigs, fur and masonry,
 * a strand has to be more than that; on a plain ground it need not. Bright and dark strands are apart.
 * @param judge log odds of a strand by itself
 */
export function inDoubt(
  strands: readonly Strand[],
  { width, height }: { readonly width: number; readonly height: number },
  judge: Judge,
  { free, each, isNear = false }: Doubt,
): Judge {
  const parts = isNear ? PARTS : 1;
  const partAt = (x: number, y: number): number =>
    parts * Math.min(parts - 1, Math.floor((parts * y) / height)) +
    Math.min(parts - 1, Math.floor((parts * x) / width));
  const lengths = { '-1': new Float64Array(parts * parts), '1': new Float64Array(parts * parts) };
  for (const strand of strands) {
    const { xs, ys, level, polarity } = strand;
    const odds = judge(strand);
    if (odds > DOUBTFUL.from && odds < DOUBTFUL.to)
      for (let i = 0; i < xs.length; i++) lengths[polarity][partAt(xs[i]!, ys[i]!)]! += 2 ** level;
  }
  const side = Math.sqrt(width * height);
  const round = { '-1': roundParts(lengths['-1'], parts), '1': roundParts(lengths['1'], parts) };
  return (strand) => {
    const { xs, ys, polarity } = strand;
    let length = 0;
    for (let i = 0; i < xs.length; i++) length += round[polarity][partAt(xs[i]!, ys[i]!)]!;
    length /= Math.max(1, xs.length);
    return judge(strand) + Math.min(MOST, free - each * Math.log(ANY + length / side));
  };
}

/** What every part comes to with the parts beside it, as if all the picture were so. */
function roundParts(lengths: Float64Array, parts: number): Float64Array {
  return lengths.map((_, k) => {
    const [x, y] = [k % parts, Math.floor(k / parts)];
    let [sum, count] = [0, 0];
    for (let v = Math.max(0, y - 1); v <= Math.min(parts - 1, y + 1); v++)
      for (let u = Math.max(0, x - 1); u <= Math.min(parts - 1, x + 1); u++) {
        const share = u === x && v === y ? OWN : 1;
        sum += share * lengths[v * parts + u]!;
        count += share;
      }
    return (sum / count) * parts * parts;
  });
}
