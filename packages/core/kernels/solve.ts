// Multigrid on masks, four right-hand sides at once: see src/solve/multigrid.ts for what it does and why.
export { number, weigh } from './solve/prepare';
export { cycle, down, up } from './solve/cycle';
export { advance, dot, multiply, step } from './solve/gradients';
