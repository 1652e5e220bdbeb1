import { rangesOf } from '../task/crew.js';
import type { Level } from './level.js';
import { LEAST_PIXELS } from './level.js';
import type { Pyramid } from './pyramid.js';
import { sourceStep } from './pyramid.js';
import type { FillRoom } from './room.js';
import { DEEPEST } from './work.js';

/** Nearest patches of one level: which source each patch that touches the hole is most like. */
export interface Field {
  readonly room: FillRoom;
  readonly level: Level;
  /** 1 where a patch is whole, known and allowed: it may be a source. */
  readonly source: Uint8Array;
  /** Pixel of every source, in reading order, thinned when there are very many. */
  readonly sources: Int32Array;
  /** Number of the target patch centred on a pixel, or -1. */
  readonly number: Int32Array;
  /** Pixel each target is centred on, in reading order. */
  readonly target: Int32Array;
  /** Pixel of the source each target is matched with. */
  readonly match: Int32Array;
  /** Squared difference of each match. */
  readonly distance: Int32Array;
  /** Trust in each target, falling by half with every pixel into the hole. */
  readonly trust: Float32Array;
  /** Pixels to be filled, in reading order. */
  readonly holes: Int32Array;
  /** Room for the pixel each hole copies in the end. */
  readonly chosen: Int32Array;
  /** Room for a word a pixel, in the end the pixel every hole copies. */
  readonly plane: Int32Array;
  /** State of chance. */
  readonly dice: Int32Array;
}

/** Prepares a level for matching; the matches are still unset. */
export function fieldOf({ room, levels, work }: Pyramid, k: number): Field {
  const level = levels[k]!;
  const { width, height, hole, banned } = level;
  const n = width * height;
  const { arena } = room;
  const source = arena.bytes(n);
  const number = arena.words(n);
  const target = arena.words(n);
  const holes = arena.words(n);
  const [holeAt, bannedAt, sourceAt, numberAt, targetAt, holesAt, countsAt] = [
    ...[hole, banned, source, number],
    ...[target, holes, work.counts],
  ].map(({ byteOffset }) => byteOffset) as [number, number, number, number, number, number, number];
  const rows = rangesOf(height, Math.ceil(LEAST_PIXELS / width));
  const { columns, step: depth, table } = work;
  room.run(
    'survey',
    [holeAt, bannedAt, sourceAt, numberAt, columns.byteOffset, countsAt, width, height],
    rows,
  );
  const [targets, unknown, usable] = addUp(work.counts.subarray(0, 3 * height));
  const step = sourceStep(usable);
  const sources = arena.words(Math.ceil(usable / step));
  room.run(
    'list',
    [holeAt, sourceAt, numberAt, targetAt, holesAt, sources.byteOffset, countsAt, width, step],
    rows,
  );
  const trust = arena.floats(targets);
  arena.kernel.depths(holeAt, depth.byteOffset, width, height);
  room.run(
    'trusts',
    [depth.byteOffset, targetAt, trust.byteOffset, table.byteOffset, DEEPEST],
    rangesOf(targets, LEAST_PIXELS),
  );
  return {
    room,
    level,
    source,
    sources,
    number,
    target: target.subarray(0, targets),
    match: arena.words(targets),
    distance: arena.words(targets),
    trust,
    holes: holes.subarray(0, unknown),
    chosen: arena.words(unknown),
    plane: work.plane,
    dice: work.dice,
  };
}

/** Has counts of targets, holes and sources, three a row, tell how many come before each row. @returns how many there are */
function addUp(counts: Int32Array): [targets: number, holes: number, sources: number] {
  const all: [number, number, number] = [0, 0, 0];
  for (let k = 0; k < counts.length; k += 3)
    for (let c = 0; c < 3; c++) {
      const here = counts[k + c]!;
      counts[k + c] = all[c]!;
      all[c]! += here;
    }
  return all;
}

/** Where chance looks: within `reach` px, in the window itself or in one of its sheets. */
export interface Chance {
  readonly reach: number;
  readonly sheets: number;
  readonly rows: number;
}

/** Matches every target with a source by chance, within reach if one is soon found there. */
export function matchByChance(field: Field, { reach, sheets, rows }: Chance): void {
  const { level, room, dice } = field;
  room.arena.kernel.byChance(
    ...addressed(field),
    level.width,
    level.height,
    reach,
    sheets,
    rows,
    dice.byteOffset,
  );
}

/** Takes over the matches of the level half the size: at or near where they lead, any source where there is none close by. */
export function matchFromCoarse(field: Field, coarse: Field): void {
  const { level, room, dice } = field;
  room.arena.kernel.fromCoarse(
    ...addressed(field),
    level.width,
    level.height,
    coarse.number.byteOffset,
    coarse.match.byteOffset,
    coarse.level.width,
    coarse.level.height,
    dice.byteOffset,
  );
}

/** A field's matches and sources, as the kernel takes them. */
function addressed({ target, match, source, sources }: Field) {
  return [
    target.byteOffset,
    match.byteOffset,
    match.length,
    source.byteOffset,
    sources.byteOffset,
    sources.length,
  ] as const;
}
