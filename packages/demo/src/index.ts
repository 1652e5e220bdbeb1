export * from './scenario.js';
export * from './stand-ins.js';
