import { MOST_RANGES } from '../task/crew.js';
import type { Stretch } from '../wasm/arena.js';

/** What is needed while one level is made ready, and at the end of the search: arrays that levels use in turn. */
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
/** Words of the most samples a pixel has. */
const SAMPLES = 4;

/** Bytes of what a search of a window needs beside its levels, and how many arrays they are. */
export function workCost(width: number, height: number): { bytes: number; arrays: number } {
  const bytes =
    8 * Math.ceil((width * height) / 2) +
    4 * SAMPLES +
    MOST_RANGES * (8 * width + 64) +
    12 * height +
    4 * (DEEPEST + 2);
  return { bytes, arrays: 5 };
}

/** Takes it from the memory. @param distrust halvings of trust a pixel of depth */
export function openWork(arena: Stretch, width: number, height: number, distrust: number): Work {
  const pixels = width * height;
  const half = Math.ceil(pixels / 2);
  const plane = arena.words(2 * half + SAMPLES);
  const work = {
    plane,
    luma: new Int16Array(plane.buffer, plane.byteOffset, pixels),
    step: plane.subarray(half),
    columns: arena.words(MOST_RANGES * (2 * width + 16)),
    counts: arena.words(3 * height),
    table: arena.floats(DEEPEST + 1),
    dice: arena.words(1),
  };
  for (let d = 0; d <= DEEPEST; d++) work.table[d] = halfToThe((d * distrust) / 3);
  return work;
}

/** 2^-d for d >= 0, linear between whole numbers: exact arithmetic only, so the same everywhere. */
export function halfToThe(d: number): number {
  const whole = Math.min(60, Math.floor(d));
  let value = 1;
  for (let i = 0; i < whole; i++) value /= 2;
  return d >= 60 ? value : value * (1 - (d - whole) / 2);
}
