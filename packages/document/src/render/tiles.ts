import type { Raster, Rect } from '@tersum/core';
import {
  EMPTY_RECT,
  crop,
  digestText,
  frameOf,
  halveForDisplay,
  intersect,
  isEmpty,
  toDisplay,
  unite,
} from '@tersum/core';
import type { Patch } from './patch.js';
import { compose, patchesIn } from './patch.js';

/** Side of a display tile, px: small, since a short stroke is sent again in whole tiles. */
export const TILE = 256;

/** Place of a tile: level 0 is full size, each level half the one before. */
export interface TilePlace {
  readonly level: number;
  readonly column: number;
  readonly row: number;
}

/** Width and height of a level, px. */
export function levelSize(
  size: { readonly width: number; readonly height: number },
  level: number,
): { width: number; height: number } {
  let { width, height } = size;
  for (let k = 0; k < level; k++) {
    width = Math.ceil(width / 2);
    height = Math.ceil(height / 2);
  }
  return { width, height };
}

/** Levels of the display pyramid: the last one fits a tile. */
export function levelCount(size: { readonly width: number; readonly height: number }): number {
  let levels = 1;
  let longest = Math.max(size.width, size.height);
  while (longest > TILE) {
    longest = Math.ceil(longest / 2);
    levels++;
  }
  return levels;
}

/** Pixels of its own level that a tile shows; empty outside the picture. */
export function tileRect(
  size: { readonly width: number; readonly height: number },
  { level, column, row }: TilePlace,
): Rect {
  const { width, height } = levelSize(size, level);
  return intersect(
    { x: column * TILE, y: row * TILE, width: TILE, height: TILE },
    { x: 0, y: 0, width, height },
  );
}

/** Full-size pixels a tile stands for. */
export function tileFootprint(
  size: { readonly width: number; readonly height: number },
  place: TilePlace,
): Rect {
  const scale = 2 ** place.level;
  const side = TILE * scale;
  return intersect(
    { x: place.column * side, y: place.row * side, width: side, height: side },
    { x: 0, y: 0, width: size.width, height: size.height },
  );
}

/** Name of a tile in messages and caches. */
export function tileName({ level, column, row }: TilePlace): string {
  return `${level}/${column}/${row}`;
}

/** The place a name made by {@link tileName} stands for. */
export function placeOf(name: string): TilePlace {
  const [level, column, row] = name.split('/').map(Number) as [number, number, number];
  return { level, column, row };
}

/** Every tile that patches touch, with a key that names its content. */
export function touchedTiles(
  size: { readonly width: number; readonly height: number },
  patches: readonly Patch[],
): Record<string, string> {
  const names = new Map<string, string[]>();
  const levels = levelCount(size);
  for (const patch of patches) {
    for (let level = 0; level < levels; level++) {
      const side = TILE * 2 ** level;
      const { rect } = patch;
      for (let row = Math.floor(rect.y / side); row * side < rect.y + rect.height; row++)
        for (
          let column = Math.floor(rect.x / side);
          column * side < rect.x + rect.width;
          column++
        ) {
          const name = tileName({ level, column, row });
          const list = names.get(name);
          if (list) list.push(patch.digest);
          else names.set(name, [patch.digest]);
        }
    }
  }
  const touched: Record<string, string> = {};
  for (const [name, digests] of names) touched[name] = digestText(digests.join(' '));
  return touched;
}

/** The untouched picture's display levels, full size first. */
export function displayPyramid(original: Raster): Raster[] {
  const levels = [toDisplay(original)];
  for (let k = 1; k < levelCount(original); k++) levels.push(halveForDisplay(levels[k - 1]!));
  return levels;
}

/** A whole level of the repaired picture, put together from its tiles. */
export function repairedLevel(
  original: Raster,
  pyramid: readonly Raster[],
  patches: readonly Patch[],
  level: number,
  kept: TileCache = new Map<string, Raster>(),
): Raster {
  const out = crop(pyramid[level]!, frameOf(pyramid[level]!));
  const { channels, width } = out;
  for (let row = 0; row * TILE < out.height; row++) {
    for (let column = 0; column * TILE < width; column++) {
      const place = { level, column, row };
      if (!patchesIn(patches, tileFootprint(original, place)).length) continue;
      const tile = repairedTile(original, pyramid, patches, place, kept);
      const run = tile.width * channels;
      for (let y = 0; y < tile.height; y++)
        out.data.set(
          tile.data.subarray(y * run, (y + 1) * run),
          ((row * TILE + y) * width + column * TILE) * channels,
        );
    }
  }
  return out;
}

/** Keeps made tiles by name. */
export interface TileCache {
  get(name: string): Raster | undefined;
  set(name: string, tile: Raster): void;
}

/**
 * Pixels of one tile of the repaired picture, 8-bit. Parts no patch touches come from the original's levels.
 * @param pyramid {@link displayPyramid} of the original
 * @param kept tiles made before, named by place and content; new ones are added
 */
export function repairedTile(
  original: Raster,
  pyramid: readonly Raster[],
  patches: readonly Patch[],
  place: TilePlace,
  kept: TileCache = new Map<string, Raster>(),
): Raster {
  const footprint = tileFootprint(original, place);
  const rect = tileRect(original, place);
  const here = patchesIn(patches, footprint);
  if (!here.length) return crop(pyramid[place.level]!, rect);
  const name = `${tileName(place)} ${digestText(here.map((p) => p.digest).join(' '))}`;
  const known = kept.get(name);
  if (known) return known;
  const tile =
    place.level === 0
      ? toDisplay(compose(original, here, rect))
      : fromChildren(original, pyramid, here, place, rect, kept);
  kept.set(name, tile);
  return tile;
}

function fromChildren(
  original: Raster,
  pyramid: readonly Raster[],
  patches: readonly Patch[],
  place: TilePlace,
  rect: Rect,
  kept: TileCache,
): Raster {
  const out = crop(pyramid[place.level]!, rect);
  const { channels } = out;
  const level = place.level - 1;
  for (let k = 0; k < 4; k++) {
    const child = { level, column: 2 * place.column + (k & 1), row: 2 * place.row + (k >> 1) };
    const touched = touchedPart(original, patches, child);
    if (!touched) continue;
    const half = halveForDisplay(
      crop(repairedTile(original, pyramid, patches, child, kept), touched),
    );
    const x = (k & 1) * (TILE / 2) + touched.x / 2;
    const y = (k >> 1) * (TILE / 2) + touched.y / 2;
    const run = half.width * channels;
    for (let row = 0; row < half.height; row++)
      out.data.set(
        half.data.subarray(row * run, (row + 1) * run),
        ((y + row) * out.width + x) * channels,
      );
  }
  return out;
}

/** The part of a tile, in its own pixels, that patches may have changed, in whole 2x2 cells; null when none. */
export function touchedPart(
  original: Raster,
  patches: readonly Patch[],
  place: TilePlace,
): Rect | null {
  const footprint = tileFootprint(original, place);
  const box = patches.reduce((all, p) => unite(all, intersect(p.rect, footprint)), EMPTY_RECT);
  if (isEmpty(box)) return null;
  const rect = tileRect(original, place);
  const cell = 2 ** (place.level + 1);
  const from = (v: number, start: number): number => 2 * Math.floor((v - start) / cell);
  const to = (v: number, start: number): number => 2 * Math.ceil((v - start) / cell);
  const x = from(box.x, footprint.x);
  const y = from(box.y, footprint.y);
  return {
    x,
    y,
    width: Math.min(rect.width, to(box.x + box.width, footprint.x)) - x,
    height: Math.min(rect.height, to(box.y + box.height, footprint.y)) - y,
  };
}
