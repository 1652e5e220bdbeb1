import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect } from '../raster/rect.js';
import { solveSystem } from '../solve/multigrid.js';
import { laplacian } from '../solve/system.js';
import { cropMask } from '../shape/crop-mask.js';
import type { LaidCopies } from './laid-copies.js';
import { layPart } from './laid-copies.js';

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
 * Copies the site pixels in a box and evens their tone across seams and at the ring, in the gradient domain: towards the
 * ring's values where a pixel meets the ring (the donor's own step or that from the copied tone, whichever is smaller), and
 * towards each neighbour by the step its source shows; where the neighbour comes from elsewhere, by the mean of both
 * sources' steps, the less of it the less both agree, lest the tone of the one thing run into the other. What drifts far
 * from its copied tone is tied to it. Becomes the copies' colour.
 * @param adapt 0 = the copied tone stays, 1 = it follows the surroundings wholly
 */
export function evenTones(copies: LaidCopies, box: Rect, adapt: number): void {
  const { picture, kernel, at, part, colour } = copies;
  // The solve needs the site and its ring only, however far the sources lie.
  const room = intersect(grow(box, 1), frameOf(picture));
  const unknown = cropMask(copies.mask, picture.width, room);
  const laid = layPart(copies, room, laplacian(unknown, room.width, room.height));
  const { system, asked, correction } = laid;
  const tie = Math.max(LEAST_TIE, adapt >= 1 ? 0 : (1 - adapt) / Math.max(adapt, 1e-3));
  const white = whiteOf(picture.data);
  const [here, sums, held] = [part.record, part.sums, part.held].map((a) => a.byteOffset);
  kernel.ask(at, here!, tie, RIM, ENDS * white, sums!, held!, asked.byteOffset);
  // What is solved for is the correction to the copied tone.
  const tolerance = white === 255 ? 1e-3 : 1e-7;
  solveSystem(system, asked, { tolerance, into: correction });
  const [drift, tint] = [DRIFT * white, TINT * white];
  const colours = colourChannels(picture.channels);
  if (kernel.hold(here!, correction.byteOffset, colours, drift, tint, HELD))
    solveSystem(system, asked, { tolerance, into: correction, start: correction });
  kernel.correct(at, here!, correction.byteOffset, colour.byteOffset);
}
