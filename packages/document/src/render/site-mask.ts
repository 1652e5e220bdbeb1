import type { Rect } from '@tersum/core';
import { coverageOf, intersect, meets } from '@tersum/core';
import type { SourceArea } from '../schema/fill.js';
import type { Repair } from '../schema/repair.js';
import { siteCoverage, siteRect } from './site-area.js';

/** 1 where any of the repairs' sites covers a pixel of `window`. */
export function siteMask(repairs: readonly Repair[], window: Rect, frame: Rect): Uint8Array {
  const mask = new Uint8Array(window.width * window.height);
  for (const repair of repairs)
    if (meets(siteRect(repair, frame), window)) mark(mask, window, siteCoverage(repair, frame), 1);
  return mask;
}

/** Bans and frees pixels of `window` area by area, in order. */
export function markAreas(
  banned: Uint8Array,
  window: Rect,
  areas: readonly SourceArea[],
  frame: Rect,
): void {
  for (const { allow, shape, width } of areas)
    mark(banned, window, coverageOf(shape, { width, softness: 0, flow: 1 }, frame), allow ? 0 : 1);
}

function mark(
  mask: Uint8Array,
  window: Rect,
  { rect, values }: { readonly rect: Rect; readonly values: Float32Array },
  as: 0 | 1,
): void {
  const common = intersect(rect, window);
  for (let y = common.y; y < common.y + common.height; y++)
    for (let x = common.x; x < common.x + common.width; x++)
      if (values[(y - rect.y) * rect.width + x - rect.x]! > 0)
        mask[(y - window.y) * window.width + x - window.x] = as;
}
