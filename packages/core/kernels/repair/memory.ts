// How a picture, the copies in it and the cells of a part lie in memory.

import { PIXELS, WIDTH, word } from '../solve/memory';

/** A picture and where pixels of its site are copied from. */
@unmanaged
export class Copies {
  samples: usize;
  width: i32;
  height: i32;
  channels: i32;
  /** Channels that carry colour. */
  colours: i32;
  /** For every pixel the one it is copied from, negative outside the site. */
  from: usize;
}

/** A part of the site: a window of the picture, and the level of a system that its pixels are the unknowns of. */
@unmanaged
export class Part {
  level: usize;
  /** The window's corner in the picture, px. */
  left: i32;
  top: i32;
}

/** A sample of whatever kind. */
@inline
export function sample<T>(data: usize, i: i32): f64 {
  return <f64>load<T>(data + <usize>i * sizeof<T>());
}

@inline
export function value<V>(values: usize, i: i32): f64 {
  return <f64>load<V>(values + <usize>i * sizeof<V>());
}

@inline
export function putValue<V>(values: usize, i: i32, v: f64): void {
  store<V>(values + <usize>i * sizeof<V>(), <V>v);
}

/** The pixel that a pixel of the site is copied from, negative outside the site. */
@inline
export function source(from: usize, p: i32): i32 {
  return load<i32>(from + (<usize>p << 2));
}

/** The picture's pixel that a run of a part begins with. @param y row of the part's window */
@inline
export function firstPixel(copies: Copies, part: Part, y: usize, k: usize): i32 {
  const x = word(word(part.level, PIXELS), k << 3) - y * word(part.level, WIDTH);
  return (part.top + <i32>y) * copies.width + part.left + <i32>x;
}

@inline
export function scale(weights: usize, cell: i32, by: f64): void {
  const at = weights + (<usize>cell << 2);
  store<f32>(at, <f32>(<f64>load<f32>(at) * by));
}

@inline
export function addTo(weights: usize, cell: i32, more: f64): void {
  const at = weights + (<usize>cell << 2);
  store<f32>(at, <f32>(<f64>load<f32>(at) + more));
}
