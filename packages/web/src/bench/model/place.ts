import type { Rect } from '@tersum/core';
import type { Size, Viewport } from '../table/viewport.js';

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

/** How a place is seen in so large a picture of it: filled, and with nothing from beyond the frame where that can be. */
export function sightOf({ x, y, side }: Place, size: Size, frame: Rect): Viewport {
  const covering = Math.max(size.width / frame.width, size.height / frame.height);
  const zoom = Math.max(size.height / side, covering);
  return {
    x: within(x, frame.x, frame.width, size.width / zoom / 2),
    y: within(y, frame.y, frame.height, size.height / zoom / 2),
    zoom,
    turn: 0,
  };
}

function within(at: number, from: number, length: number, reach: number): number {
  return Math.min(from + length - reach, Math.max(from + reach, at));
}
