import type { Raster, Rect } from '@tersum/core';
import { createRaster, depthOf, EMPTY_RECT, intersect, isEmpty, unite } from '@tersum/core';
import type { Records } from '../schema/records.js';
import { layersInOrder } from './order.js';
import type { Patch } from './patch.js';

/** What one repair layer lays over what is below. */
export interface PatchLayer {
  readonly name: string;
  readonly patches: readonly Patch[];
}

/** Patches by the repair layers they belong to, the lowest first. @param owners the repair each patch belongs to */
export function patchLayers(
  records: Records,
  owners: readonly string[],
  patches: readonly Patch[],
): PatchLayer[] {
  const layerOfRepair = new Map(records.repairs.map((r) => [r.id, r.layerId]));
  return layersInOrder(records).map(({ id, name }) => ({
    name,
    patches: patches.filter((_, k) => layerOfRepair.get(owners[k]!) === id),
  }));
}

/** A layer's pixels in one piece; null when it has none. */
export function layerOf(
  original: Raster,
  patches: readonly Patch[],
): { rect: Rect; samples: Raster; mask: Uint8Array } | null {
  const rect = patches.map((p) => p.rect).reduce(unite, EMPTY_RECT);
  if (isEmpty(rect)) return null;
  const { channels } = original;
  const samples = createRaster(rect.width, rect.height, channels, depthOf(original.data));
  const mask = new Uint8Array(rect.width * rect.height);
  for (const patch of patches) {
    const common = intersect(patch.rect, rect);
    for (let y = common.y; y < common.y + common.height; y++)
      for (let x = common.x; x < common.x + common.width; x++) {
        const from = (y - patch.rect.y) * patch.rect.width + x - patch.rect.x;
        if (!patch.mask[from]) continue;
        const to = (y - rect.y) * rect.width + x - rect.x;
        mask[to] = 1;
        for (let c = 0; c < channels; c++)
          samples.data[to * channels + c] = patch.samples.data[from * channels + c]!;
      }
  }
  return { rect, samples, mask };
}
