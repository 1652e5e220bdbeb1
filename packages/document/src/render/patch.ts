import type { Raster, Rect } from '@tersum/core';
import { crop, digest, intersect, meets, sampleBytes } from '@tersum/core';

/** The pixels one repair ends in: `samples` replace what lies below wherever `mask` is set. */
export interface Patch {
  readonly rect: Rect;
  /** rect.width x rect.height */
  readonly samples: Raster;
  /** 1 where the repair wrote, one byte a pixel. */
  readonly mask: Uint8Array;
  /** Names the content: patches of equal digest are equal. */
  readonly digest: string;
}

/** Completes a patch with the digest of its content. */
export function sealPatch(rect: Rect, samples: Raster, mask: Uint8Array): Patch {
  const { data } = samples;
  const bytes = sampleBytes(data);
  const place = `${rect.x},${rect.y},${rect.width},${rect.height}`;
  return { rect, samples, mask, digest: `${place}:${digest(bytes)}${digest(mask)}` };
}

/** The picture in `rect` with patches laid over it in order. Where none has written, the original's samples. */
export function compose(original: Raster, patches: readonly Patch[], rect: Rect): Raster {
  const out = crop(original, rect);
  const { channels } = out;
  for (const patch of patches) {
    const common = intersect(patch.rect, rect);
    for (let y = common.y; y < common.y + common.height; y++) {
      let from = (y - patch.rect.y) * patch.rect.width + common.x - patch.rect.x;
      let to = ((y - rect.y) * rect.width + common.x - rect.x) * channels;
      for (let x = 0; x < common.width; x++, from++, to += channels) {
        if (!patch.mask[from]) continue;
        for (let c = 0; c < channels; c++)
          out.data[to + c] = patch.samples.data[from * channels + c]!;
      }
    }
  }
  return out;
}

/** The patches that meet `rect`, in order. */
export function patchesIn<P extends { readonly rect: Rect }>(
  patches: readonly P[],
  rect: Rect,
): P[] {
  return patches.filter((p) => meets(p.rect, rect));
}
