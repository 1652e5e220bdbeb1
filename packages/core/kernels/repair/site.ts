// A fill's site laid out of its donor map, and what comes of it laid over the picture.

import { Copies, putValue, sample, value } from './memory';

/** A donor map, in the picture's coordinates, and what it becomes. */
@unmanaged
export class Donors {
  left: i32;
  top: i32;
  width: i32;
  /** Steps to the sources, 16 bits each; the least one where nothing is filled. */
  dx: usize;
  dy: usize;
  /** Coverage of the picture's pixels, and of the site's, 0 outside. */
  coverage: usize;
  covered: usize;
  /** 1 in the site. */
  mask: usize;
}

const NOT_FILLED: i32 = -32768;

/**
 * Lays out where the site's pixels in some rows of a donor map are copied from; outside the site nothing is changed.
 * @param strays becomes how many sources lie outside the picture, a word a range
 */
export function layDonors(
  copies: Copies,
  donors: Donors,
  strays: usize,
  range: i32,
  from: i32,
  to: i32,
): void {
  const width = copies.width;
  const height = copies.height;
  let astray = 0;
  for (let y = max(from, -donors.top); y < min(to, height - donors.top); y++)
    for (let x = max(0, -donors.left); x < min(donors.width, width - donors.left); x++) {
      const i = <usize>(y * donors.width + x) << 1;
      const dx = <i32>load<i16>(donors.dx + i);
      if (dx == NOT_FILLED) continue;
      const px = donors.left + x;
      const py = donors.top + y;
      const sx = px + dx;
      const sy = py + <i32>load<i16>(donors.dy + i);
      if (sx < 0 || sy < 0 || sx >= width || sy >= height) {
        astray++;
        continue;
      }
      const p = <usize>(py * width + px);
      store<i32>(copies.from + (p << 2), sy * width + sx);
      store<u8>(donors.mask + p, 1);
      store<u32>(donors.covered + (p << 2), load<u32>(donors.coverage + (p << 2)));
    }
  store<i32>(strays + (<usize>range << 2), astray);
}

/** Nothing is copied to some rows. */
export function blank(copies: Copies, _range: i32, from: i32, to: i32): void {
  const first = <usize>(from * copies.width) << 2;
  memory.fill(copies.from + first, 255, (<usize>(to * copies.width) << 2) - first);
}

/** Lays colours over the picture's own in some rows, as far as they are covered: see layOver in src/repair/blend.ts. */
@inline
export function layOverOf<T, V>(
  copies: Copies,
  colour: usize,
  covered: usize,
  strength: f64,
  white: f64,
  from: i32,
  to: i32,
): void {
  const channels = copies.channels;
  for (let p = from * copies.width; p < to * copies.width; p++) {
    const share = <f64>load<f32>(covered + (<usize>p << 2)) * strength;
    if (share <= 0) continue;
    for (let i = p * channels; i < p * channels + copies.colours; i++) {
      const base = sample<T>(copies.samples, i);
      const v = base + (value<V>(colour, i) - base) * share;
      const held = v < 0 ? 0 : v > white ? white : v;
      putValue<T>(copies.samples, i, white > 1 ? Math.floor(held + 0.5) : held);
    }
  }
}
