export * from './scenario.js';
