import type { Raster } from '../raster/raster.js';
import { createRaster, depthOf } from '../raster/raster.js';
import { backgroundOf } from './background.js';
import { jumpsFor } from './jumps.js';
import { lay } from './lay.js';
import { brokenLines } from './lines.js';

/** A picture whose left side got another length. */
export interface SideChanged {
  readonly picture: Raster;
  /** What is protected, moved along. */
  readonly kept: Uint8Array;
  /** How much longer the background is than before. */
  readonly factor: number;
  /** Worst difference at a splice beside those of ordinary neighbours. */
  readonly splices: number;
  /** Straight lines that a splice breaks. */
  readonly broken: number;
}

/** Makes the background left of what is protected longer, or shorter below 0. @param amount px @throws CannotStretch */
export function changeSide(
  picture: Raster,
  kept: Uint8Array,
  amount: number,
  side: string,
): SideChanged {
  const { width, height, channels, data } = picture;
  const background = backgroundOf(picture, kept);
  const { bars, usual, lines } = background;
  const jumps = jumpsFor(amount, background, side);
  const out = createRaster(width + amount, height, channels, depthOf(data));
  lay(picture, out, jumps, background, kept);
  const room = 2 * (bars.reduce((sum, b) => sum + b, 0) / bars.length);
  return {
    picture: out,
    kept: movedBy(kept, width, amount),
    factor: 1 + amount / room,
    splices: jumps.reduce((worst, j) => Math.max(worst, j.cost / usual), 0),
    broken: brokenLines(lines, jumps),
  };
}

/** A mask on the picture whose left side is longer by so much, or shorter below 0. */
export function movedBy(mask: Uint8Array, width: number, amount: number): Uint8Array {
  const height = mask.length / width;
  const moved = new Uint8Array((width + amount) * height);
  for (let y = 0; y < height; y++)
    moved.set(
      mask.subarray(y * width + Math.max(0, -amount), (y + 1) * width),
      y * (width + amount) + Math.max(0, amount),
    );
  return moved;
}
