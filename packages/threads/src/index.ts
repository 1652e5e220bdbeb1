export * from './thread-crew.js';
