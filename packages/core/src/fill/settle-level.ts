import type { Chance, Field } from './field.js';
import { matchByChance } from './field.js';
import type { Manner } from './manner.js';
import { improveMatches, measureMatches } from './match.js';
import type { Farness } from './farness.js';
import { mirrorInwards, peelInwards } from './start.js';
import { vote } from './vote.js';

/** Sharpness of the very last votes. */
const FINAL_SHARPNESS = 0.08;

/** What is to be done at one level. */
export interface LevelWork {
  readonly field: Field;
  readonly manner: Manner;
  readonly chance: Chance;
  readonly farness: Farness;
  readonly rounds: number;
  readonly isFinest: boolean;
  /** Of the level's chance. */
  readonly seed: number;
  /** Draws towards the guides, so much of the full. */
  readonly pull: ((strength: number) => void) | null;
  /** Called before every round with the share that is done; throws when the task is cancelled. */
  readonly check: (share: number) => void;
  /** Called when what the level holds is worth showing. */
  readonly show: () => void;
}

/** Searches and votes in turn, from what the hole holds and its patches are matched with. @param start which beginning it is */
export function settleLevel(work: LevelWork, start = 0): void {
  const { field, manner, chance, farness, rounds, isFinest, seed, pull, check } = work;
  pull?.(1);
  for (let round = 0; round < rounds; round++) {
    check(round / rounds);
    for (let turn = 0; turn < manner.sweeps; turn++)
      improveMatches(field, {
        ...chance,
        farness,
        pass: turn + round * manner.sweeps,
        seed: seed + 7919 * start,
        fresh: turn === 0,
      });
    const isLast = round === rounds - 1;
    if (isFinest && isLast) vote(field, FINAL_SHARPNESS, 'all');
    else vote(field, manner.sharpness, 'half');
    if (!isLast || !isFinest) pull?.(1 - (isFinest ? round / rounds : 0));
  }
}

/**
 * Begins at the coarsest level: from the border peeled inwards and, where the manner asks for it, from the border
 * mirrored, and goes on with what agrees better with the picture. Which of the two leads to the better filling differs
 * from hole to hole; the mean difference of the patches tells it more often than not.
 */
export function beginLevel(work: LevelWork): void {
  const { field, manner, chance, farness } = work;
  const { level, match } = field;
  const begin = (start: number): number => {
    (start === 0 ? peelInwards : mirrorInwards)(field);
    matchByChance(field, chance);
    const check = (share: number): void => work.check((start + share) / manner.starts);
    settleLevel({ ...work, check }, start);
    measureMatches(field, farness);
    return field.distance.reduce((sum, d) => sum + d, 0);
  };
  const first = begin(0);
  if (manner.starts === 1) return;
  work.show();
  const [pixels, matches] = [level.pixels.slice(), match.slice()];
  if (begin(1) < first) return;
  level.pixels.set(pixels);
  match.set(matches);
}
