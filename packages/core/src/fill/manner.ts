/** How a hole is searched: set by how deep it is. */
export interface Manner {
  /**
   * How much texture counts beside colour when patches are compared (the lambda of Newson et al.). Voting smooths, and
   * smooth content finds smooth sources: without weight on texture the filling washes out from level to level.
   */
  readonly texture: number;
  /** The pyramid ends when the deepest point of the hole is no deeper than this many px. */
  readonly coarsestDepth: number;
  /** Trust in a patch halves so many times with every px into the hole. */
  readonly distrust: number;
  /** Beginnings at the coarsest level of which the better is gone on with. */
  readonly starts: 1 | 2;
  /** Sweeps a round. */
  readonly sweeps: number;
  /** Rounds on the first, coarsest level; on the others as many more as they are coarse. The finest has two. */
  readonly rounds: { readonly first: number; readonly least: number; readonly most: number };
  /** Scale of the fall of votes, as a share of the mean difference. */
  readonly sharpness: number;
  /** How far, px at the finest level, matches are tried by chance. */
  readonly reach: number;
  /**
   * What a match as far away as `reach` costs, as a share of what places by chance differ by: in a hole within the picture,
   * and in one open to its border, which nothing holds from beyond. With more, what is near is laid side by side again and
   * again; with none, what stands far off and fits the border only is brought in.
   */
  readonly far: { readonly within: number; readonly open: number };
}

/** Up to this depth, px, a hole is a wire, a scratch, a crease. */
const THIN = 16;

/**
 * The manner for a hole of this depth, px. Thin damage is like what stands beside it: far tries were measured to cost
 * likeness and texture both, since with much to choose from the smoothest is always at hand. What it comes to is what the surroundings make likely
 * (`repair/expected.ts`): a short search was measured to do as well as a long one. Deep holes need the reach, more weight on
 * texture and sharper votes, or they wash out.
 */
export function mannerFor(depth: number): Manner {
  return depth <= THIN
    ? {
        texture: 4,
        coarsestDepth: 12,
        distrust: 2,
        starts: 1,
        sweeps: 1,
        rounds: { first: 8, least: 0, most: 6 },
        sharpness: 0.5,
        reach: Math.round(10 + 2 * depth),
        far: { within: 0, open: 0 },
      }
    : {
        texture: 7,
        coarsestDepth: 8,
        distrust: 1,
        starts: 2,
        sweeps: 2,
        rounds: { first: 24, least: 4, most: 12 },
        sharpness: 0.25,
        reach: Math.round(48 + 6 * depth),
        far: { within: 0.02, open: 0.15 },
      };
}
