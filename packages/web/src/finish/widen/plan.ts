import type { Point, Rect, Sides } from '@tersum/core';
import { canvasFor, enclose, NO_SIDES, ORDERED_PRINTS, SHAPES } from '@tersum/core';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** How more background is got, or less. */
export type Way = 'fill' | 'stretch';

/** A shape that is wanted: one of the list, a print, or sides of one's own. */
export interface Wish {
  readonly name: string;
  /** Width to height; null for sides of one's own. */
  readonly ratio: number | null;
  /** Sides of the print, mm, as they lie; null where no print is meant. */
  readonly mm: readonly [number, number] | null;
}

export const FREE: Wish = { name: 'Free', ratio: null, mm: null };

/** The shapes of the list. */
export const SHAPE_WISHES: readonly Wish[] = [
  ...SHAPES.map(({ name, ratio }): Wish => ({ name, ratio, mm: null })),
  FREE,
];

/** The prints of the list, each upright and lying. */
export const PRINT_WISHES: readonly Wish[] = ORDERED_PRINTS.flatMap(({ name, mm: [a, b] }) => [
  { name: `${name}, lying`, ratio: b / a, mm: [b, a] as const },
  { name: `${name}, upright`, ratio: a / b, mm: [a, b] as const },
]);

/** Where something should come to stand, shares of the canvas. */
export const STANDS = { first: 1 / 3, middle: 1 / 2, last: 2 / 3 } as const;
export type Stand = keyof typeof STANDS;

/** The box of outlines; null where there are none. */
export function boxAround(outlines: readonly (readonly Point[])[]): Rect | null {
  const points = outlines.flat();
  if (!points.length) return null;
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of points) {
    x0 = Math.min(x0, x);
    y0 = Math.min(y0, y);
    x1 = Math.max(x1, x);
    y1 = Math.max(y1, y);
  }
  return enclose(x0, y0, x1, y1);
}

/** The sides a wish comes to. @param subject its box; the picture's own middle counts where there is none */
export function sidesFor(
  picture: Size,
  subject: Rect | null,
  ratio: number,
  stand: readonly [Stand, Stand],
): Sides {
  const { x, y, width, height } = subject ?? { x: 0, y: 0, ...picture };
  const middle = [(x + width / 2) / picture.width, (y + height / 2) / picture.height] as const;
  const to = [STANDS[stand[0]], STANDS[stand[1]]] as const;
  return canvasFor(picture.width, picture.height, ratio, middle, to).sides;
}

/** The sides with the picture moved in its canvas, which stays as large. */
export function slid({ left, right, top, bottom }: Sides, dx: number, dy: number): Sides {
  const within = (by: number, before: number, after: number): number =>
    Math.max(-Math.max(0, before), Math.min(Math.max(0, after), Math.round(by)));
  const x = within(dx, left, right);
  const y = within(dy, top, bottom);
  return { left: left + x, right: right - x, top: top + y, bottom: bottom - y };
}

/** Share of the picture a side may lose: more could not be narrowed anyway. */
const MOST_LOST = 0.4;
const MOST_ADDED = 20_000;

/** The sides as a way can make them: filled ones take nothing away. */
export function possible(sides: Sides, picture: Size, way: Way): Sides {
  const within = (v: number, length: number): number =>
    Math.round(Math.min(MOST_ADDED, Math.max(way === 'fill' ? 0 : -MOST_LOST * length, v)));
  return {
    left: within(sides.left, picture.width),
    right: within(sides.right, picture.width),
    top: within(sides.top, picture.height),
    bottom: within(sides.bottom, picture.height),
  };
}

/** px of background that stretching needs beside what it keeps. */
const LEAST_BESIDE = 2;

/** The sides that what is kept reaches, so that there is nothing to stretch at them. */
export function reachedSides(
  outlines: readonly (readonly Point[])[],
  { width, height }: Size,
): (keyof Sides)[] {
  const least = LEAST_BESIDE - 0.5;
  const xs = outlines.flatMap((points) => points.map(([x]) => x));
  const ys = outlines.flatMap((points) => points.map(([, y]) => y));
  const reached = {
    left: xs.some((x) => x < least),
    right: xs.some((x) => x > width - 1 - least),
    top: ys.some((y) => y < least),
    bottom: ys.some((y) => y > height - 1 - least),
  };
  return (Object.keys(reached) as (keyof Sides)[]).filter((side) => reached[side]);
}

/** Whether a canvas is the picture itself. */
export function isNothing(sides: Sides): boolean {
  return (Object.keys(NO_SIDES) as (keyof Sides)[]).every((side) => sides[side] === 0);
}
