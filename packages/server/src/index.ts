export { createApp } from './http/app.js';
export { closeServices, createServices } from './services.js';
export type { Services } from './services.js';
