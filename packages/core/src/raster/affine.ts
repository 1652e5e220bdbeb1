import type { Rect } from './rect.js';
import { enclose } from './rect.js';

/** Maps point x, y to a x + b y + c, d x + e y + f. */
export interface Affine {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
  readonly f: number;
}

/** Whether pixel centres are mapped onto pixel centres: then sampling is copying. */
export function isWhole(map: Affine): boolean {
  return [map.a, map.b, map.c, map.d, map.e, map.f].every(Number.isInteger);
}

/** How many source pixels stand behind one target pixel along its longer side. */
export function reductionOf(map: Affine): number {
  return Math.sqrt(Math.max(map.a * map.a + map.d * map.d, map.b * map.b + map.e * map.e));
}

/** The whole-pixel box that holds the images of all pixel centres of `rect`. */
export function mapRect(map: Affine, rect: Rect): Rect {
  const right = rect.x + rect.width - 1;
  const bottom = rect.y + rect.height - 1;
  const xs: number[] = [];
  const ys: number[] = [];
  for (const x of [rect.x, right])
    for (const y of [rect.y, bottom]) {
      xs.push(map.a * x + map.b * y + map.c);
      ys.push(map.d * x + map.e * y + map.f);
    }
  return enclose(Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys));
}
