import { rangesOf } from '../task/crew.js';
import type { Field } from './field.js';
import type { Farness } from './farness.js';
import { ANYWHERE } from './farness.js';

/** Lists shorter than this are not worth a second thread. */
const LEAST_TARGETS = 512;

/** Brings the distances up to date with the pixels. @param farness what being far adds to them */
export function measureMatches(
  { room, level, target, match, distance }: Field,
  { free, rate }: Farness = ANYWHERE,
): void {
  room.run(
    'measure',
    [
      level.pixels.byteOffset,
      target.byteOffset,
      match.byteOffset,
      distance.byteOffset,
      level.width,
      free,
      rate,
    ],
    rangesOf(target.length, LEAST_TARGETS),
  );
}

/** Which sweep it is, and what its chance is drawn from. */
export interface Sweep {
  /** Even sweeps run forwards, odd ones backwards. */
  readonly pass: number;
  readonly seed: number;
  /** Whether the pixels changed since the distances were measured. */
  readonly fresh: boolean;
  /** Radius of the widest random try, px. */
  readonly reach: number;
  /** How many sheets lie below the window, and how many rows they are apart. */
  readonly sheets: number;
  readonly rows: number;
  readonly farness: Farness;
}

/**
 * One sweep of PatchMatch (Barnes et al., SIGGRAPH 2009): every target tries its neighbours' matches, shifted, and
 * random places at halving radii.
 */
export function improveMatches(field: Field, sweep: Sweep): void {
  const { room, level, source, number, target, match, distance } = field;
  const { pass, seed, fresh, reach, sheets, rows, farness } = sweep;
  room.run(
    'improve',
    [
      level.pixels.byteOffset,
      source.byteOffset,
      number.byteOffset,
      target.byteOffset,
      match.byteOffset,
      distance.byteOffset,
      level.width,
      level.height,
      reach,
      pass,
      seed,
      fresh ? 1 : 0,
      sheets,
      rows,
      farness.free,
      farness.rate,
    ],
    sweepRanges(field, pass),
  );
}

/** The ranges of a sweep: their cuts move from pass to pass. */
export function sweepRanges({ target }: Field, pass: number) {
  return rangesOf(target.length, LEAST_TARGETS, (pass & 2) === 2);
}
