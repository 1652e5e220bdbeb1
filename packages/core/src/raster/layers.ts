import { greyOf } from './grey.js';
import type { Raster } from './raster.js';
import { colourChannels, whiteOf } from './raster.js';
import type { Plane } from './plane.js';

/** One level of a picture: grey, and its three colours when it has any; 0..255. */
export interface Layer {
  readonly grey: Plane;
  readonly colours: readonly Plane[];
}

/** A layer's grey, and its colours pixel by pixel, null when it has none: of large pictures few are asked for. */
export interface Reading {
  readonly grey: Plane;
  /** @returns 0..255 @param channel 0, 1 or 2 */
  readonly colourOf: ((pixel: number, channel: number) => number) | null;
}

/** A layer as it is read. */
export function readingIn({ grey, colours }: Layer): Reading {
  const planes = colours.map(({ values }) => values);
  return { grey, colourOf: planes.length ? (p, c) => planes[c]![p]! : null };
}

/** The picture itself as it is read. */
export function readingAt(picture: Raster): Reading {
  const { channels, data } = picture;
  const grey = greyAt(picture, 0);
  if (colourChannels(channels) < 3) return { grey, colourOf: null };
  const scale = 255 / whiteOf(data);
  return { grey, colourOf: (p, c) => Math.fround(data[p * channels + c]! * scale) };
}

/** One halving of a picture, taken straight from its samples: means of blocks; odd last rows and columns are left out. */
export function layerAt(picture: Raster, level: number): Layer {
  const { width, channels, data } = picture;
  const side = 1 << level;
  const w = Math.max(1, width >> level);
  const h = Math.max(1, picture.height >> level);
  const scale = 255 / whiteOf(data) / (side * side);
  const count = colourChannels(channels) < 3 ? 1 : 4;
  const planes = Array.from({ length: count }, () => new Float32Array(w * h)) as [
    Float32Array,
    ...Float32Array[],
  ];
  if (count === 1) means(picture, level, planes[0], scale);
  else if (level === 0) samples(picture, planes, scale);
  else threeMeans(picture, level, planes, scale);
  const [grey, ...colours] = planes.map((values) => ({ width: w, height: h, values })) as [
    Plane,
    ...Plane[],
  ];
  return { grey, colours };
}

/** The grey of {@link layerAt} alone. */
export function greyAt(picture: Raster, level: number): Plane {
  if (level > 0) return layerAt(picture, level).grey;
  return { width: picture.width, height: picture.height, values: greyOf(picture) };
}

/** Sums of the first channel over square blocks, scaled. */
function means(
  { data, width, height, channels }: Raster,
  level: number,
  out: Float32Array,
  scale: number,
): void {
  const side = 1 << level;
  const w = Math.max(1, width >> level);
  const rows = Math.max(1, height >> level) * side;
  for (let y = 0; y < rows; y++) {
    const to = (y >> level) * w;
    for (let x = 0, i = y * width * channels; x < w; x++) {
      let sum = 0;
      for (let u = 0; u < side; u++, i += channels) sum += data[i]!;
      out[to + x]! += sum * scale;
    }
  }
}

/** ITU-R BT.601 */
const greyFrom = (r: number, g: number, b: number): number => 0.299 * r + 0.587 * g + 0.114 * b;

/** Grey and three colours in one pass: a large picture does not stay in the cache until the next. */
function samples({ data, channels }: Raster, planes: readonly Float32Array[], scale: number): void {
  const [grey, r, g, b] = planes as [Float32Array, Float32Array, Float32Array, Float32Array];
  for (let p = 0, i = 0; p < grey.length; p++, i += channels) {
    const red = Math.fround(data[i]! * scale);
    const green = Math.fround(data[i + 1]! * scale);
    const blue = Math.fround(data[i + 2]! * scale);
    r[p] = red;
    g[p] = green;
    b[p] = blue;
    grey[p] = greyFrom(red, green, blue);
  }
}

/** The same over square blocks. */
function threeMeans(
  { data, width, height, channels }: Raster,
  level: number,
  planes: readonly Float32Array[],
  scale: number,
): void {
  const [grey, r, g, b] = planes as [Float32Array, Float32Array, Float32Array, Float32Array];
  const side = 1 << level;
  const w = Math.max(1, width >> level);
  const rows = Math.max(1, height >> level) * side;
  for (let y = 0; y < rows; y++) {
    const to = (y >> level) * w;
    for (let x = to, i = y * width * channels; x < to + w; x++) {
      let [sumR, sumG, sumB] = [0, 0, 0];
      for (let u = 0; u < side; u++, i += channels) {
        sumR += data[i]!;
        sumG += data[i + 1]!;
        sumB += data[i + 2]!;
      }
      r[x]! += sumR * scale;
      g[x]! += sumG * scale;
      b[x]! += sumB * scale;
    }
    if ((y + 1) % side === 0)
      for (let x = to; x < to + w; x++) grey[x] = greyFrom(r[x]!, g[x]!, b[x]!);
  }
}
