// Kernels of the registration: see src/register for what they do and why. Every function ends with (part, from, to): rows,
// corners or features that it alone writes, so ranges may run on any threads.
export { across, down } from './register/blur';
export { strength } from './register/corners';
export { describe, glance, nearest } from './register/looks';
