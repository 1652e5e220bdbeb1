import type { Raster } from '../raster/raster.js';
import { whiteOf } from '../raster/raster.js';
import type { FillRoom } from './room.js';
import { SLACK } from './room.js';

/** Half the side of a patch: 7x7. */
export const HALF = 3;

/** Values run from 0 to here. */
export const MOST = 1020;

/** One step of the search pyramid. Four values a pixel, in quarters of an 8-bit code: red, green, blue, texture. */
export interface Level {
  readonly width: number;
  readonly height: number;
  readonly pixels: Int16Array;
  /** 1 = to be filled; such pixels start out as 0 and get their content from voting only. */
  readonly hole: Uint8Array;
  /** 1 = real content that must not be copied. */
  readonly banned: Uint8Array;
}

/** Bytes of a level's own arrays a pixel, and how many arrays they are. */
export const LEVEL_COST = { bytes: 10, arrays: 3 } as const;

/** An empty level in the room's memory. */
export function emptyLevel({ arena }: FillRoom, width: number, height: number): Level {
  const n = width * height;
  return {
    width,
    height,
    pixels: arena.shorts(4 * n + SLACK).subarray(0, 4 * n),
    hole: arena.bytes(n),
    banned: arena.bytes(n),
  };
}

/**
 * Lays the window down as the finest level. The texture channel is the mean absolute gradient of luma over known
 * pixels nearby, the feature of Newson et al., "Video Inpainting of Complex Scenes", SIAM J. Imaging Sci. 7(4), 2014.
 * @param work room for 4 bytes a pixel and 2 words a column
 */
export function layDown(
  { arena }: FillRoom,
  level: Level,
  window: Raster,
  textureWeight: number,
  work: { readonly luma: Int16Array; readonly step: Int32Array; readonly columns: Int32Array },
): void {
  const { width, height, pixels, hole } = level;
  toQuarters(window, hole, pixels);
  arena.kernel.texture(
    pixels.byteOffset,
    hole.byteOffset,
    work.luma.byteOffset,
    work.step.byteOffset,
    work.columns.byteOffset,
    width,
    height,
    textureWeight,
  );
}

/** Four values a pixel from any raster, 0 in the hole; grey counts as three equal channels. */
export function toQuarters(window: Raster, hole: Uint8Array, pixels: Int16Array): void {
  const { channels, data } = window;
  const white = whiteOf(data);
  const [g, b] = channels >= 3 ? [1, 2] : [0, 0];
  if (white === 255) {
    for (let p = 0, i = 0, q = 0; p < hole.length; p++, i += channels, q += 4) {
      if (hole[p]) continue;
      pixels[q] = data[i]! << 2;
      pixels[q + 1] = data[i + g]! << 2;
      pixels[q + 2] = data[i + b]! << 2;
    }
    return;
  }
  const scale = MOST / white;
  for (let p = 0, i = 0, q = 0; p < hole.length; p++, i += channels, q += 4) {
    if (hole[p]) continue;
    pixels[q] = data[i]! * scale + 0.5;
    pixels[q + 1] = data[i + g]! * scale + 0.5;
    pixels[q + 2] = data[i + b]! * scale + 0.5;
  }
}

/** Averages the known pixels of every 2x2; a pixel with fewer than two known ones is hole. */
export function halve({ arena }: FillRoom, fine: Level, small: Level): void {
  arena.kernel.halve(
    fine.pixels.byteOffset,
    fine.hole.byteOffset,
    fine.banned.byteOffset,
    fine.width,
    small.pixels.byteOffset,
    small.hole.byteOffset,
    small.banned.byteOffset,
    small.width,
    small.height,
  );
}

/** The finest level as it is matched: texture steps back by half, so that colour settles edges and patterns in phase. */
export function lessTexture({ arena }: FillRoom, level: Level): void {
  arena.kernel.soften(level.pixels.byteOffset, level.width * level.height);
}
