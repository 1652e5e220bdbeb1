import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect } from '../raster/rect.js';
import { LANES } from '../solve/levels.js';
import { solveSystem } from '../solve/multigrid.js';
import type { System } from '../solve/system.js';
import { laplacian, residualOf } from '../solve/system.js';
import { RIM, wantedSteps } from './wanted-steps.js';

/** Keeps large sites from drifting where hardly anything ties them to their ring. */
const LEAST_TIE = 1e-4;

/**
 * Copies the site pixels in a box and evens their tone across seams and at the ring, in the gradient domain.
 * @param site for every pixel the one it is copied from, -1 outside the site
 * @param adapt 0 = the copied tone stays, 1 = it follows the surroundings wholly
 * @param colour what comes of it, on the picture's scale and laid out like it
 */
export function evenTones(
  below: Raster,
  site: Int32Array,
  box: Rect,
  adapt: number,
  colour: Float32Array | Float64Array,
): void {
  const { channels, data } = below;
  // The solve needs the site and its ring only, however far the sources lie.
  const room = intersect(grow(box, 1), frameOf(below));
  const system = laplacian(maskIn(room, site, below.width), room.width, room.height);
  const tie = Math.max(LEAST_TIE, adapt >= 1 ? 0 : (1 - adapt) / Math.max(adapt, 1e-3));
  // What is solved for is the correction to the copied tone.
  const colours = colourChannels(channels);
  const white = whiteOf(data);
  const deep = white !== 255;
  const values = () => {
    const length = LANES * system.cells;
    return deep ? new Float64Array(length) : new Float32Array(length);
  };
  const [b, copied, rest] = [values(), values(), values()];
  const steps = new Float64Array(colours);
  eachUnknown(system, room, below.width, (cell, p) => {
    system.own[cell]! += tie;
    system.own[cell]! += (RIM - 1) * wantedSteps(below, site, p, steps);
    for (let c = 0; c < colours; c++) {
      const tone = (copied[LANES * cell + c] = data[site[p]! * channels + c]!);
      b[LANES * cell + c] = tie * tone + steps[c]!;
    }
  });
  residualOf(system, b, copied, rest);
  const solved = (): Float32Array | Float64Array =>
    solveSystem(system, rest, { tolerance: deep ? 1e-7 : 1e-3 }).x;
  let correction = solved();
  if (hold(system, correction, colours, white)) correction = solved();
  eachUnknown(system, room, below.width, (cell, p) => {
    for (let c = 0, i = LANES * cell; c < colours; c++, i++)
      colour[p * channels + c] = copied[i]! + correction[i]!;
  });
}

function maskIn(room: Rect, site: Int32Array, wide: number): Uint8Array {
  const mask = new Uint8Array(room.width * room.height);
  for (let y = 0, to = 0; y < room.height; y++)
    for (let x = 0, p = (room.y + y) * wide + room.x; x < room.width; x++, p++, to++)
      if (site[p]! >= 0) mask[to] = 1;
  return mask;
}

/** Tells every unknown cell of a room's system, and the pixel it stands for. @param wide px in a row of the picture */
function eachUnknown(
  { runs, stride }: System,
  room: Rect,
  wide: number,
  tell: (cell: number, p: number) => void,
): void {
  for (let k = 0; k < runs.length; k += 2) {
    const row = Math.floor(runs[k]! / stride);
    const first = (room.y + row - 1) * wide + room.x - 1 - row * stride;
    for (let cell = runs[k]!; cell < runs[k + 1]!; cell++) tell(cell, first + cell);
  }
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
