import { chained } from './chains.js';
import { cutAtCorners } from './corners.js';
import { between, evenly, flanksOf } from './crease-flanks.js';
import { creaseOdds, creasesInDoubt, strandJudge } from './crease-judge.js';
import { followedOn, toTheBorder } from './crease-run.js';
import { creaseTraits } from './crease-traits.js';
import type { Layer } from '../raster/layers.js';
import { medianOf } from '../raster/median.js';
import { paperLike } from './paper.js';
import type { Strand } from './strands.js';

/** A crease or tear: where it runs, and how far it reaches to its left and right point by point; px. */
export interface Crease {
  readonly xs: Float32Array;
  readonly ys: Float32Array;
  readonly widths: Float32Array;
  /** Pixels of the picture, in reading order. */
  readonly site: Int32Array;
  readonly odds: number;
  readonly polarity: 1;
}

/** Log odds a strand needs to be part of a crease, and a chain of them to be looked at as a whole. */
const [PART, CHAIN] = [-1.5, -2];
const GAP = { widths: 30, most: 260 } as const;
/** Levels of the pyramid at which the breadth of a crease is a line's. */
export const CREASE_LEVELS = [1, 2, 3] as const;

/**
 * Creases of a picture, likeliest first.
 * @param strands of {@link CREASE_LEVELS}
 * @param layer the whole picture; in prints of one tone with what is foreign to it as one more plane
 */
export function creasesOf(strands: readonly Strand[], layer: Layer): Crease[] {
  const judge = strandJudge(Math.min(layer.grey.width, layer.grey.height));
  const chains = chained(cutAtCorners(strands), layer.grey, { judge, part: PART, gap: GAP });
  const creases = chains
    .filter(({ odds }) => odds > CHAIN)
    .map((chain): Crease => {
      const paper = paperLike(layer, chain);
      const tone = medianOf(Array.from(chain.xs, (x, i) => paper.at(x, chain.ys[i]!)));
      const seen = followedOn(paper, chain, tone);
      const shown = evenly(seen);
      const line = evenly(toTheBorder(paper, seen, tone));
      const { left, right } = flanksOf(paper, line, tone);
      return {
        ...line,
        widths: left.map((l, i) => l + right[i]!),
        site: between(line, left, right, paper),
        odds: creaseOdds(
          creaseTraits(chain, { ...shown, ...flanksOf(paper, shown, tone) }, paper, layer),
        ),
        polarity: 1,
      };
    });
  const asked = creasesInDoubt(creases.map(({ odds }) => odds));
  return creases
    .map((crease, i) => ({ ...crease, odds: asked[i]! }))
    .sort((a, b) => b.odds - a.odds);
}
