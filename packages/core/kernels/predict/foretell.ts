// Whole tiles foretold, so that several threads can do one each.

import { filters } from './filters';
import { greyAndSound, runs, stretches } from './lay';
import { settle } from './settle';

/** A tile as src/predict/tile.ts lays it: sizes, then addresses. */
@unmanaged
class Tile {
  width: i32;
  height: i32;
  stride: i32;
  across: i32;
  down: i32;
  cells: i32;
  /** What comes of it: how many runs of unknown cells there are, 0 where too little is known. */
  found: i32;
  unknown: usize;
  touched: usize;
  values: usize;
  grey: usize;
  sound: usize;
  wanted: usize;
  told: usize;
  tellers: usize;
  taps: usize;
  matrix: usize;
  work: usize;
  missed: usize;
  rest: usize;
  way: usize;
  answer: usize;
  stretches: usize;
  runs: usize;
  offsets: usize;
}

/** Foretells the tiles of a range. @param tiles addresses of their records, a word each @param side of a block */
export function foretell(
  tiles: usize,
  reach: i32,
  side: i32,
  count: i32,
  leastTold: f32,
  ridge: f64,
  rounds: i32,
  tolerance: f64,
  _part: i32,
  from: i32,
  to: i32,
): void {
  for (let k = from; k < to; k++) {
    const t = changetype<Tile>(<usize>load<u32>(tiles + (<usize>k << 2)));
    t.found = 0;
    const number = stretches(
      t.unknown, t.touched, t.width, t.height, t.stride, reach, side, t.offsets, count, t.cells, t.taps,
      t.wanted, t.stretches,
    );
    if (!number) continue;
    greyAndSound(
      t.values, t.unknown, t.width, t.height, t.stride, reach, t.offsets, count, t.cells, t.grey, t.sound,
    );
    const any = filters(
      t.grey, t.sound, t.across, t.down, side, t.wanted, t.offsets, count, leastTold, ridge, t.told,
      t.tellers, t.matrix, t.work, t.taps,
    );
    if (!any) continue;
    t.found = runs(t.unknown, t.stride, t.cells, t.runs);
    settle(
      t.values, t.rest, t.way, t.answer, t.missed, t.stretches, number, t.offsets, count, t.runs, t.found,
      rounds, tolerance, t.work,
    );
  }
}
