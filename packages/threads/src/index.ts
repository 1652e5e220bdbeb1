export * from './thread-crew.js';
export * from './compiling.js';
