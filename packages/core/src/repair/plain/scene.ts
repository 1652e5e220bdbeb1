import { seededRandom } from '../../random/random.js';
import type { Channels, Depth } from '../../raster/raster.js';
import { createRaster, whiteOf } from '../../raster/raster.js';

/** px of a made-up scene. */
export const [WIDTH, HEIGHT] = [61, 47];
/** Windows at its corner and within it. */
export const ROOMS = [
  { x: 0, y: 0, width: 30, height: 26 },
  { x: 21, y: 12, width: 40, height: 35 },
];
/** Kinds of pictures that there are functions for. */
export const KINDS: [Depth, Channels][] = [
  ['u8', 3],
  ['u8', 1],
  ['u16', 4],
  ['f32', 2],
];

/** Noise with a ragged site that reaches the borders, copied in patches from wherever there is no site. */
export function scene(depth: Depth, channels: Channels, seed: number) {
  const random = seededRandom(seed);
  const picture = createRaster(WIDTH, HEIGHT, channels, depth);
  const white = whiteOf(picture.data);
  for (let i = 0; i < picture.data.length; i++) picture.data[i] = random.unit() * white;
  const mask = new Uint8Array(WIDTH * HEIGHT);
  for (let p = 0; p < mask.length; p++) mask[p] = random.unit() < 0.4 ? 1 : 0;
  mask.fill(1, 5 * WIDTH + 8, 5 * WIDTH + 20);
  const free = [...mask.keys()].filter((p) => !mask[p]);
  let shift = 0;
  const from = Int32Array.from(mask, (inside, p) => {
    if (!inside) return -1;
    if (random.unit() < 0.3) shift = free[random.between(0, free.length - 1)]! - p;
    const source = p + shift;
    return source >= 0 && source < mask.length && !mask[source] ? source : free[0]!;
  });
  return { picture, copies: { from, mask }, white, random };
}
