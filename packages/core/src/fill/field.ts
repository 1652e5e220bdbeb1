import type { Random } from '../random/random.js';
import type { Level } from './level.js';
import { HALF } from './level.js';
import type { Pyramid } from './pyramid.js';
import { DEEPEST } from './pyramid.js';
import type { FillRoom } from './room.js';

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
}

const MOST_SOURCES = 65536;

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
  arena.kernel.survey(
    hole.byteOffset,
    banned.byteOffset,
    source.byteOffset,
    number.byteOffset,
    target.byteOffset,
    holes.byteOffset,
    work.columns.byteOffset,
    work.counts.byteOffset,
    width,
    height,
  );
  const [targets, unknown, usable] = work.counts as unknown as readonly [number, number, number];
  const trust = arena.floats(targets);
  arena.kernel.depths(hole.byteOffset, work.step.byteOffset, width, height);
  arena.kernel.trusts(
    work.step.byteOffset,
    target.byteOffset,
    trust.byteOffset,
    work.table.byteOffset,
    DEEPEST,
    targets,
  );
  return {
    room,
    level,
    source,
    sources: thinned(source, usable),
    number,
    target: target.subarray(0, targets),
    match: arena.words(targets),
    distance: arena.words(targets),
    trust,
    holes: holes.subarray(0, unknown),
    chosen: arena.words(unknown),
  };
}

function thinned(source: Uint8Array, count: number): Int32Array {
  const step = Math.max(1, Math.floor(count / MOST_SOURCES));
  const sources = new Int32Array(Math.ceil(count / step));
  for (let p = 0, i = 0, k = 0; p < source.length; p++)
    if (source[p] && i++ % step === 0) sources[k++] = p;
  return sources;
}

/** Where chance looks: within `reach` px, in the window itself or in one of its sheets. */
export interface Chance {
  readonly reach: number;
  readonly sheets: number;
  readonly rows: number;
}

/** Matches every target with a source by chance, within reach if one is soon found there. */
export function matchByChance(field: Field, random: Random, { reach, sheets, rows }: Chance): void {
  const { width, height } = field.level;
  const last = field.sources.length - 1;
  for (let i = 0; i < field.match.length; i++) {
    const x = field.target[i]! % width;
    const y = (field.target[i]! / width) | 0;
    let found = -1;
    for (let k = 0; k < 8 && found < 0; k++) {
      const a = x + random.between(-reach, reach);
      const b = y + random.between(-reach, reach) + rows * random.between(0, sheets);
      if (a >= 0 && b >= 0 && a < width && b < height && field.source[b * width + a])
        found = b * width + a;
    }
    field.match[i] = found < 0 ? field.sources[random.between(0, last)]! : found;
  }
}

/** Takes over the matches of the level half the size. */
export function matchFromCoarse(field: Field, coarse: Field, random: Random): void {
  const { width, height } = field.level;
  const cw = coarse.level.width;
  const ch = coarse.level.height;
  const within = (v: number, high: number): number => Math.min(Math.max(v, HALF), high - HALF - 1);
  for (let i = 0; i < field.target.length; i++) {
    const tx = field.target[i]! % width;
    const ty = (field.target[i]! / width) | 0;
    const cx = within(tx >> 1, cw);
    const cy = within(ty >> 1, ch);
    const j = coarse.number[cy * cw + cx]!;
    let x = tx;
    let y = ty;
    if (j >= 0) {
      x += 2 * ((coarse.match[j]! % cw) - cx);
      y += 2 * (((coarse.match[j]! / cw) | 0) - cy);
    }
    field.match[i] = usableNear(field, within(x, width), within(y, height), random);
  }
}

/** A source at or near x, y; any source when there is none close by. */
function usableNear(field: Field, x: number, y: number, random: Random): number {
  const { width, height } = field.level;
  if (field.source[y * width + x]) return y * width + x;
  for (let k = 0; k < 48; k++) {
    const reach = 1 + Math.floor(k / 3);
    const a = x + random.between(-reach, reach);
    const b = y + random.between(-reach, reach);
    if (a >= 0 && b >= 0 && a < width && b < height && field.source[b * width + a])
      return b * width + a;
  }
  return field.sources[random.between(0, field.sources.length - 1)]!;
}
