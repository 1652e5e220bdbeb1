import type { Field } from './field.js';

/** Patches this trusted lie mostly on known ground: what they differ by is usual here. */
const RING_TRUST = 0.5;
/** No ground is so even that differences of less than this many quarters of a code count. */
const LEAST = 4;
/** Fillings agree with their sources less than known ground agrees with its like: so much more is still usual. */
const USUAL = 2;
const PATCH_VALUES = 49 * 4;

/**
 * How sure a filling is: at every hole pixel the patch centred there is compared with its source, and that with what
 * patches at the site's border show. 255 = hardly less alike than there, falling with the root of the mean squared difference.
 */
export function confidenceOf(field: Field): (pixel: number) => number {
  const { number, distance, trust } = field;
  const usual: number[] = [];
  for (let i = 0; i < distance.length; i++) if (trust[i]! >= RING_TRUST) usual.push(distance[i]!);
  usual.sort((a, b) => a - b);
  const middle = usual.length ? usual[usual.length >> 1]! : 0;
  const reference = USUAL * Math.max(LEAST, Math.sqrt(middle / PATCH_VALUES));
  return (pixel) => {
    const i = number[pixel]!;
    if (i < 0) return 128;
    const here = Math.sqrt(distance[i]! / PATCH_VALUES);
    return here <= reference ? 255 : Math.floor((255 * reference) / here);
  };
}
