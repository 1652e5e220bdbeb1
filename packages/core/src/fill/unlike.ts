import type { Chance, Field } from './field.js';
import { matchByChance } from './field.js';
import { measureMatches } from './match.js';
import { peelInwards } from './start.js';

/** How much a hole peeled inwards from its border differs from places by chance: the middle squared difference of patches. */
export function unlikeByChance(field: Field, chance: Chance): number {
  peelInwards(field);
  matchByChance(field, chance);
  measureMatches(field);
  return field.distance.slice().sort()[field.distance.length >> 1] ?? 0;
}
