import type { DonorMap } from '../fill/donor-map.js';
import { NOT_FILLED } from '../fill/donor-map.js';
import { partsOf } from '../shape/parts.js';

/** A place where a filling hardly agrees with itself. */
export interface UnsurePlace {
  /** Its middle, px of the original. */
  readonly x: number;
  readonly y: number;
  /** Width of a dab that covers it, px. */
  readonly width: number;
  /** Mean confidence there, 0..1. */
  readonly confidence: number;
}

/** Pixels less sure than this, 0..255, are doubtful. */
const DOUBTFUL = 100;
/** Fewer doubtful pixels together are not worth a touch. */
const LEAST_PIXELS = 40;
const MOST_PLACES = 4;

/** The places of a filling that are most worth touching up, worst first. */
export function unsurePlaces({ rect, dx, confidence }: DonorMap): UnsurePlace[] {
  const mask = new Uint8Array(dx.length);
  for (let i = 0; i < mask.length; i++)
    mask[i] = dx[i] !== NOT_FILLED && confidence[i]! < DOUBTFUL ? 1 : 0;
  return partsOf(mask, rect.width)
    .filter((part) => part.length >= LEAST_PIXELS)
    .map((part) => {
      let [x, y, sure] = [0, 0, 0];
      for (const p of part) {
        x += p % rect.width;
        y += Math.floor(p / rect.width);
        sure += confidence[p]!;
      }
      const n = part.length;
      return {
        x: rect.x + Math.round(x / n),
        y: rect.y + Math.round(y / n),
        width: Math.min(200, Math.max(8, Math.ceil(2.4 * Math.sqrt(n / 3)))),
        confidence: sure / n / 255,
        weight: n * (255 - sure / n),
      };
    })
    .sort((a, b) => b.weight - a.weight)
    .slice(0, MOST_PLACES)
    .map(({ x, y, width, confidence: mean }) => ({ x, y, width, confidence: mean }));
}
