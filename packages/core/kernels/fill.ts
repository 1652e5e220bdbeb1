// Kernels of the fill: see src/fill for what they do and why. Every function that takes (part, from, to) works on one
// range of a list and touches nothing that another range writes, so ranges may run on any threads.
import { quartersOf } from './fill/lay';

export { depths, halve, list, survey, trusts } from './fill/prepare';
export { lumas, soften, steps, texture } from './fill/texture';
export { measure, improve } from './fill/match';
export { vote, agree } from './fill/vote';
export { settle } from './fill/settle';
export { inwards, byChance, fromCoarse } from './fill/begin';
export { middle, tell } from './fill/tell';

export function quartersBytes(
  samples: usize,
  hole: usize,
  pixels: usize,
  channels: i32,
  scale: f64,
  _part: i32,
  from: usize,
  to: usize,
): void {
  quartersOf<u8>(samples, hole, pixels, channels, scale, from, to);
}

export function quartersWords(
  samples: usize,
  hole: usize,
  pixels: usize,
  channels: i32,
  scale: f64,
  _part: i32,
  from: usize,
  to: usize,
): void {
  quartersOf<u16>(samples, hole, pixels, channels, scale, from, to);
}

export function quartersFloats(
  samples: usize,
  hole: usize,
  pixels: usize,
  channels: i32,
  scale: f64,
  _part: i32,
  from: usize,
  to: usize,
): void {
  quartersOf<f32>(samples, hole, pixels, channels, scale, from, to);
}
