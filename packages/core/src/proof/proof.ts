import type { Raster } from '../raster/raster.js';
import { colourChannels } from '../raster/raster.js';
import { partsOf } from '../shape/parts.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import { detailOf } from './detail-tell.js';
import { jumpOf } from './line-tell.js';
import type { Repeat } from './repeat-tell.js';
import { repeatsIn } from './repeat-tell.js';
import { seamStep } from './seam-tell.js';
import { boxOf, siteWindow } from './site-window.js';
import type { SiteTell, Tell, TellLimits } from './tell.js';
import { isBeyond, TELL_LIMITS } from './tell.js';
import { toneStep } from './tone-tell.js';

/** Sites of fewer pixels tell nothing. */
const LEAST = 12;

/** Unconnected sites of a mask, large enough to be measured. */
export function sitesOf(mask: Uint8Array, width: number): Int32Array[] {
  return partsOf(mask, width).filter((part) => part.length >= LEAST);
}

/** Where two pictures of one size differ. @throws RangeError when they do not have one size */
export function changedBetween(before: Raster, after: Raster): Uint8Array {
  if (before.width !== after.width || before.height !== after.height)
    throw new RangeError(
      `before is ${before.width} x ${before.height} px, after ${after.width} x ${after.height}; proof compares pictures of one size`,
    );
  const colours = Math.min(colourChannels(before.channels), colourChannels(after.channels));
  const mask = new Uint8Array(after.width * after.height);
  for (let p = 0; p < mask.length; p++)
    for (let c = 0; c < colours; c++)
      if (before.data[p * before.channels + c] !== after.data[p * after.channels + c]) mask[p] = 1;
  return mask;
}

/** What gives repairs away in a picture, worst of a site first: every measure beyond its limit. */
export function tellsOf(
  picture: Raster,
  sites: readonly Int32Array[],
  limits: TellLimits = TELL_LIMITS,
  task?: Task,
): Tell[] {
  const changed = new Uint8Array(picture.width * picture.height);
  for (const site of sites) for (const p of site) changed[p] = 1;
  if (!sites.length) return [];
  const repeats = repeatsIn(picture, sites);
  return sites.flatMap((pixels, site) => {
    checkpoint(task, site / sites.length);
    return tellsOfSite(picture, pixels, changed, repeats[site]!, limits).map((t) => ({
      ...t,
      site,
    }));
  });
}

/**
 * What gives one site away.
 * @param pixels of the site @param changed 1 = changed by any site, a value a pixel of the picture
 * @param repeat what of it is seen twice; see {@link repeatsIn}
 */
export function tellsOfSite(
  picture: Raster,
  pixels: Int32Array,
  changed: Uint8Array,
  repeat: Repeat | null,
  limits: TellLimits = TELL_LIMITS,
): SiteTell[] {
  const tells: SiteTell[] = [];
  const window = siteWindow(picture, pixels, changed);
  const box = boxOf(pixels, picture.width);
  const add = (tell: Pick<SiteTell, 'kind' | 'value'> & Partial<SiteTell>): void => {
    const limit = limits[tell.kind];
    if (isBeyond(tell.kind, tell.value, limit)) tells.push({ box, limit, ...tell });
  };
  add({ kind: 'tone', value: toneStep(window) });
  add({ kind: 'seam', value: seamStep(window) });
  const { softness, grain } = detailOf(window);
  add({ kind: 'softness', value: softness });
  add({ kind: 'grain', value: grain });
  const jump = jumpOf(window);
  if (jump) add({ kind: 'broken-line', value: jump.px, box: jump.box });
  if (repeat)
    add({
      kind: 'repeat',
      value: repeat.px,
      box: repeat.box,
      twin: repeat.twin,
      ...(repeat.faint ? { faint: true } : {}),
    });
  return tells;
}
