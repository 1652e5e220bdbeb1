import type { Crew } from '../task/crew.js';
import { MOST_RANGES } from '../task/crew.js';
import type { Atlas } from './atlas.js';
import type { Level } from './level.js';
import { emptyLevel, HALF, halve, layDown, LEVEL_COST, lessTexture } from './level.js';
import type { Manner } from './manner.js';
import type { FillRoom } from './room.js';
import { openFillRoom, SLACK } from './room.js';

/** All levels of a search, finest first, in one memory. */
export interface Pyramid {
  readonly room: FillRoom;
  readonly levels: readonly Level[];
  /** Arrays that levels use in turn. */
  readonly work: Work;
}

/** What is needed while one level is made ready, and at the end of the search. */
export interface Work {
  /** A word a pixel of the finest level: samples, then luma and its steps or depths at first, in the end every pixel's source. */
  readonly plane: Int32Array;
  readonly luma: Int16Array;
  /** Steps of luma, then depths: two bytes a pixel. */
  readonly step: Int32Array;
  readonly columns: Int32Array;
  /** Three words a row. */
  readonly counts: Int32Array;
  readonly table: Float32Array;
  /** State of chance. */
  readonly dice: Int32Array;
}

/** Depths are told apart up to so many thirds of a pixel. */
export const DEEPEST = 180;
/** Sources of a level are thinned until they are fewer than twice as many. */
const MANY_SOURCES = 65536;

/** Every so manieth of a level's sources is taken. */
export function sourceStep(count: number): number {
  return Math.max(1, Math.floor(count / MANY_SOURCES));
}

function mostSources(pixels: number): number {
  return Math.min(pixels, 2 * MANY_SOURCES);
}

const FIELD_BYTES = 29;
const FIELD_ARRAYS = 9;
const WORK_ARRAYS = 5;
/** Words of the most samples a pixel has. */
const SAMPLES = 4;

/**
 * Halves the window until the hole is shallow enough for the manner of the search.
 * @param depth greatest depth of the hole, px
 * @throws RangeError when there is not so much memory
 */
export function pyramidOf(
  { raster: window, hole, banned }: Pick<Atlas, 'raster' | 'hole' | 'banned'>,
  depth: number,
  manner: Manner,
  crew: Crew,
): Pyramid {
  const sizes = [{ width: window.width, height: window.height }];
  let left = depth;
  for (;;) {
    const { width, height } = sizes[sizes.length - 1]!;
    if (left <= manner.coarsestDepth || Math.min(width, height) < 16 * HALF) break;
    sizes.push({ width: width >> 1, height: height >> 1 });
    left /= 2;
  }
  const pixels = window.width * window.height;
  const all = sizes.reduce((sum, { width, height }) => sum + width * height, 0);
  const room = openFillRoom(
    all * (LEVEL_COST.bytes + FIELD_BYTES) +
      2 * sizes.length * SLACK +
      sizes.reduce((sum, { width, height }) => sum + 4 * mostSources(width * height), 0) +
      8 * Math.ceil(pixels / 2) +
      4 * SAMPLES +
      MOST_RANGES * (8 * window.width + 64) +
      12 * window.height +
      4 * (DEEPEST + 9),
    sizes.length * (LEVEL_COST.arrays + FIELD_ARRAYS) + WORK_ARRAYS,
    crew,
  );
  const { arena } = room;
  const half = Math.ceil(pixels / 2);
  const plane = arena.words(2 * half + SAMPLES);
  const work = {
    plane,
    luma: new Int16Array(plane.buffer, plane.byteOffset, pixels),
    step: plane.subarray(half),
    columns: arena.words(MOST_RANGES * (2 * window.width + 16)),
    counts: arena.words(3 * window.height),
    table: arena.floats(DEEPEST + 1),
    dice: arena.words(1),
  };
  for (let d = 0; d <= DEEPEST; d++) work.table[d] = halfToThe((d * manner.distrust) / 3);
  const levels = sizes.map(({ width, height }) => emptyLevel(room, width, height));
  const finest = levels[0]!;
  finest.hole.set(hole);
  finest.banned.set(banned);
  layDown(room, finest, window, manner.texture, work);
  for (let k = 1; k < levels.length; k++) halve(room, levels[k - 1]!, levels[k]!);
  lessTexture(room, finest);
  return { room, levels, work };
}

/** 2^-d for d >= 0, linear between whole numbers: exact arithmetic only, so the same everywhere. */
export function halfToThe(d: number): number {
  const whole = Math.min(60, Math.floor(d));
  let value = 1;
  for (let i = 0; i < whole; i++) value /= 2;
  return d >= 60 ? value : value * (1 - (d - whole) / 2);
}
