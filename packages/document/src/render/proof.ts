import type { Raster, Task, Tell } from '@tersum/core';
import { frameOf, sitesOf, tellsOf } from '@tersum/core';
import type { Patch } from './patch.js';
import { compose } from './patch.js';

/** A tell and the repair it gives away. */
export interface RepairTell extends Omit<Tell, 'site'> {
  readonly repair: string;
}

/**
 * What gives the repairs of a picture away.
 * @param owners the repair each patch belongs to
 */
export function proofOf(
  original: Raster,
  patches: readonly Patch[],
  owners: readonly string[],
  task?: Task,
): RepairTell[] {
  const picture = compose(original, patches, frameOf(original));
  const sites: Int32Array[] = [];
  const repairs: string[] = [];
  patches.forEach(({ rect, mask }, k) => {
    for (const part of sitesOf(mask, rect.width)) {
      sites.push(
        part.map(
          (p) => (rect.y + Math.floor(p / rect.width)) * original.width + rect.x + (p % rect.width),
        ),
      );
      repairs.push(owners[k]!);
    }
  });
  return tellsOf(picture, sites, undefined, task).map(({ site, ...tell }) => ({
    ...tell,
    repair: repairs[site]!,
  }));
}
