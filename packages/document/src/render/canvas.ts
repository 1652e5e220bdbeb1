import type { Rect, Sides } from '@tersum/core';
import { canvasRect, unite } from '@tersum/core';
import type { Method } from '../schema/method.js';
import type { Records } from '../schema/records.js';
import type { Repair } from '../schema/repair.js';
import type { Site } from '../schema/site.js';
import { activeRepairs } from './order.js';

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** The sides that a method adds to the picture (or takes from it, below 0); null for all that only mend. */
export function sidesOf(method: Method): Sides | null {
  return method.kind === 'fill' || method.kind === 'stretch' ? method.sides : null;
}

/** The repairs other than one that mend something: their sites are damage, a widening's is the picture. */
export function otherMends(repairs: readonly Repair[], id: string): Repair[] {
  return repairs.filter((r) => r.id !== id && !sidesOf(r.method));
}

/** The repair that makes the canvas another, if there is one and it is switched on. */
export function wideningOf(records: Records): Repair | undefined {
  return activeRepairs(records).find(({ method }) => sidesOf(method));
}

/** Where the picture lies as its records stand, in the original's coordinates. */
export function canvasOfRecords(size: Size, records: Records): Rect {
  return groundsOf(activeRepairs(records), { x: 0, y: 0, ...sizeOf(size) }).canvas;
}

/** What the repairs of a picture work on. */
export interface Grounds {
  /** Where the picture lies after all repairs. */
  readonly canvas: Rect;
  /** Where it lies for one of them. */
  of(repair: Repair): Rect;
}

/**
 * Repairs below a widening work on the original's frame, and give what they gave without it; those above it on the canvas.
 * The widening itself sees both.
 * @param repairs the active ones, in order
 */
export function groundsOf(repairs: readonly Repair[], frame: Rect): Grounds {
  const at = repairs.findIndex(({ method }) => sidesOf(method));
  const widening = repairs[at];
  if (!widening) return { canvas: frame, of: () => frame };
  const canvas = canvasRect(frame, sidesOf(widening.method)!);
  const below = new Set(repairs.slice(0, at).map((r) => r.id));
  return {
    canvas,
    of: ({ id }) => (id === widening.id ? unite(frame, canvas) : below.has(id) ? frame : canvas),
  };
}

/** The site of new sides that are filled: what of the canvas is not in the original. */
export function sidesSite({ width, height }: Size, { left, right, top, bottom }: Sides): Site {
  const across = width + left + right;
  const rectangles = [
    { x: 0 - left, y: 0 - top, width: across, height: top },
    { x: 0 - left, y: 0, width: left, height },
    { x: width, y: 0, width: right, height },
    { x: 0 - left, y: height, width: across, height: bottom },
  ].filter((r) => r.width > 0 && r.height > 0);
  return {
    kind: 'parts',
    parts: rectangles.map((r) => ({ shape: { kind: 'rectangle', ...r }, width: 1 })),
  };
}

/** The site of a stretch: the whole canvas. */
export function canvasSite(size: Size, sides: Sides): Site {
  return { kind: 'rectangle', ...canvasRect(size, sides) };
}

function sizeOf({ width, height }: Size): Size {
  return { width, height };
}
