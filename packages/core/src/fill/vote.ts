import { rangesOf } from '../task/crew.js';
import type { Field } from './field.js';

const LEAST_HOLES = 256;

/** Which patches over a pixel vote: all, or every other one, as on a chessboard, for half the work. */
export type Voters = 'all' | 'half';

/**
 * Every hole pixel becomes the weighted mean of what the patches over it say (Wexler, Shechtman, Irani,
 * "Space-Time Completion of Video", PAMI 29(3), 2007). The weight falls with a patch's difference and with
 * its depth in the hole.
 * @param sharpness scale of the fall, as a share of the mean difference: the smaller, the fewer patches count
 */
export function vote(field: Field, sharpness: number, among: Voters): void {
  const { room, level, number, match, distance, trust, holes } = field;
  room.run(
    'vote',
    [
      level.pixels.byteOffset,
      number.byteOffset,
      match.byteOffset,
      distance.byteOffset,
      trust.byteOffset,
      holes.byteOffset,
      room.scratch.byteOffset,
      level.width,
      level.height,
      sharpness,
      among === 'all' ? 1 : 2,
    ],
    rangesOf(holes.length, LEAST_HOLES),
  );
}

/**
 * What the patches over each hole pixel agree on most: of all pixels they say it is, the one with the most weight.
 * @param chosen becomes the pixel to copy for every hole, -1 where none may be copied
 */
export function agree(field: Field, sharpness: number, chosen: Int32Array): void {
  const { room, level, number, match, distance, trust, holes } = field;
  room.run(
    'agree',
    [
      level.hole.byteOffset,
      level.banned.byteOffset,
      number.byteOffset,
      match.byteOffset,
      distance.byteOffset,
      trust.byteOffset,
      holes.byteOffset,
      room.scratch.byteOffset,
      chosen.byteOffset,
      level.width,
      level.height,
      sharpness,
    ],
    rangesOf(holes.length, LEAST_HOLES),
  );
}
