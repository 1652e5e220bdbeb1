import type { Field } from './field.js';

/** First content of a hole at the coarsest level: peeled from the border inwards, each ring the mean of its known neighbours. */
export function peelInwards(field: Field): void {
  inwards(field, 0);
}

/** The same, but what stands beside the hole mirrored into it, at the known pixel nearest to each: as lively as it is there. */
export function mirrorInwards(field: Field): void {
  inwards(field, field.plane.byteOffset);
}

/** @param nearest address of room for the known pixel nearest to each, 0 where that is not asked */
function inwards({ room, level, holes, chosen }: Field, nearest: number): void {
  room.arena.kernel.inwards(
    level.pixels.byteOffset,
    level.hole.byteOffset,
    level.banned.byteOffset,
    level.width,
    level.height,
    holes.byteOffset,
    holes.length,
    chosen.byteOffset,
    nearest,
  );
}
