// What is asked of the correction to copied tones: see evenTones in src/repair/even-tones.ts for what it is and why.

import { BELOW, OWN, RIGHT, ROWS, STARTS, word } from '../solve/memory';
import { addTo, Copies, firstPixel, Part, putValue, sample, scale, source } from './memory';

/** Values a cell holds. */
const LANES: i32 = 4;
/** Right, left, below, above. */
const SIDES: i32 = 4;
/** Bytes for three sums and how firmly four sides are held. */
const SCRATCH: usize = 128;

/**
 * Lays down what is asked of every cell in some rows of a part, and what ties it to its copied tone and to the ring.
 * @param scratch room for each range
 */
@inline
export function askOf<T, V>(
  copies: Copies,
  part: Part,
  tie: f64,
  ring: f64,
  ends: f64,
  scratch: usize,
  asked: usize,
  range: i32,
  from: usize,
  to: usize,
): void {
  const sums = scratch + <usize>range * SCRATCH;
  const held = sums + 24;
  const level = part.level;
  const own = word(level, OWN);
  const starts = word(level, STARTS);
  for (let y = from; y < to; y++) {
    const last = word(word(level, ROWS), (y + 1) << 2);
    for (let k = word(word(level, ROWS), y << 2); k < last; k++) {
      let cell = <i32>(word(starts, k << 2) >> 1);
      const end = <i32>(word(starts, (k + 1) << 2) >> 1);
      let p = firstPixel(copies, part, y, k);
      for (; cell < end; cell++, p++) {
        addTo(own, cell, tie);
        if (isCopiedWhole(copies, p)) continue;
        const rim = askedSteps<T>(copies, p, ring, ends, sums, held);
        addTo(own, cell, (ring - 1) * <f64>rim);
        for (let c = 0; c < copies.colours; c++)
          putValue<V>(asked, LANES * cell + c, load<f64>(sums + (<usize>c << 3)));
        scale(word(level, RIGHT), cell, load<f64>(held));
        scale(word(level, BELOW), cell, load<f64>(held, 16));
      }
    }
  }
}

/** Whether all neighbours of a site pixel are copied along with it: then nothing is asked of it. */
@inline
function isCopiedWhole(copies: Copies, p: i32): bool {
  const from = copies.from;
  const width = copies.width;
  if (p < width || p + width >= width * copies.height) return false;
  const s = source(from, p);
  return (
    source(from, p + 1) == s + 1 &&
    source(from, p - width) == s - width &&
    source(from, p + width) == s + width &&
    s > 0 &&
    source(from, p - 1) == s - 1
  );
}

/** @returns how many of the neighbours are the ring's */
function askedSteps<T>(
  copies: Copies,
  p: i32,
  ring: f64,
  ends: f64,
  sums: usize,
  held: usize,
): i32 {
  const from = copies.from;
  const width = copies.width;
  const s = source(from, p);
  memory.fill(sums, 0, 24);
  const x = p % width;
  let rim = 0;
  for (let side = 0; side < SIDES; side++) {
    const across = side == 0 ? 1 : side == 1 ? -1 : 0;
    const by = side == 2 ? width : side == 3 ? -width : across;
    const q = p + by;
    store<f64>(held + (<usize>side << 3), 1);
    if (x + across < 0 || x + across >= width || q < 0 || q >= width * copies.height) continue;
    const t = source(from, q);
    if (t < 0) {
      rim++;
      const mine = beside(copies, s, across, by);
      askRing<T>(copies, s, mine, q, ring, sums);
    } else if (t != s + by) {
      const mine = beside(copies, s, across, by);
      const theirs = beside(copies, t, -across, -by);
      const firm = askJoint<T>(copies, s, t, mine < 0 ? t : mine, theirs < 0 ? s : theirs, ends, sums);
      store<f64>(held + (<usize>side << 3), firm);
    }
  }
  return rim;
}

/** The pixel beside a source, -1 where there is none or it is the site's. */
function beside(copies: Copies, s: i32, across: i32, by: i32): i32 {
  const x = (s % copies.width) + across;
  const q = s + by;
  if (x < 0 || x >= copies.width || q < 0 || q >= copies.width * copies.height) return -1;
  return source(copies.from, q) >= 0 ? -1 : q;
}

@inline
function add(sums: usize, c: i32, more: f64): void {
  const at = sums + (<usize>c << 3);
  store<f64>(at, load<f64>(at) + more);
}

/** Towards the ring: the donor's own step or that from the copied tone, whichever is smaller. */
function askRing<T>(copies: Copies, s: i32, mine: i32, q: i32, ring: f64, sums: usize): void {
  const data = copies.samples;
  const channels = copies.channels;
  const colours = copies.colours;
  const i = s * channels;
  const r = q * channels;
  let j = i;
  if (mine >= 0) {
    j = mine * channels;
    let own: f64 = 0;
    let raw: f64 = 0;
    for (let c = 0; c < colours; c++) {
      const here = sample<T>(data, i + c);
      own += abs(here - sample<T>(data, j + c));
      raw += abs(here - sample<T>(data, r + c));
    }
    if (own > raw) return;
  }
  for (let c = 0; c < colours; c++)
    add(sums, c, ring * (sample<T>(data, r + c) - sample<T>(data, j + c)));
}

/** Across a joint: the mean of what both sources show, less the step that was copied. @returns how firmly it is held together */
function askJoint<T>(
  copies: Copies,
  s: i32,
  t: i32,
  mine: i32,
  theirs: i32,
  ends: f64,
  sums: usize,
): f64 {
  const data = copies.samples;
  const channels = copies.channels;
  const colours = copies.colours;
  const i = s * channels;
  const j = t * channels;
  const k = mine * channels;
  const l = theirs * channels;
  let most: f64 = 0;
  for (let c = 0; c < colours; c++) most = max(most, abs(half<T>(data, i + c, j + c, k + c, l + c)));
  const apart = (most / ends) * (most / ends);
  const firm = 1 / (1 + apart * apart);
  for (let c = 0; c < colours; c++) add(sums, c, firm * half<T>(data, i + c, j + c, k + c, l + c));
  return firm;
}

@inline
function half<T>(data: usize, i: i32, j: i32, k: i32, l: i32): f64 {
  return (sample<T>(data, j) - sample<T>(data, k) + sample<T>(data, l) - sample<T>(data, i)) / 2;
}
