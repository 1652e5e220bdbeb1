import type { Fetched, Point, Raster, Rect } from '@tersum/core';
import {
  convertRaster,
  createRaster,
  crop,
  depthOf,
  frameOf,
  isEmpty,
  NothingToCopy,
  placementMap,
  resample,
  resampleReads,
} from '@tersum/core';
import type { Donor } from '../../schema/donor.js';
import { compose, patchesIn } from '../patch.js';
import type { ReplayInput } from './method.js';

/** The picture a donor lies in when it is another one of the job. @throws NothingToCopy when it is gone */
export function elsewhereOf({ elsewhere, original }: ReplayInput, picture: string): Raster {
  const found = elsewhere[picture];
  if (!found) throw new NothingToCopy('The picture this repair copies from is not in the job.');
  return convertRaster(found, original.channels, depthOf(original.data));
}

/** The donor's pixels in register with `window`, and where they exist. */
export function donorWindow(
  input: ReplayInput,
  donor: Donor,
  middle: Point,
  window: Rect,
): Fetched {
  const { original, below } = input;
  const other = donor.picture === null ? null : elsewhereOf(input, donor.picture);
  const frame = frameOf(other ?? original);
  const map = placementMap(donor, middle);
  const reads = resampleReads(map, window, frame);
  if (isEmpty(reads))
    return {
      raster: createRaster(window.width, window.height, original.channels, depthOf(original.data)),
      valid: new Uint8Array(window.width * window.height),
    };
  const source = other ? crop(other, reads) : compose(original, patchesIn(below, reads), reads);
  return resample(source, reads, map, window, frame);
}

/** What {@link donorWindow} reads of this picture. */
export function donorReads(donor: Donor, middle: Point, window: Rect, frame: Rect): Rect[] {
  if (donor.picture !== null) return [];
  return [resampleReads(placementMap(donor, middle), window, frame)];
}
