import type { Raster } from '../../raster/raster.js';
import { colourChannels } from '../../raster/raster.js';
import type { Rect } from '../../raster/rect.js';
import { LANES } from '../../solve/levels.js';
import type { System } from '../../solve/system.js';
import { DRIFT, HELD, TINT } from '../even-tones.js';
import type { Tones } from '../laid-copies.js';
import { pixelsOf } from './pixels-of.js';

/** Twin of correct in kernels/repair: writes the copied tones, corrected. */
export function correctPlainly(
  { width, channels, data }: Raster,
  site: Int32Array,
  room: Rect,
  system: System,
  correction: Tones,
  colour: Tones,
): void {
  const colours = colourChannels(channels);
  const pixels = pixelsOf(system, room, width);
  for (let cell = 1; cell < system.cells; cell++) {
    const p = pixels[cell]!;
    const s = site[p]! * channels;
    for (let c = 0; c < colours; c++)
      colour[p * channels + c] = data[s + c]! + correction[LANES * cell + c]!;
  }
}

/** Twin of hold there: ties cells whose correction has drifted. @returns how many there are */
export function holdPlainly(
  { cells, own }: System,
  correction: Tones,
  colours: number,
  white: number,
): number {
  let many = 0;
  for (let cell = 1; cell < cells; cell++) {
    const over = driftAt(correction, LANES * cell, colours, white) - 1;
    if (over <= 0) continue;
    own[cell]! += HELD * Math.min(1, over);
    many++;
  }
  return many;
}

/** Of a correction, beside what is allowed. */
function driftAt(correction: Tones, first: number, colours: number, white: number): number {
  let [most, sum, tint] = [0, 0, 0];
  for (let c = first; c < first + colours; c++) {
    most = Math.max(most, Math.abs(correction[c]!));
    sum += correction[c]!;
  }
  for (let c = first; c < first + colours; c++)
    tint = Math.max(tint, Math.abs(correction[c]! - sum / colours));
  return Math.max(most / (DRIFT * white), tint / (TINT * white));
}
