import type { Field } from './field.js';
import { agree } from './vote.js';

/** Sharpness of the votes that choose single sources. */
const AGREEMENT = 0.25;
const SWEEPS = 4;

/**
 * Ends the search with one source a pixel, so that nothing is averaged and nothing blurs. Each hole pixel
 * first takes the shift that most of the trusted patches over it agree on; then labels settle where switching
 * source shows least (the seam cost of Kwatra et al., "Graphcut Textures", SIGGRAPH 2003, lowered by
 * iterated conditional modes).
 * The field's plane becomes, for every hole pixel of the level, the source pixel.
 */
export function assignSources(field: Field): void {
  const { room, level, holes, chosen, sources, plane: sourceOf } = field;
  agree(field, AGREEMENT, chosen);
  for (let k = 0; k < holes.length; k++)
    sourceOf[holes[k]!] = chosen[k]! < 0 ? sources[0]! : chosen[k]!;
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    const changed = room.arena.kernel.settle(
      level.pixels.byteOffset,
      level.hole.byteOffset,
      level.banned.byteOffset,
      holes.byteOffset,
      sourceOf.byteOffset,
      level.width,
      level.height,
      holes.length,
      sweep & 1,
    );
    if (!changed) break;
  }
}
