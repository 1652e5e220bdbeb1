import type { Raster, Rect } from '@tersum/core';
import { crop } from '@tersum/core';
import type { Patch } from './patch.js';
import type { TileCache, TilePlace } from './tiles.js';
import { repairedTile, touchedPart } from './tiles.js';

/** What changed in one tile: `pixels` replace `rect` of it. */
export interface TilePart {
  readonly place: TilePlace;
  /** In the tile's own pixels. */
  readonly rect: Rect;
  readonly pixels: Raster;
}

/** The patches that only one of two states has, in the order of either: what lies outside them looks alike in both. */
export function differingPatches(before: readonly Patch[], now: readonly Patch[]): Patch[] {
  let first = 0;
  while (first < before.length && before[first]?.digest === now[first]?.digest) first++;
  let last = 0;
  const most = Math.min(before.length, now.length) - first;
  while (last < most && before.at(-1 - last)!.digest === now.at(-1 - last)!.digest) last++;
  return [...before.slice(first, before.length - last), ...now.slice(first, now.length - last)];
}

/**
 * The changed part of a tile, cut out of the tile as it looks now.
 * @param changed {@link differingPatches} of the state shown before and this one
 * @returns null when nothing in the tile changed
 */
export function tilePart(
  original: Raster,
  pyramid: readonly Raster[],
  patches: readonly Patch[],
  changed: readonly Patch[],
  place: TilePlace,
  kept: TileCache,
): TilePart | null {
  const rect = touchedPart(original, changed, place);
  if (!rect) return null;
  return {
    place,
    rect,
    pixels: crop(repairedTile(original, pyramid, patches, place, kept), rect),
  };
}
