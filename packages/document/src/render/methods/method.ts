import type { Crew, DonorMap, Raster, Rect } from '@tersum/core';
import { crop, shift } from '@tersum/core';
import type { Repair } from '../../schema/repair.js';
import type { Patch } from '../patch.js';
import { sealPatch } from '../patch.js';

/** Everything a replay works from. */
export interface ReplayInput {
  readonly repair: Repair;
  /** The donor map a fill's search ended in; null for other methods. */
  readonly map: DonorMap | null;
  readonly original: Raster;
  /** Patches below the repair that meet what it reads, in order. */
  readonly below: readonly Patch[];
  /** Other pictures of the job that are copied from, as received, by their ids. */
  readonly elsewhere: Readonly<Record<string, Raster>>;
}

/** How one method is replayed. */
export interface MethodReplay {
  /** What it reads of this picture besides the site and its ring, clipped to the picture. */
  reads(repair: Repair, map: DonorMap | null, frame: Rect): Rect[];
  /** Decisions into pixels. The site must meet the picture. @param crew threads that may share the work @throws NothingToCopy */
  replay(input: ReplayInput, crew: Crew): Patch;
}

/** The site's part of a result, marked where anything was written. */
export function patchOf(result: Raster, window: Rect, coverage: Float32Array, site: Rect): Patch {
  const mask = new Uint8Array(site.width * site.height);
  for (let y = 0; y < site.height; y++)
    for (let x = 0; x < site.width; x++)
      if (coverage[(site.y + y - window.y) * window.width + site.x + x - window.x]! > 0)
        mask[y * site.width + x] = 1;
  return sealPatch(site, crop(result, shift(site, -window.x, -window.y)), mask);
}
