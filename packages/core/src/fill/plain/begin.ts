import type { Random } from '../../random/random.js';
import type { Chance, Field } from '../field.js';
import { HALF } from '../level.js';

/** Twin of byChance in kernels/fill/begin.ts: matches every target with a source by chance, within reach if one is soon found there. */
export function matchByChancePlainly(
  field: Field,
  random: Random,
  { reach, sheets, rows }: Chance,
): void {
  const { width, height } = field.level;
  const last = field.sources.length - 1;
  for (let i = 0; i < field.match.length; i++) {
    const x = field.target[i]! % width;
    const y = (field.target[i]! / width) | 0;
    let found = -1;
    for (let k = 0; k < 8 && found < 0; k++) {
      const a = x + random.between(-reach, reach);
      const b = y + random.between(-reach, reach) + rows * random.between(0, sheets);
      if (a >= 0 && b >= 0 && a < width && b < height && field.source[b * width + a])
        found = b * width + a;
    }
    field.match[i] = found < 0 ? field.sources[random.between(0, last)]! : found;
  }
}

/** Twin of fromCoarse there: takes over the matches of the level half the size. */
export function matchFromCoarsePlainly(field: Field, coarse: Field, random: Random): void {
  const { width, height } = field.level;
  const cw = coarse.level.width;
  const ch = coarse.level.height;
  const within = (v: number, high: number): number => Math.min(Math.max(v, HALF), high - HALF - 1);
  for (let i = 0; i < field.target.length; i++) {
    const tx = field.target[i]! % width;
    const ty = (field.target[i]! / width) | 0;
    const cx = within(tx >> 1, cw);
    const cy = within(ty >> 1, ch);
    const j = coarse.number[cy * cw + cx]!;
    let x = tx;
    let y = ty;
    if (j >= 0) {
      x += 2 * ((coarse.match[j]! % cw) - cx);
      y += 2 * (((coarse.match[j]! / cw) | 0) - cy);
    }
    field.match[i] = usableNear(field, within(x, width), within(y, height), random);
  }
}

/** A source at or near x, y; any source when there is none close by. */
function usableNear(field: Field, x: number, y: number, random: Random): number {
  const { width, height } = field.level;
  if (field.source[y * width + x]) return y * width + x;
  for (let k = 0; k < 48; k++) {
    const reach = 1 + Math.floor(k / 3);
    const a = x + random.between(-reach, reach);
    const b = y + random.between(-reach, reach);
    if (a >= 0 && b >= 0 && a < width && b < height && field.source[b * width + a])
      return b * width + a;
  }
  return field.sources[random.between(0, field.sources.length - 1)]!;
}
