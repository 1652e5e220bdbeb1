import type { Rect } from '../raster/rect.js';
import { EMPTY_RECT, enclose, intersect, isEmpty, unite } from '../raster/rect.js';
import { eachNear, eachPass, nearness } from './nearness.js';
import { pathOf, sharesAlong } from './path.js';
import type { Brush, Parts, Point, SiteShape } from './site.js';
import { isLine } from './site.js';

/** How much of each pixel of `rect` a site covers, row by row, 0..1. */
export interface Coverage {
  readonly rect: Rect;
  readonly values: Float32Array;
}

/**
 * Turns geometry into coverage; everything that needs a site's pixels uses this one function.
 * Hard borders fall over one pixel. Softness widens the fall inwards, so the site never grows with it.
 * @param frame the picture; coverage is clipped to it
 */
export function coverageOf(shape: SiteShape, brush: Brush, frame: Rect): Coverage {
  if (shape.kind === 'parts') return coverParts(shape, brush, frame);
  const rect = intersect(extentOf(shape, brush), frame);
  const values = new Float32Array(rect.width * rect.height);
  if (isEmpty(rect)) return { rect, values };
  const path = pathOf(shape);
  const shares = sharesAlong(shape);
  if (shares) coverTapered(values, rect, path, shares, brush);
  else if (isLine(shape)) coverLine(values, rect, path, brush);
  else coverArea(values, rect, path, brush);
  return { rect, values };
}

/** A rectangle that holds every pixel the site can cover, not clipped. */
export function extentOf(shape: SiteShape, brush: Brush): Rect {
  if (shape.kind === 'parts')
    return shape.parts
      .map((part) => extentOf(part.shape, { ...brush, width: part.width }))
      .reduce(unite, EMPTY_RECT);
  const reach = isLine(shape) ? brush.width / 2 + 1 : 1;
  let x0 = Infinity;
  let y0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  for (const [x, y] of pathOf(shape)) {
    x0 = Math.min(x0, x);
    y0 = Math.min(y0, y);
    x1 = Math.max(x1, x);
    y1 = Math.max(y1, y);
  }
  return enclose(x0 - reach, y0 - reach, x1 + reach, y1 + reach);
}

/** Pixels with any coverage at all: 1 inside, 0 outside. */
export function supportOf(coverage: Coverage): Uint8Array {
  const { values } = coverage;
  const support = new Uint8Array(values.length);
  for (let p = 0; p < values.length; p++) if (values[p]! > 0) support[p] = 1;
  return support;
}

/** What any of the parts covers most. */
function coverParts({ parts }: Parts, brush: Brush, frame: Rect): Coverage {
  const all = parts.map((part) => coverageOf(part.shape, { ...brush, width: part.width }, frame));
  const rect = all.map((c) => c.rect).reduce(unite, EMPTY_RECT);
  const values = new Float32Array(rect.width * rect.height);
  for (const part of all) {
    const { x, y, width, height } = part.rect;
    for (let row = 0, k = 0; row < height; row++) {
      let p = (y + row - rect.y) * rect.width + x - rect.x;
      for (let i = 0; i < width; i++, k++, p++)
        if (part.values[k]! > values[p]!) values[p] = part.values[k]!;
    }
  }
  return { rect, values };
}

/** A line that passes a pixel n times with flow f covers 1 - (1 - f)^n of it. */
function coverLine(values: Float32Array, rect: Rect, path: readonly Point[], brush: Brush): void {
  const radius = brush.width / 2;
  const outer = radius + 0.5;
  const inner = Math.max(0, radius * (1 - brush.softness) - 0.5);
  const one = (square: number): number =>
    square >= outer * outer ? 0 : brush.flow * ease((outer - Math.sqrt(square)) / (outer - inner));
  if (brush.flow < 1 && path.length > 2)
    return eachPass(path, rect, outer, (p, square) => {
      values[p]! += (1 - values[p]!) * one(square);
    });
  const squares = nearness(path, false, rect, outer);
  for (let i = 0; i < values.length; i++) values[i] = one(squares[i]!);
}

/** A line whose width changes along it: a pixel is covered as the piece that covers it most does. */
function coverTapered(
  values: Float32Array,
  rect: Rect,
  path: readonly Point[],
  shares: readonly number[],
  brush: Brush,
): void {
  eachNear(path, rect, brush.width / 2 + 0.5, (p, square, at) => {
    const k = Math.min(shares.length - 2, Math.floor(at));
    const share = shares[k]! + (at - k) * (shares[k + 1]! - shares[k]!);
    const radius = (share * brush.width) / 2;
    const outer = radius + 0.5;
    if (square >= outer * outer) return;
    const inner = Math.max(0, radius * (1 - brush.softness) - 0.5);
    const cover = brush.flow * ease((outer - Math.sqrt(square)) / (outer - inner));
    if (cover > values[p]!) values[p] = cover;
  });
}

function coverArea(values: Float32Array, rect: Rect, path: readonly Point[], brush: Brush): void {
  if (path.length < 3) return;
  const feather = (brush.softness * brush.width) / 2;
  const squares = nearness(path, true, rect, feather + 1);
  const inside = insideOf(path, rect);
  for (let i = 0; i < values.length; i++) {
    const distance = Math.sqrt(squares[i]!);
    const depth = inside[i] ? distance : -distance;
    values[i] = brush.flow * ease((depth + 0.5) / (feather + 1));
  }
}

/** 0 below 0, 1 above 1, smooth between. */
function ease(t: number): number {
  if (t <= 0) return 0;
  return t >= 1 ? 1 : t * t * (3 - 2 * t);
}

/** Even-odd rule at pixel centres. */
function insideOf(path: readonly Point[], rect: Rect): Uint8Array {
  const inside = new Uint8Array(rect.width * rect.height);
  const crossings: number[] = [];
  for (let row = 0; row < rect.height; row++) {
    const y = rect.y + row;
    crossings.length = 0;
    for (let i = 0, j = path.length - 1; i < path.length; j = i++) {
      const [xi, yi] = path[i]!;
      const [xj, yj] = path[j]!;
      if (yi > y !== yj > y) crossings.push(xi + ((y - yi) / (yj - yi)) * (xj - xi));
    }
    crossings.sort((a, b) => a - b);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const from = Math.max(0, Math.ceil(crossings[k]! - rect.x));
      const to = Math.min(rect.width - 1, Math.floor(crossings[k + 1]! - rect.x));
      for (let x = from; x <= to; x++) inside[row * rect.width + x] = 1;
    }
  }
  return inside;
}

/** Coverage over another rectangle: 0 where it was not known. */
export function subCoverage({ rect, values }: Coverage, window: Rect): Float32Array {
  const out = new Float32Array(window.width * window.height);
  const common = intersect(rect, window);
  for (let y = common.y; y < common.y + common.height; y++) {
    const from = (y - rect.y) * rect.width + common.x - rect.x;
    const to = (y - window.y) * window.width + common.x - window.x;
    out.set(values.subarray(from, from + common.width), to);
  }
  return out;
}

/** Coverage at any point, linear between pixel centres. */
export function sampleCoverage({ rect, values }: Coverage, [x, y]: Point): number {
  const u = x - rect.x;
  const v = y - rect.y;
  const x0 = Math.floor(u);
  const y0 = Math.floor(v);
  if (x0 < -1 || y0 < -1 || x0 >= rect.width || y0 >= rect.height) return 0;
  const at = (i: number, j: number): number =>
    i < 0 || j < 0 || i >= rect.width || j >= rect.height ? 0 : values[j * rect.width + i]!;
  const a = u - x0;
  const b = v - y0;
  return (
    (1 - b) * ((1 - a) * at(x0, y0) + a * at(x0 + 1, y0)) +
    b * ((1 - a) * at(x0, y0 + 1) + a * at(x0 + 1, y0 + 1))
  );
}
