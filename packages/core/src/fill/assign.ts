import type { Range } from '../task/crew.js';
import { rangesOf } from '../task/crew.js';
import type { Field } from './field.js';
import { agree } from './vote.js';

/** Sharpness of the votes that choose single sources. */
const AGREEMENT = 0.25;
const SWEEPS = 4;
/** Holes of fewer pixels are not worth a second thread. */
const LEAST_HOLES = 4096;

/**
 * Ends the search with one source a pixel, so that nothing is averaged and nothing blurs. Each hole pixel
 * first takes the shift that most of the trusted patches over it agree on; then labels settle where switching
 * source shows least (the seam cost of Kwatra et al., "Graphcut Textures", SIGGRAPH 2003, lowered by
 * iterated conditional modes).
 * The field's plane becomes, for every hole pixel of the level, the source pixel.
 */
export function assignSources(field: Field): void {
  const { level, holes, chosen, sources, plane: sourceOf } = field;
  agree(field, AGREEMENT, chosen);
  for (let k = 0; k < holes.length; k++)
    sourceOf[holes[k]!] = chosen[k]! < 0 ? sources[0]! : chosen[k]!;
  const bands = bandsOf(holes, level.width);
  const turns = [0, 1].map((odd) => bands.filter((_, k) => (k & 1) === odd));
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    const changed = turns.map((ranges) => settle(field, sweep % 2 === 1, ranges));
    if (!changed.includes(true)) break;
  }
}

/** One sweep over holes that lie apart. @returns whether any label changed */
function settle(
  { room, level, holes, plane }: Field,
  backwards: boolean,
  ranges: readonly Range[],
): boolean {
  room.run(
    'settle',
    [
      level.pixels.byteOffset,
      level.hole.byteOffset,
      level.banned.byteOffset,
      holes.byteOffset,
      plane.byteOffset,
      level.width,
      level.height,
      backwards ? 1 : 0,
      room.scratch.byteOffset,
    ],
    ranges,
  );
  return room.scratch.subarray(0, ranges.length).includes(1);
}

/** Cuts holes in reading order into bands of whole rows: between one and the next but one lies a row at least. */
export function bandsOf(holes: Int32Array, width: number): Range[] {
  const bands: Range[] = [];
  let begin = 0;
  for (const [, cut] of rangesOf(holes.length, LEAST_HOLES)) {
    let end = Math.max(begin, cut);
    if (end <= begin) continue;
    const row = Math.floor(holes[end - 1]! / width);
    while (end < holes.length && holes[end]! < (row + 1) * width) end++;
    bands.push([begin, end]);
    begin = end;
  }
  return bands;
}
