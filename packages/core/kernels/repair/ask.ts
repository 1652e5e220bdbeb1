// What is asked of the correction to copied tones: see evenTones in src/repair/even-tones.ts for what it is and why.

import { addTo, Copies, firstOf, lastOf, Part, putValue, sample, scale, source } from './memory';

/** Values a cell holds. */
const LANES: i32 = 4;
/** Right, left, below, above. */
const SIDES: i32 = 4;

/**
 * Lays down what is asked of every cell of a part, and what ties it to its copied tone and to the ring.
 * @param sums room for three doubles @param held room for four
 */
@inline
export function askOf<T, V>(
  copies: Copies,
  part: Part,
  tie: f64,
  ring: f64,
  ends: f64,
  sums: usize,
  held: usize,
  asked: usize,
): void {
  let cell = 0;
  for (let k = 0; k < part.count; k++)
    for (let p = firstOf(part.runs, k); p < lastOf(part.runs, k); p++) {
      cell++;
      addTo(part.own, cell, tie);
      if (isCopiedWhole(copies, p)) continue;
      const rim = askedSteps<T>(copies, p, ring, ends, sums, held);
      addTo(part.own, cell, (ring - 1) * <f64>rim);
      for (let c = 0; c < copies.colours; c++)
        putValue<V>(asked, LANES * cell + c, load<f64>(sums + (<usize>c << 3)));
      scale(part.right, cell, load<f64>(held));
      scale(part.below, cell, load<f64>(held, 16));
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
