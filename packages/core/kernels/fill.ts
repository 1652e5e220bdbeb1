// Kernels of the fill: see src/fill for what they do and why. Every function that takes (part, from, to) works on one
// range of a list and touches nothing that another range writes, so ranges may run on any threads.
export { survey, texture, halve, soften, depths, trusts } from './fill/prepare';
export { measure, improve } from './fill/match';
export { vote, agree } from './fill/vote';
export { settle } from './fill/settle';
