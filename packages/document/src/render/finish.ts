import type { Quad, Raster, Rect, Task } from '@tersum/core';
import {
  createRaster,
  depthOf,
  frameOf,
  intersect,
  portionOf,
  throughMap,
  toned,
} from '@tersum/core';
import type { Records } from '../schema/records.js';
import type { Tone } from '../schema/tone.js';
import type { Patch } from './patch.js';
import { compose } from './patch.js';

/** The steps of the tone stack in the order they work. */
export function tonesInOrder({ tones }: Pick<Records, 'tones'>): Tone[] {
  return [...tones].sort((a, b) => a.position - b.position || (a.id < b.id ? -1 : 1));
}

/** What is done to a picture once it is mended. */
export type Finishing = Pick<Records, 'tones' | 'frames'> & {
  /** Size of the original, where the picture lies on another canvas: tone steps are placed by it. */
  readonly size?: { readonly width: number; readonly height: number };
};

/**
 * The whole picture as it is delivered: repairs, then the tone stack, then the frame, at its own depth. Without tone
 * steps and frame every sample outside the repairs is the original's.
 * @throws Cancelled
 */
export function finished(
  original: Raster,
  patches: readonly Patch[],
  finishing: Finishing,
  task?: Task,
): Raster {
  const { at = [0, 0] } = original;
  const mended = { ...compose(original, patches, frameOf(original)), at };
  const { size = original } = finishing;
  const { at: _, ...done } = toned(mended, tonesInOrder(finishing), portionOf(task, 0, 0.8), size);
  const [frame] = finishing.frames;
  if (!frame) return done;
  const quad = frame.quad.map(([x, y]) => [x - at[0], y - at[1]]) as unknown as Quad;
  return throughMap(done, quad, frame.width, frame.height);
}

/**
 * A part of the mended picture, reduced to means of square blocks, at the picture's depth (8-bit pictures as 16 bits, so
 * that means keep their fractions). Alpha is left out.
 * @param rect full px @param factor full px a pixel stands for, a whole number
 */
export function reducedPart(
  original: Raster,
  patches: readonly Patch[],
  rect: Rect,
  factor: number,
): Raster {
  const inside = intersect(rect, frameOf(original));
  const width = Math.max(1, Math.floor(inside.width / factor));
  const height = Math.max(1, Math.floor(inside.height / factor));
  const colours = original.channels >= 3 ? 3 : 1;
  const out = createRaster(width, height, colours, 'u16');
  const scale = (depthOf(original.data) === 'u8' ? 257 : 1) / (factor * factor);
  const sums = new Float64Array(width * colours);
  for (let y = 0; y < height; y++) {
    const strip = { ...inside, y: inside.y + y * factor, height: Math.min(factor, inside.height) };
    const { data, channels } = compose(original, patches, strip);
    sums.fill(0);
    for (let v = 0; v < strip.height; v++)
      for (let x = 0; x < width; x++) {
        let i = (v * inside.width + x * factor) * channels;
        for (let u = 0; u < factor && u < inside.width; u++, i += channels)
          for (let c = 0; c < colours; c++) sums[x * colours + c]! += data[i + c]!;
      }
    for (let k = 0; k < sums.length; k++)
      out.data[y * width * colours + k] = sums[k]! * scale + 0.5;
  }
  return out;
}
