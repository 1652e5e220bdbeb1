// Edges that run into a site: twin of src/find/plain/edge.ts. See src/find/edges.ts for what and why.
import { lumaOf } from './find/luma';

export { rim } from './find/rim';
export { edges } from './find/edges';

export function lumaBytes(
  samples: usize,
  count: i32,
  channels: i32,
  colours: i32,
  scale: f64,
  grey: usize,
): void {
  lumaOf<u8>(samples, count, channels, colours, scale, grey);
}

export function lumaWords(
  samples: usize,
  count: i32,
  channels: i32,
  colours: i32,
  scale: f64,
  grey: usize,
): void {
  lumaOf<u16>(samples, count, channels, colours, scale, grey);
}

export function lumaFloats(
  samples: usize,
  count: i32,
  channels: i32,
  colours: i32,
  scale: f64,
  grey: usize,
): void {
  lumaOf<f32>(samples, count, channels, colours, scale, grey);
}
