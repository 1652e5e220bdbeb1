import type { FreshPart, TileCache } from '@tersum/document';
import { differingPatches, placeOf, tilePart } from '@tersum/document';
import type { Shown } from './shown.js';

/** Samples that travel with the news of a view at most; more is quicker asked for by tile. */
const MOST_SAMPLES = 1_500_000;

/**
 * The pixels by which the tiles on somebody's screen differ from what was shown there before.
 * @param names tiles on screen, the one asked for last first
 */
export function freshParts(
  before: Shown | undefined,
  now: Shown,
  names: readonly string[],
  kept: TileCache,
): FreshPart[] {
  const { view, tiled } = now;
  const { raster, pyramid, patches } = tiled;
  // On another base every pixel may be another.
  if (before && before.name !== now.name) return [];
  const changed = differingPatches(before?.tiled.patches ?? [], patches);
  const parts: FreshPart[] = [];
  let room = MOST_SAMPLES;
  for (const name of names) {
    const was = before?.view.tiles[name] ?? view.base;
    const key = view.tiles[name] ?? view.base;
    if (was === key) continue;
    const part = tilePart(raster, pyramid, patches, changed, placeOf(name), kept);
    if (!part) continue;
    const { rect, pixels } = part;
    room -= pixels.data.length;
    if (room < 0) break;
    const samples = Buffer.from(pixels.data.buffer, pixels.data.byteOffset, pixels.data.length);
    parts.push({
      place: name,
      before: was,
      now: key,
      ...rect,
      samples: samples.toString('base64'),
    });
  }
  return parts;
}
