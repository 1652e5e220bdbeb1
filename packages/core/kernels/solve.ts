// Multigrid on masks, four right-hand sides at once: see src/solve/multigrid.ts for what it does and why.
export { prepare } from './solve/prepare';
export { cycle } from './solve/cycle';
export { dot, advance, step } from './solve/gradients';
