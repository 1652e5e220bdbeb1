import type { Field } from './field.js';

/** Patches this trusted lie mostly on known ground: what they differ by is usual here. */
const RING_TRUST = 0.5;
/** No ground is so even that differences of less than this many quarters of a code count. */
const LEAST = 4;
/** Fillings agree with their sources less than known ground agrees with its like: so much more is still usual. */
const USUAL = 2;
/** Values of a patch. */
export const PATCH_VALUES = 49 * 4;

/**
 * What a filling's patches usually differ from their sources by, codes in the root of the mean square: as those at the
 * site's border do, and somewhat more. A filling is as sure as they are alike beside that.
 */
export function usualDifference({ room, distance, trust }: Field): number {
  const middle = room.arena.kernel.middle(
    distance.byteOffset,
    trust.byteOffset,
    distance.length,
    RING_TRUST,
    room.scratch.byteOffset,
  );
  return USUAL * Math.max(LEAST, Math.sqrt(middle / PATCH_VALUES));
}
