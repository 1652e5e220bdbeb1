import { convertRaster } from '../raster/convert.js';
import type { Raster } from '../raster/raster.js';
import { createRaster, depthOf, whiteOf } from '../raster/raster.js';
import { crop, frameOf, grow, intersect } from '../raster/rect.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import { activeSteps, needsColour, reachOf, throughTones } from './stack.js';
import type { ToneStep } from './step.js';

/** Rows that are worked on at a time, at the least. */
const ROWS = 256;

/**
 * A whole picture passed through the tone stack at its own depth; alpha stays as it is. Strips of rows are worked on
 * one after another with the rows that their neighbourhood needs. Without active steps the picture itself comes back.
 * @param whole size of what steps are placed by, where the picture lies on another canvas
 * @throws Cancelled
 */
export function toned(
  picture: Raster,
  steps: readonly ToneStep[],
  task?: Task,
  whole: Pick<Raster, 'width' | 'height'> = picture,
): Raster {
  const active = activeSteps(steps);
  if (!active.length) return picture;
  const source =
    picture.channels < 3 && needsColour(active)
      ? convertRaster(picture, picture.channels === 2 ? 4 : 3, depthOf(picture.data))
      : picture;
  const out = {
    ...createRaster(source.width, source.height, source.channels, depthOf(source.data)),
    ...(source.at ? { at: source.at } : {}),
  };
  const frame = frameOf(source);
  const reach = reachOf(active);
  const rows = Math.max(ROWS, 2 * reach);
  for (let y = 0; y < source.height; y += rows) {
    checkpoint(task, y / source.height);
    const strip = intersect({ ...frame, y: frame.y + y, height: rows }, frame);
    const read = intersect(grow(strip, reach), frame);
    const place = { width: whole.width, height: whole.height, x: read.x, y: read.y, scale: 1 };
    const done = throughTones(crop(source, read), active, place);
    put(out, source, done, { ...strip, y: strip.y - frame.y }, read.y - frame.y);
  }
  checkpoint(task, 1);
  return out;
}

function put(
  out: Raster,
  source: Raster,
  done: Raster,
  strip: { y: number; height: number },
  top: number,
): void {
  const { width, channels } = out;
  const white = whiteOf(out.data);
  const half = white > 1 ? 0.5 : 0;
  const colours = done.channels;
  if (channels === colours) {
    const row = width * channels;
    const from = done.data.subarray((strip.y - top) * row);
    const to = out.data.subarray(strip.y * row, (strip.y + strip.height) * row);
    for (let i = 0; i < to.length; i++) to[i] = from[i]! * white + half;
    return;
  }
  for (let y = 0; y < strip.height; y++) {
    let i = (strip.y + y) * width * channels;
    let o = (strip.y + y - top) * width * colours;
    for (let x = 0; x < width; x++, i += channels, o += colours) {
      for (let c = 0; c < colours; c++) out.data[i + c] = done.data[o + c]! * white + half;
      if (channels > colours) out.data[i + colours] = source.data[i + colours]!;
    }
  }
}
