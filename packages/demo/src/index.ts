export * from './camera.js';
export * from './scenario.js';
export * from './stand-ins.js';
