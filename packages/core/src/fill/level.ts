import type { Raster } from '../raster/raster.js';
import { sampleBytes, whiteOf } from '../raster/raster.js';
import type { Range } from '../task/crew.js';
import { rangesOf } from '../task/crew.js';
import { kindOf } from '../wasm/kind.js';
import type { FillRoom } from './room.js';
import { SLACK } from './room.js';
import type { Work } from './work.js';

/** Half the side of a patch: 7x7. */
export const HALF = 3;

/** Pixels of the smallest range. */
export const LEAST_PIXELS = 16384;

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
 * @param work room for 4 bytes a pixel, and for each range for 2 words a column
 */
export function layDown(
  room: FillRoom,
  level: Level,
  window: Raster,
  textureWeight: number,
  work: Pick<Work, 'plane' | 'luma' | 'step' | 'columns'>,
): void {
  const { width, height } = level;
  toQuarters(room, window, level, work.plane);
  const [pixels, hole, luma, step, columns] = [
    level.pixels,
    level.hole,
    work.luma,
    work.step,
    work.columns,
  ].map(({ byteOffset }) => byteOffset) as [number, number, number, number, number];
  room.run('lumas', [pixels, luma], rangesOf(width * height, LEAST_PIXELS));
  const rows = rowsOf(width, height);
  room.run('steps', [hole, luma, step, width, height], rows);
  room.run('texture', [pixels, hole, step, columns, width, height, textureWeight], rows);
}

/** Four values a pixel from any raster, 0 in the hole; grey counts as three equal channels. @param room for some samples */
function toQuarters(
  { run }: FillRoom,
  { channels, data }: Raster,
  { hole, pixels }: Level,
  { buffer, byteOffset, byteLength }: Int32Array,
): void {
  const size = data.BYTES_PER_ELEMENT;
  const bytes = new Uint8Array(buffer, byteOffset, byteLength);
  const each = Math.floor(byteLength / (channels * size));
  for (let p = 0; p < hole.length; p += each) {
    const some = data.subarray(p * channels, (p + each) * channels);
    bytes.set(sampleBytes(some));
    const [holeAt, to] = [hole.byteOffset + p, pixels.byteOffset + 8 * p];
    run(
      `quarters${kindOf(size)}`,
      [byteOffset, holeAt, to, channels, MOST / whiteOf(data)],
      rangesOf(some.length / channels, LEAST_PIXELS),
    );
  }
}

/** Averages the known pixels of every 2x2; a pixel with fewer than two known ones is hole. */
export function halve({ run }: FillRoom, fine: Level, small: Level): void {
  run(
    'halve',
    [
      fine.pixels.byteOffset,
      fine.hole.byteOffset,
      fine.banned.byteOffset,
      fine.width,
      small.pixels.byteOffset,
      small.hole.byteOffset,
      small.banned.byteOffset,
      small.width,
    ],
    rowsOf(small.width, small.height),
  );
}

/** The finest level as it is matched: texture steps back by half, so that colour settles edges and patterns in phase. */
export function lessTexture({ run }: FillRoom, { pixels, width, height }: Level): void {
  run('soften', [pixels.byteOffset], rangesOf(width * height, LEAST_PIXELS));
}

/** Ranges of a level's rows. */
function rowsOf(width: number, height: number): Range[] {
  return rangesOf(height, Math.ceil(LEAST_PIXELS / width));
}
