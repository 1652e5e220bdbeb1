// How a picture, the copies in it and the cells of a part lie in memory.

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

/** The cells of a part, numbered from 1 as their pixels are read, and their weights. */
@unmanaged
export class Part {
  /** Cells and one more. */
  cells: i32;
  /** Runs of pixels, two words each. */
  runs: usize;
  count: i32;
  own: usize;
  right: usize;
  below: usize;
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

@inline
export function firstOf(runs: usize, k: i32): i32 {
  return load<i32>(runs + (<usize>k << 3));
}

@inline
export function lastOf(runs: usize, k: i32): i32 {
  return load<i32>(runs + (<usize>k << 3), 4);
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
