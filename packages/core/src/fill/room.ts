import type { Crew, Range } from '../task/crew.js';
import { MOST_RANGES } from '../task/crew.js';
import type { Arena } from '../wasm/arena.js';
import { openArena } from '../wasm/arena.js';
import type { Kind } from '../wasm/kind.js';
import { FILL_KERNEL } from './fill-kernel.js';

/** Functions of kernels/fill.ts that one thread runs; addresses in bytes. */
export interface FillKernel {
  depths(hole: number, depth: number, width: number, height: number): void;
  inwards(
    pixels: number,
    hole: number,
    banned: number,
    width: number,
    height: number,
    holes: number,
    count: number,
    waiting: number,
    nearest: number,
  ): void;
  byChance(
    target: number,
    match: number,
    count: number,
    source: number,
    sources: number,
    sourceCount: number,
    width: number,
    height: number,
    reach: number,
    sheets: number,
    rows: number,
    dice: number,
  ): void;
  fromCoarse(
    target: number,
    match: number,
    count: number,
    source: number,
    sources: number,
    sourceCount: number,
    width: number,
    height: number,
    number: number,
    coarse: number,
    coarseWidth: number,
    coarseHeight: number,
    dice: number,
  ): void;
  /** @returns the middle one of the trusted distances */
  middle(distance: number, trust: number, count: number, least: number, buckets: number): number;
  tell(
    holes: number,
    count: number,
    sourceOf: number,
    width: number,
    number: number,
    distance: number,
    values: number,
    reference: number,
    left: number,
    top: number,
    wide: number,
    dx: number,
    dy: number,
    confidence: number,
  ): void;
}

/** Words a range of votes needs for itself. */
export const VOTE_WORDS = 176;
/** Rows are loaded 16 bytes at a time: the last ones reach a little beyond the pixels. */
export const SLACK = 64;

/** Functions of kernels/fill.ts that threads share. */
type SharedFunction =
  | `quarters${Kind}`
  | 'lumas'
  | 'steps'
  | 'texture'
  | 'soften'
  | 'halve'
  | 'survey'
  | 'list'
  | 'trusts'
  | 'measure'
  | 'improve'
  | 'vote'
  | 'agree'
  | 'settle';

/** The memory of one search, and the threads that work in it. */
export interface FillRoom {
  readonly arena: Arena<FillKernel>;
  readonly scratch: Int32Array;
  /** Runs one of the kernel's shared functions over ranges. */
  run(name: SharedFunction, args: readonly number[], ranges: readonly Range[]): void;
}

/** Room for arrays of these many bytes in all. @param arrays how many arrays will be cut */
export function openFillRoom(bytes: number, arrays: number, crew: Crew): FillRoom {
  const words = VOTE_WORDS * MOST_RANGES;
  const arena = openArena<FillKernel>(FILL_KERNEL, bytes + 4 * words, arrays + 1, {
    shared: true,
  });
  return {
    arena,
    scratch: arena.words(words),
    run: (name, args, ranges) => crew.run(arena.room, name, args, ranges),
  };
}
