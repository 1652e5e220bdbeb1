import type { Channels, Depth, Raster } from '@tersum/core';
import { bytesPerSample, samplesOf } from '@tersum/core';

/** A raster over shared memory, so that worker threads see it without a copy. */
export function sharedRaster(
  width: number,
  height: number,
  channels: Channels,
  depth: Depth,
): Raster {
  const bytes = width * height * channels * bytesPerSample(depth);
  return { width, height, channels, data: samplesOf(depth, new SharedArrayBuffer(bytes)) };
}

/** A copy over shared memory. */
export function shareBytes(bytes: Uint8Array): Uint8Array {
  const copy = new Uint8Array(new SharedArrayBuffer(bytes.length));
  copy.set(bytes);
  return copy;
}
