export * from './carrier.js';
export * from './decode.js';
export * from './encode.js';
export * from './openraster.js';
export * from './problem.js';
export * from './shared.js';
export * from './tile.js';
export * from './xmp.js';
