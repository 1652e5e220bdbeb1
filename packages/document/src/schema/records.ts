import type { Frame } from './frame.js';
import type { Preparation } from './preparation.js';
import type { Layer, Repair } from './repair.js';
import type { Tone } from './tone.js';

/** All records of one picture. */
export interface Records {
  readonly layers: readonly Layer[];
  readonly repairs: readonly Repair[];
  /** The tone stack, in any order; {@link Tone.position} tells it. */
  readonly tones: readonly Tone[];
  /** None or one. */
  readonly frames: readonly Frame[];
  /** None or one. */
  readonly preparations: readonly Preparation[];
}

/** A picture to which nothing was done. */
export const NO_RECORDS: Records = {
  layers: [],
  repairs: [],
  tones: [],
  frames: [],
  preparations: [],
};
