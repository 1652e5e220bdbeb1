import type { Point, Rect } from '@tersum/core';

/** What of the picture is on the table: the picture point in the middle, screen px a picture px, turn. */
export interface Viewport {
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
  /** Degrees, counter-clockwise on screen. */
  readonly turn: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

export const ZOOM_LIMITS = { least: 1 / 64, most: 32 } as const;

/** Screen point (CSS px from the table's top left) of a picture point. Pixel centres are at whole numbers. */
export function toScreen(view: Viewport, table: Size, [x, y]: Point): Point {
  const { cos, sin } = turnOf(view);
  const dx = (x - view.x) * view.zoom;
  const dy = (y - view.y) * view.zoom;
  return [table.width / 2 + cos * dx + sin * dy, table.height / 2 - sin * dx + cos * dy];
}

/** Picture point under a screen point. */
export function toPicture(view: Viewport, table: Size, [sx, sy]: Point): Point {
  const { cos, sin } = turnOf(view);
  const dx = (sx - table.width / 2) / view.zoom;
  const dy = (sy - table.height / 2) / view.zoom;
  return [view.x + cos * dx - sin * dy, view.y + sin * dx + cos * dy];
}

/** The whole picture, with a little room round it. @param picture its place too, where it does not begin at 0, 0 */
export function fitted(picture: Size & Partial<Rect>, table: Size, turn = 0): Viewport {
  const { cos, sin } = turnOf({ turn });
  const w = Math.abs(cos) * picture.width + Math.abs(sin) * picture.height;
  const h = Math.abs(sin) * picture.width + Math.abs(cos) * picture.height;
  const zoom = Math.min((table.width - 32) / w, (table.height - 32) / h);
  return {
    x: (picture.x ?? 0) + (picture.width - 1) / 2,
    y: (picture.y ?? 0) + (picture.height - 1) / 2,
    zoom: limitZoom(zoom),
    turn,
  };
}

/** Whether two viewports show the same. */
export function sameSight(a: Viewport, b: Viewport): boolean {
  return a.x === b.x && a.y === b.y && a.zoom === b.zoom && a.turn === b.turn;
}

/** Zooms by `factor`, the picture point under `at` staying where it is. */
export function zoomedAt(view: Viewport, table: Size, at: Point, factor: number): Viewport {
  const zoom = limitZoom(view.zoom * factor);
  const fixed = toPicture(view, table, at);
  const moved = toPicture({ ...view, zoom }, table, at);
  return { ...view, zoom, x: view.x + fixed[0] - moved[0], y: view.y + fixed[1] - moved[1] };
}

/** Moves the picture by a screen distance. */
export function panned(view: Viewport, dx: number, dy: number): Viewport {
  const { cos, sin } = turnOf(view);
  return {
    ...view,
    x: view.x - (cos * dx - sin * dy) / view.zoom,
    y: view.y - (sin * dx + cos * dy) / view.zoom,
  };
}

function limitZoom(zoom: number): number {
  return Math.min(ZOOM_LIMITS.most, Math.max(ZOOM_LIMITS.least, zoom));
}

function turnOf({ turn }: { readonly turn: number }): { cos: number; sin: number } {
  const a = (turn * Math.PI) / 180;
  return { cos: Math.cos(a), sin: Math.sin(a) };
}
