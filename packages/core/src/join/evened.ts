import { toEncoded, toLinear } from '../colour/srgb.js';
import type { Raster } from '../raster/raster.js';
import { squaredFrom } from './light.js';

const STEPS = 2048;
/** Linear values of encoded ones 0..1. */
const LINEAR = Float32Array.from({ length: STEPS + 2 }, (_, i) => toLinear(i / STEPS));
/** Encoded values of the square roots of linear ones 0..1.5^2; the root keeps the dark end fine enough. */
const REACH = 1.5;
const ENCODED = Float32Array.from({ length: STEPS + 2 }, (_, i) =>
  toEncoded((REACH * (i / STEPS)) ** 2),
);

/**
 * A frame with its exposure and the lens's falloff taken off, in linear light.
 * @param frame floats 0..1, changed in place
 * @param gains what each channel is multiplied by
 */
export function evened(
  frame: Raster,
  gains: readonly number[],
  falloff: readonly [number, number],
): Raster {
  const { width, height, channels, data } = frame;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const r = squaredFrom(frame, x, y);
      const lift = Math.exp(-(falloff[0] + falloff[1] * r) * r);
      for (let c = 0; c < channels; c++, i++) {
        const at = data[i]! * STEPS;
        const k = at | 0;
        const linear = LINEAR[k]! + (at - k) * (LINEAR[k + 1]! - LINEAR[k]!);
        const root = Math.min(
          STEPS,
          (Math.sqrt(linear * lift * (gains[c] ?? gains[0]!)) / REACH) * STEPS,
        );
        const j = root | 0;
        data[i] = ENCODED[j]! + (root - j) * (ENCODED[j + 1]! - ENCODED[j]!);
      }
    }
  return frame;
}
