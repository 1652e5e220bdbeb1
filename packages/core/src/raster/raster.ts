/** Sample storage: 8-bit and 16-bit unsigned integers, or floats on the scale 0..1. */
export type Samples = Uint8Array | Uint16Array | Float32Array;

/** 1 grey, 2 grey + alpha, 3 RGB, 4 RGB + alpha. */
export type Channels = 1 | 2 | 3 | 4;

/**
 * Interleaved samples, row by row, display-referred (encoded) unless a function says otherwise.
 * `data.length === width * height * channels`.
 */
export interface Raster {
  readonly width: number;
  readonly height: number;
  readonly channels: Channels;
  readonly data: Samples;
  /** Where its first pixel lies in the coordinates that rectangles are told in. @default 0, 0 */
  readonly at?: readonly [x: number, y: number];
}

/** How the samples of a picture are laid out; everything a reader needs besides the bytes. */
export interface RasterShape {
  readonly width: number;
  readonly height: number;
  readonly channels: Channels;
  readonly depth: Depth;
}

/** The largest picture that is worked on, px. */
export const MOST_PIXELS = 200_000_000;

/** Kind of sample storage by name, so that it can travel as plain data. */
export type Depth = 'u8' | 'u16' | 'f32';

/** The largest sample value of a storage kind (255, 65535 or 1). */
export function whiteOf(samples: Samples): number {
  const depth = depthOf(samples);
  return depth === 'u8' ? 255 : depth === 'u16' ? 65535 : 1;
}

/** Storage kind of `samples`; told by their size, which holds for arrays of other threads and realms too. */
export function depthOf(samples: Samples): Depth {
  const size: number = samples.BYTES_PER_ELEMENT;
  return size === 1 ? 'u8' : size === 2 ? 'u16' : 'f32';
}

/** Bytes one sample of storage kind `depth` takes. */
export function bytesPerSample(depth: Depth): number {
  return depth === 'u8' ? 1 : depth === 'u16' ? 2 : 4;
}

/** Number of channels that carry colour: alpha is never repaired. */
export function colourChannels(channels: Channels): 1 | 3 {
  return channels >= 3 ? 3 : 1;
}

/** Sample storage of kind `depth` over `buffer` (any ArrayBuffer, shared ones too), or newly allocated for `length` samples. */
export function samplesOf(depth: Depth, source: number | ArrayBufferLike): Samples {
  if (typeof source === 'number') {
    if (depth === 'u8') return new Uint8Array(source);
    return depth === 'u16' ? new Uint16Array(source) : new Float32Array(source);
  }
  if (depth === 'u8') return new Uint8Array(source);
  return depth === 'u16' ? new Uint16Array(source) : new Float32Array(source);
}

/** A raster of zeros. @throws RangeError when a side is not a positive integer. */
export function createRaster(
  width: number,
  height: number,
  channels: Channels,
  depth: Depth = 'u8',
): Raster {
  if (!Number.isInteger(width) || !Number.isInteger(height) || width < 1 || height < 1)
    throw new RangeError(`a raster needs positive whole sides, got ${width} x ${height}`);
  return { width, height, channels, data: samplesOf(depth, width * height * channels) };
}

/** The samples as bytes, in the machine's order. */
export function sampleBytes({ buffer, byteOffset, byteLength }: Samples): Uint8Array {
  return new Uint8Array(buffer, byteOffset, byteLength);
}
