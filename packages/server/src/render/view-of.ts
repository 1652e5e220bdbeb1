import type { Rect } from '@tersum/core';
import { digestText } from '@tersum/core';
import type { Rendering, View } from '@tersum/document';
import { touchedTiles } from '@tersum/document';
import type { Tiled } from './shown.js';

/** What the page is told of a rendering. @param name names what tiles of a prepared or widened picture are told apart by; empty for the original's */
export function viewOf(
  version: number,
  { raster, patches }: Tiled,
  canvas: Rect,
  rendering: Rendering,
  name: string,
): View {
  const touched = touchedTiles(raster, patches);
  const base = name && digestText(name).slice(0, 12);
  return {
    version,
    base: base || 'original',
    canvas,
    tiles: base
      ? Object.fromEntries(Object.entries(touched).map(([place, key]) => [place, base + key]))
      : touched,
    donorChanged: rendering.rendered.filter((r) => r.donorChanged).map((r) => r.repairId),
    failed: Object.fromEntries(rendering.failed.map((f) => [f.repairId, f.message])),
    unsure: Object.fromEntries(
      rendering.rendered.filter((r) => r.unsure.length).map((r) => [r.repairId, [...r.unsure]]),
    ),
  };
}
