/** x right, y down, pixel centres at whole numbers, in the original's coordinates. */
export type Point = readonly [x: number, y: number];

/** One round touch. */
export interface Dab {
  readonly kind: 'dab';
  readonly at: Point;
}

/** A stroke drawn by hand. */
export interface Stroke {
  readonly kind: 'stroke';
  readonly points: readonly Point[];
}

/**
 * Straight or bowed runs end to end. `bends[i]` is the sagitta of run i in pixels: how far its middle stands
 * off the straight line, positive to the right when walking along the run (y points down).
 */
export interface Chain {
  readonly kind: 'chain';
  readonly points: readonly Point[];
  readonly bends: readonly number[];
  /** Share of the stroke's width at every corner, 0..1; the whole width where it is left out. */
  readonly shares?: readonly number[] | undefined;
}

/** The area inside a closed line. */
export interface Outline {
  readonly kind: 'outline';
  readonly points: readonly Point[];
}

/** Whole pixels x..x+width-1, y..y+height-1. */
export interface Rectangle {
  readonly kind: 'rectangle';
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A site in one piece. */
export type SingleShape = Dab | Stroke | Chain | Outline | Rectangle;

/** Several sites mended as one, each with its own width. */
export interface Parts {
  readonly kind: 'parts';
  readonly parts: readonly { readonly shape: SingleShape; readonly width: number }[];
}

/** Geometry of the area a repair changes. */
export type SiteShape = SingleShape | Parts;

/** How a site is covered. */
export interface Brush {
  /** Full width of a stroke or dab, px, > 0; for areas it scales the feather. */
  readonly width: number;
  /** 0 hard .. 1 soft: share of the half width over which coverage falls to nothing. */
  readonly softness: number;
  /** 0..1: coverage one pass lays down. */
  readonly flow: number;
}

/** Whether a shape is drawn with a width, rather than enclosing an area. */
export function isLine(shape: SiteShape): shape is Dab | Stroke | Chain {
  return shape.kind === 'dab' || shape.kind === 'stroke' || shape.kind === 'chain';
}

/** The same shape, moved by dx, dy pixels. */
export function moveShape<S extends SiteShape>(shape: S, dx: number, dy: number): S {
  const move = ([x, y]: Point): Point => [x + dx, y + dy];
  const s: SiteShape = shape;
  if (s.kind === 'dab') return { ...s, at: move(s.at) } as SiteShape as S;
  if (s.kind === 'parts')
    return {
      ...s,
      parts: s.parts.map(({ shape, width }) => ({ shape: moveShape(shape, dx, dy), width })),
    } as SiteShape as S;
  if (s.kind === 'rectangle') return { ...s, x: s.x + dx, y: s.y + dy } as SiteShape as S;
  return { ...s, points: s.points.map(move) } as SiteShape as S;
}
