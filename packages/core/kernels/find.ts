// Edges that run into a site: twin of src/find/plain/edge.ts. See src/find/edges.ts for what and why.
export { rim } from './find/rim';
export { edges } from './find/edges';
