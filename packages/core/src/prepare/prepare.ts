import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Task } from '../task/task.js';
import type { Deblocking } from './deblock.js';
import { deblock } from './deblock.js';

/** What is done to a picture before anything is repaired. */
export interface Preparation {
  /** Shares of red, green and blue of which it is made grey; null leaves its colours. */
  readonly grey: readonly [number, number, number] | null;
  /** How the blocks of a compression are reduced; null leaves them. */
  readonly blocks: Deblocking | null;
}

/**
 * A picture as repairs begin from it: blocks reduced, then grey from its channels. Its layout stays, alpha is left alone.
 * @param into holds what is written; as large as the picture
 * @throws Cancelled
 */
export function prepare(picture: Raster, how: Preparation, into: Raster, task?: Task): void {
  if (how.blocks) deblock(picture, how.blocks, into, task);
  else into.data.set(picture.data);
  if (how.grey) toGrey(into, how.grey);
}

/** Makes a picture grey by shares of its channels, encoded values as they are; a grey one stays. */
function toGrey({ channels, data }: Raster, [r, g, b]: readonly [number, number, number]): void {
  if (colourChannels(channels) === 1) return;
  const white = whiteOf(data);
  for (let i = 0; i < data.length; i += channels) {
    const sum = r * data[i]! + g * data[i + 1]! + b * data[i + 2]!;
    const held = Math.min(white, Math.max(0, sum));
    data.fill(white === 1 ? held : Math.round(held), i, i + 3);
  }
}
