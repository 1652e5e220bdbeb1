import type { Raster, Rect, SiteTell, Task } from '@tersum/core';
import {
  checkpoint,
  digestText,
  EMPTY_RECT,
  frameOf,
  grow,
  intersect,
  leftoversOf,
  maskBox,
  REPEAT_STEP,
  repeatsIn,
  shift,
  sightIn,
  sitesOf,
  STRICTEST_LIMITS,
  tellsOfSite,
  unite,
} from '@tersum/core';
import type { Patch } from './patch.js';
import { compose, patchesIn } from './patch.js';

/** px beyond what is in sight that smoothing reads. */
const MARGIN = 48;
/** Raised whenever the same repair may be told otherwise than before. */
const PROOF_VERSION = 3;

/** Names, patch by patch, what its tells depend on: an unchanged name means unchanged tells. */
export function proofNames(patches: readonly Patch[], original: string, frame: Rect): string[] {
  return patches.map((patch) => {
    const near = patchesIn(patches, sightOf(patch, frame));
    return digestText(
      `${PROOF_VERSION} ${original} ${patch.digest} ${near.map((p) => p.digest).join(' ')}`,
    );
  });
}

/** Names what the tells of the whole picture depend on. */
export function proofNameOfWhole(patches: readonly Patch[], original: string): string {
  return digestText(`${PROOF_VERSION} ${original} ${patches.map((p) => p.digest).join(' ')}`);
}

/** Cuts work into `parts` bands of the picture, so that what is made ready for one is shared by its patches. */
export function proofBands(
  patches: readonly Patch[],
  due: readonly number[],
  parts: number,
): number[][] {
  const order = [...due].sort((a, b) => patches[a]!.rect.y - patches[b]!.rect.y);
  const each = Math.ceil(order.length / parts);
  return Array.from({ length: parts }, (_, k) => order.slice(k * each, (k + 1) * each)).filter(
    (band) => band.length,
  );
}

/**
 * What gives repairs of a picture away, in the picture's places, by the strictest limits there are.
 * @param due the patches that are asked for
 * @returns the tells of each of them, in the order of `due`
 */
export function proofOf(
  original: Raster,
  patches: readonly Patch[],
  due: readonly number[],
  task?: Task,
): SiteTell[][] {
  const frame = frameOf(original);
  const region = onGrid(
    due.reduce<Rect>((all, k) => unite(all, sightOf(patches[k]!, frame)), EMPTY_RECT),
    frame,
  );
  const picture = compose(original, patches, region);
  const changed = new Uint8Array(region.width * region.height);
  // The last one that wrote a pixel, counted from 1.
  const topmost = new Uint16Array(changed.length);
  patches.forEach((patch, k) => {
    for (const p of pixelsOf(patch, region)) [changed[p], topmost[p]] = [1, k + 1];
  });
  const sites = due.map((k) => {
    const { mask, rect } = patches[k]!;
    return sitesOf(mask, rect.width)
      .map((part) => part.map((p) => placeOf(p, rect, region)))
      .filter((pixels) => isSeen(pixels, topmost, k + 1));
  });
  const repeats = repeatsIn(picture, sites.flat(), sightIn(original));
  let at = 0;
  return sites.map((own, step) => {
    checkpoint(task, step / due.length);
    const measured = own.flatMap((pixels) =>
      tellsOfSite(picture, pixels, changed, repeats[at++]!, STRICTEST_LIMITS),
    );
    const left = leftoversOf(picture, own, STRICTEST_LIMITS).map(({ site: _, ...tell }) => tell);
    return [...measured, ...left].map((tell) => ({
      ...tell,
      box: shift(tell.box, region.x, region.y),
      ...(tell.twin ? { twin: shift(tell.twin, region.x, region.y) } : {}),
    }));
  });
}

/** The rectangle grown to the left and top until it begins on the grid of repeats. */
function onGrid({ x, y, width, height }: Rect, frame: Rect): Rect {
  const [left, top] = [(x - frame.x) % REPEAT_STEP, (y - frame.y) % REPEAT_STEP];
  return { x: x - left, y: y - top, width: width + left, height: height + top };
}

function sightOf({ rect, mask }: Patch, frame: Rect): Rect {
  const own = maskBox(mask, rect.width);
  if (!own) return EMPTY_RECT;
  return intersect(grow(shift(own, rect.x, rect.y), sightIn(frame) + MARGIN), frame);
}

/** Whether a site is still to be seen for the most part: what another repair covers is that one's. */
function isSeen(pixels: Int32Array, topmost: Uint16Array, own: number): boolean {
  return 2 * pixels.reduce((n, p) => n + (topmost[p] === own ? 1 : 0), 0) > pixels.length;
}

/** What a patch wrote within a region, as places of the region. */
function* pixelsOf({ rect, mask }: Patch, region: Rect): Generator<number> {
  const common = intersect(rect, region);
  for (let y = common.y; y < common.y + common.height; y++)
    for (let x = common.x; x < common.x + common.width; x++)
      if (mask[(y - rect.y) * rect.width + x - rect.x])
        yield (y - region.y) * region.width + x - region.x;
}

function placeOf(p: number, rect: Rect, region: Rect): number {
  const [x, y] = [p % rect.width, Math.floor(p / rect.width)];
  return (rect.y + y - region.y) * region.width + rect.x + x - region.x;
}
