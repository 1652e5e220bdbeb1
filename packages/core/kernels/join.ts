// Kernels of the join: see src/join/compose.ts for what they do and why. A pixel is four floats: up to three channels, 0..1,
// and how much it counts. Every function ends with (part, from, to), rows that it alone writes, so rows may run on any
// threads.
export { even } from './join/even';
export { claim, lay } from './join/lay';
export { average, blend, encode, reduce, rest, settle } from './join/bands';
