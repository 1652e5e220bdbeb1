import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect } from '../raster/rect.js';
import { LANES } from '../solve/levels.js';
import { solveSystem } from '../solve/multigrid.js';
import type { System } from '../solve/system.js';
import { laplacian } from '../solve/system.js';
import { cropMask } from '../shape/crop-mask.js';
import type { Copies } from './copies.js';
import { askedSteps, isCopiedWhole, RIM } from './wanted-steps.js';

/** Keeps large sites from drifting where hardly anything ties them to their ring. */
const LEAST_TIE = 1e-4;

/**
 * Copies the site pixels in a box and evens their tone across seams and at the ring, in the gradient domain.
 * @param adapt 0 = the copied tone stays, 1 = it follows the surroundings wholly
 * @param colour what comes of it, on the picture's scale and laid out like it
 */
export function evenTones(
  below: Raster,
  copies: Copies,
  box: Rect,
  adapt: number,
  colour: Float32Array | Float64Array,
): void {
  const { channels, data } = below;
  // The solve needs the site and its ring only, however far the sources lie.
  const room = intersect(grow(box, 1), frameOf(below));
  const { from: site } = copies;
  const unknown = cropMask(copies.mask, below.width, room);
  const system = laplacian(unknown, room.width, room.height);
  const tie = Math.max(LEAST_TIE, adapt >= 1 ? 0 : (1 - adapt) / Math.max(adapt, 1e-3));
  // What is solved for is the correction to the copied tone.
  const colours = colourChannels(channels);
  const white = whiteOf(data);
  const deep = white !== 255;
  const length = LANES * system.cells;
  const asked = deep ? new Float64Array(length) : new Float32Array(length);
  ask(below, site, room, system, tie, asked);
  const solved = (): Float32Array | Float64Array =>
    solveSystem(system, asked, { tolerance: deep ? 1e-7 : 1e-3 }).x;
  let correction = solved();
  if (hold(system, correction, colours, white)) correction = solved();
  correct(below, site, room, system, correction, colour);
}

/** Lays down what is asked of every unknown, and what ties it to its copied tone and to the ring. */
function ask(
  below: Raster,
  site: Int32Array,
  room: Rect,
  { runs, stride, own, right, below: downwards }: System,
  tie: number,
  asked: Float32Array | Float64Array,
): void {
  const steps = new Float64Array(colourChannels(below.channels));
  const held = new Float64Array(4);
  for (let k = 0; k < runs.length; k += 2) {
    const from = pixelOf(runs[k]!, stride, room, below.width) - runs[k]!;
    for (let cell = runs[k]!; cell < runs[k + 1]!; cell++) {
      own[cell]! += tie;
      if (isCopiedWhole(site, below.width, from + cell)) continue;
      own[cell]! += (RIM - 1) * askedSteps(below, site, from + cell, steps, held);
      for (let c = 0; c < steps.length; c++) asked[LANES * cell + c] = steps[c]!;
      right[cell]! *= held[0]!;
      downwards[cell]! *= held[2]!;
    }
  }
}

/** Writes the copied tones, corrected. */
function correct(
  { width, channels, data }: Raster,
  site: Int32Array,
  room: Rect,
  { runs, stride }: System,
  correction: Float32Array | Float64Array,
  colour: Float32Array | Float64Array,
): void {
  const colours = colourChannels(channels);
  for (let k = 0; k < runs.length; k += 2) {
    let p = pixelOf(runs[k]!, stride, room, width);
    for (let i = LANES * runs[k]!; i < LANES * runs[k + 1]!; i += LANES, p++) {
      const s = site[p]! * channels;
      for (let c = 0; c < colours; c++)
        colour[p * channels + c] = data[s + c]! + correction[i + c]!;
    }
  }
}

/** The pixel that a cell of a room's system stands for. @param wide px in a row of the picture */
function pixelOf(cell: number, stride: number, room: Rect, wide: number): number {
  const row = Math.floor(cell / stride);
  return (room.y + row - 1) * wide + room.x + (cell - row * stride) - 1;
}

/** Corrections of so much of the range are no matter of tone: where slopes are copied again and again, they add up. */
const DRIFT = 0.16;
/** The same for what changes the colour alone: leaves beside bare soil are no light that falls on it. */
const TINT = 0.02;
/** What then ties pixels to their copied tone. */
const HELD = 4e-3;

/** Ties pixels whose correction has drifted. @returns whether there are any */
function hold(
  { runs, own }: System,
  correction: Float32Array | Float64Array,
  colours: number,
  white: number,
): boolean {
  let any = false;
  for (let k = 0; k < runs.length; k += 2)
    for (let cell = runs[k]!; cell < runs[k + 1]!; cell++) {
      const over = driftAt(correction, LANES * cell, colours) / white - 1;
      if (over <= 0) continue;
      own[cell]! += HELD * Math.min(1, over);
      any = true;
    }
  return any;
}

/** Of a correction, beside what is allowed on a scale that ends at 1. */
function driftAt(correction: Float32Array | Float64Array, first: number, colours: number): number {
  let [most, sum, tint] = [0, 0, 0];
  for (let c = first; c < first + colours; c++) {
    most = Math.max(most, Math.abs(correction[c]!));
    sum += correction[c]!;
  }
  for (let c = first; c < first + colours; c++)
    tint = Math.max(tint, Math.abs(correction[c]! - sum / colours));
  return Math.max(most / DRIFT, tint / TINT);
}
