import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect } from '../raster/rect.js';
import { solveLevels } from '../solve/multigrid.js';
import type { LaidCopies } from './laid-copies.js';
import type { LaidPart, PartRoom } from './laid-part.js';
import { openParts } from './laid-part.js';

/** Keeps large sites from drifting where hardly anything ties them to their ring. */
const LEAST_TIE = 1e-4;
/** How much a step at the ring counts beside one within the site. */
export const RIM = 8;
/** Steps that differ by so much of the range across a joint tell that one thing ends there and another begins. */
export const ENDS = 1 / 8;
/** Corrections of so much of the range are no matter of tone: where slopes are copied again and again, they add up. */
export const DRIFT = 0.16;
/** The same for what changes the colour alone: leaves beside bare soil are no light that falls on it. */
export const TINT = 0.02;
/** What then ties pixels to their copied tone. */
export const HELD = 4e-3;

/**
 * Copies the site pixels in some boxes and evens their tone across seams and at the ring, in the gradient domain: towards the
 * ring's values where a pixel meets the ring (the donor's own step or that from the copied tone, whichever is smaller), and
 * towards each neighbour by the step its source shows; where the neighbour comes from elsewhere, by the mean of both
 * sources' steps, the less of it the less both agree, lest the tone of the one thing run into the other. What drifts far
 * from its copied tone is tied to it. Becomes the copies' colour.
 * @param adapt 0 = the copied tone stays, 1 = it follows the surroundings wholly
 */
export function evenTones(copies: LaidCopies, boxes: readonly Rect[], adapt: number): void {
  if (!boxes.length) return;
  // The solve needs the site and its ring only, however far the sources lie.
  const frame = frameOf(copies.picture);
  const parts = openParts(
    copies,
    boxes.map((box) => intersect(grow(box, 1), frame)),
  );
  for (let k = 0; k < boxes.length; k++) evenPart(copies, parts, parts.lay(k), adapt);
}

function evenPart(
  copies: LaidCopies,
  { scratch, counts }: PartRoom,
  part: LaidPart,
  adapt: number,
) {
  const { picture, crew, record, colour } = copies;
  const { levels, asked, correction, rows, cells } = part;
  const tie = Math.max(LEAST_TIE, adapt >= 1 ? 0 : (1 - adapt) / Math.max(adapt, 1e-3));
  const white = whiteOf(picture.data);
  copies.run('ask', [record, part.record, tie, RIM, ENDS * white, scratch, asked], rows);
  // What is solved for is the correction to the copied tone.
  const options = { tolerance: white === 255 ? 1e-3 : 1e-7, into: correction, crew };
  solveLevels(levels, asked, options);
  const limits = [DRIFT * white, TINT * white, HELD];
  const colours = colourChannels(picture.channels);
  copies.run('hold', [part.record, correction, colours, ...limits, counts], cells);
  if (counts.subarray(0, cells.length).some((count) => count > 0))
    solveLevels(levels, asked, { ...options, start: correction });
  copies.run('correct', [record, part.record, correction, colour], rows);
}
