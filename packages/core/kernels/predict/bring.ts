// Whole tiles foretold, and brought towards what was foretold, so that several threads can do one each.

import { softness, soften, steepnesses, strengthen } from './detail';
import { filters } from './filters';
import { goOver, markNear, tellGains } from './gains';
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
  offsets: usize;
  unknown: usize;
  values: usize;
  grid: usize;
  /** Strength, softest and half side for {@link keepDetail}, doubles. */
  detail: usize;
  /** Bytes of what is the kernel's own, from here on. */
  own: usize;
  touched: usize;
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
  before: usize;
  weights: usize;
  near: usize;
  wantedDetail: usize;
  shownDetail: usize;
  gains: usize;
}

@inline
function tileOf(tiles: usize, k: i32): Tile {
  return changetype<Tile>(<usize>load<u32>(tiles + (<usize>k << 2)));
}

/**
 * Foretells the tiles of a range, and has the unknown cells go over to it by their weights' share of `share`, their detail
 * kept: see src/predict/bring.ts for what it does and why.
 * @param tiles addresses of their records, a word each @param side of a block
 * @param square side of the squares that weights are told in @param detail side of the blocks that detail is measured in
 * @param faint steepness of a cell below which there is nothing to draw out
 * @param firstMost how much the first round strengthens at most @param lastMost the last one
 */
export function bring(
  tiles: usize,
  reach: i32,
  side: i32,
  count: i32,
  leastTold: f32,
  ridge: f64,
  rounds: i32,
  tolerance: f64,
  share: f32,
  square: i32,
  detail: i32,
  faint: f64,
  firstMost: f64,
  lastMost: f64,
  _part: i32,
  from: i32,
  to: i32,
): void {
  for (let k = from; k < to; k++) {
    const t = tileOf(tiles, k);
    memory.fill(t.touched, 0, t.own);
    memory.copy(t.before, t.values, <usize>t.cells << 4);
    foretellTile(t, reach, side, count, leastTold, ridge, rounds, tolerance);
    if (!t.found) continue;
    const wide = (t.width + square - 1) / square + 2;
    goOver(t.values, t.before, t.runs, t.found, t.stride, t.grid, square, wide, share, t.weights);
    keepDetail(t, detail, faint, firstMost, lastMost);
  }
}

/** Foretells a tile's unknown cells; what is the kernel's own has to be zeros, but for the values as they were. */
function foretellTile(
  t: Tile,
  reach: i32,
  side: i32,
  count: i32,
  leastTold: f32,
  ridge: f64,
  rounds: i32,
  tolerance: f64,
): void {
  t.found = 0;
  const number = stretches(
    t.unknown, t.touched, t.width, t.height, t.stride, reach, side, t.offsets, count, t.cells, t.taps,
    t.wanted, t.stretches,
  );
  if (!number) return;
  greyAndSound(
    t.values, t.unknown, t.width, t.height, t.stride, reach, t.offsets, count, t.cells, t.grey, t.sound,
  );
  const any = filters(
    t.grey, t.sound, t.across, t.down, side, t.wanted, t.offsets, count, leastTold, ridge, t.told,
    t.tellers, t.matrix, t.work, t.taps,
  );
  if (!any) return;
  t.found = runs(t.unknown, t.stride, t.cells, t.runs);
  settle(
    t.values, t.rest, t.way, t.answer, t.missed, t.stretches, number, t.offsets, count, t.runs, t.found,
    rounds, tolerance, t.work,
  );
}

/**
 * Strengthens what stands in a tile's unknown cells until it shows as much detail (mean gradient, in squares of three
 * blocks' side) as it did before, or a little more.
 */
function keepDetail(t: Tile, side: i32, faint: f64, firstMost: f64, lastMost: f64): void {
  const strength = load<f64>(t.detail);
  const softest = load<f64>(t.detail, 8);
  const half = <i32>load<f64>(t.detail, 16);
  const wide = t.stride / side;
  const high = t.down * (t.stride / t.across / side);
  markNear(t.runs, t.found, t.stride, side, high, t.near);
  steepnesses(t.before, t.stride, t.width, t.height, t.near, side, high, t.wantedDetail);
  const softer = softness(t.before, t.unknown, t.stride, t.width, t.height, t.near, side, softest);
  const least = faint * <f64>(side * side);
  for (let round = 0; round < 2; round++) {
    const most = round ? lastMost : firstMost;
    steepnesses(t.values, t.stride, t.width, t.height, t.near, side, high, t.shownDetail);
    tellGains(
      t.near, wide, high, t.wantedDetail, t.shownDetail, strength * softer, least, most, t.gains,
    );
    soften(t.values, t.runs, t.found, t.stride, t.width, t.height, half, t.rest);
    strengthen(
      t.values, t.rest, t.runs, t.found, t.stride, t.weights, t.gains, side, wide, high,
    );
  }
}
