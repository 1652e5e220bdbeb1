import type { Rect } from '@tersum/core';

/** A place of the picture as it is shown in small: its middle and how much is seen from top to bottom, px. */
export interface Place {
  readonly x: number;
  readonly y: number;
  readonly side: number;
}

/** What lies about a point, with a little of what is around it. @param size its longer side, px */
export function placeAt(x: number, y: number, size: number): Place {
  return { x, y, side: 1.3 * Math.max(size, 24) };
}

/** The same of a box. */
export function placeOf({ x, y, width, height }: Rect): Place {
  return placeAt(x + width / 2, y + height / 2, Math.max(width, height));
}
