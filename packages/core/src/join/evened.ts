import { toEncoded, toLinear } from '../colour/srgb.js';
import { convertRaster } from '../raster/convert.js';
import type { Channels, Raster } from '../raster/raster.js';
import { createRaster, depthOf } from '../raster/raster.js';

const STEPS = 2048;
/** Square roots of the linear values of encoded ones 0..1; the root keeps the dark end fine enough. */
const ROOTS = Float32Array.from({ length: STEPS + 2 }, (_, i) => Math.sqrt(toLinear(i / STEPS)));
/** The same of 8-bit codes. */
const CODES = Float32Array.from({ length: 256 }, (_, i) => Math.sqrt(toLinear(i / 255)));
/** Encoded values of roots 0..1.5. */
const REACH = 1.5;
const ENCODED = Float32Array.from({ length: STEPS + 2 }, (_, i) =>
  toEncoded((REACH * (i / STEPS)) ** 2),
);
/** Steps in which the lens's falloff is told from the middle to the corner. */
const RINGS = 1024;

/**
 * A frame with its exposure and the lens's falloff taken off, in linear light.
 * @param gains what each channel is multiplied by
 * @returns floats 0..1
 */
export function evened(
  frame: Raster,
  channels: Channels,
  gains: readonly number[],
  falloff: readonly [number, number],
): Raster {
  const { width, height, data } = convertRaster(frame, channels, depthOf(frame.data));
  const out = createRaster(width, height, channels, 'f32');
  const to = out.data;
  const plain = depthOf(data) === 'u8';
  const scale = plain ? 1 : depthOf(data) === 'u16' ? STEPS / 65535 : STEPS;
  const lifts = Float32Array.from({ length: RINGS + 2 }, (_, k) => {
    const r = k / RINGS;
    return (Math.sqrt(Math.exp(-(falloff[0] + falloff[1] * r) * r)) / REACH) * STEPS;
  });
  const roots = Array.from({ length: channels }, (_, c) => Math.sqrt(gains[c] ?? gains[0]!));
  const [mx, my] = [(width - 1) / 2, (height - 1) / 2];
  const rings = RINGS / (mx * mx + my * my || 1);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const r = ((x - mx) * (x - mx) + (y - my) * (y - my)) * rings;
      const n = r | 0;
      const lift = lifts[n]! + (r - n) * (lifts[n + 1]! - lifts[n]!);
      for (let c = 0; c < channels; c++, i++) {
        let own: number;
        if (plain) own = CODES[data[i]!]!;
        else {
          const at = data[i]! * scale;
          const k = at | 0;
          own = ROOTS[k]! + (at - k) * (ROOTS[k + 1]! - ROOTS[k]!);
        }
        const root = Math.min(STEPS, own * lift * roots[c]!);
        const j = root | 0;
        to[i] = ENCODED[j]! + (root - j) * (ENCODED[j + 1]! - ENCODED[j]!);
      }
    }
  return out;
}
