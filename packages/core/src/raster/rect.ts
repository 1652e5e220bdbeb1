import type { Raster } from './raster.js';
import { createRaster, depthOf } from './raster.js';

/** Whole pixels: covers x..x+width-1 and y..y+height-1. Empty when a side is 0. */
export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export const EMPTY_RECT: Rect = { x: 0, y: 0, width: 0, height: 0 };

export function isEmpty(r: Rect): boolean {
  return r.width <= 0 || r.height <= 0;
}

/** The pixels both hold; {@link EMPTY_RECT} when they do not meet. */
export function intersect(a: Rect, b: Rect): Rect {
  const x = Math.max(a.x, b.x);
  const y = Math.max(a.y, b.y);
  const width = Math.min(a.x + a.width, b.x + b.width) - x;
  const height = Math.min(a.y + a.height, b.y + b.height) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : EMPTY_RECT;
}

export function meets(a: Rect, b: Rect): boolean {
  return (
    !isEmpty(a) &&
    !isEmpty(b) &&
    a.x < b.x + b.width &&
    b.x < a.x + a.width &&
    a.y < b.y + b.height &&
    b.y < a.y + a.height
  );
}

/** `r` with `by` pixels more (or fewer, when negative) on every side. */
export function grow(r: Rect, by: number): Rect {
  return { x: r.x - by, y: r.y - by, width: r.width + 2 * by, height: r.height + 2 * by };
}

export function shift(r: Rect, dx: number, dy: number): Rect {
  return { x: r.x + dx, y: r.y + dy, width: r.width, height: r.height };
}

/** The smallest rectangle that holds both; an empty one adds nothing. */
export function unite(a: Rect, b: Rect): Rect {
  if (isEmpty(a)) return b;
  if (isEmpty(b)) return a;
  const x = Math.min(a.x, b.x);
  const y = Math.min(a.y, b.y);
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}

/** The smallest whole-pixel rectangle that holds the real-valued box. */
export function enclose(x0: number, y0: number, x1: number, y1: number): Rect {
  const x = Math.floor(x0);
  const y = Math.floor(y0);
  return { x, y, width: Math.ceil(x1) - x + 1, height: Math.ceil(y1) - y + 1 };
}

/** The whole of a raster. */
export function frameOf({ at = [0, 0], width, height }: Placed): Rect {
  return { x: at[0], y: at[1], width, height };
}

type Placed = Pick<Raster, 'width' | 'height' | 'at'>;

/** A copy of the pixels of `raster` in `rect`. @throws RangeError when `rect` reaches outside. */
export function crop(raster: Raster, rect: Rect): Raster {
  const { width, height, channels, data, at = [0, 0] } = raster;
  const [left, top] = [rect.x - at[0], rect.y - at[1]];
  if (left < 0 || top < 0 || left + rect.width > width || top + rect.height > height)
    throw new RangeError('crop reaches outside the raster');
  const out = createRaster(rect.width, rect.height, channels, depthOf(data));
  const run = rect.width * channels;
  for (let y = 0; y < rect.height; y++) {
    const from = ((top + y) * width + left) * channels;
    out.data.set(data.subarray(from, from + run), y * run);
  }
  return out;
}

/** A copy of a raster with a part of it replaced. @param place where the part lies; it must lie inside */
export function paste(raster: Raster, part: Raster, place: Rect): Raster {
  const { width, channels, at = [0, 0] } = raster;
  const data = raster.data.slice();
  const run = place.width * channels;
  for (let y = 0; y < place.height; y++)
    data.set(
      part.data.subarray(y * run, (y + 1) * run),
      ((place.y - at[1] + y) * width + place.x - at[0]) * channels,
    );
  return { ...raster, data };
}
