import { greyOf } from './grey.js';
import type { Raster } from './raster.js';
import { colourChannels, whiteOf } from './raster.js';
import type { Plane } from './plane.js';
import { halved } from './plane.js';

/** One level of a picture: grey, and its three colours when it has any; 0..255. */
export interface Layer {
  readonly grey: Plane;
  readonly colours: readonly Plane[];
}

/** One halving of a picture, taken straight from its samples: means of blocks; odd last rows and columns are left out. */
export function layerAt(picture: Raster, level: number): Layer {
  const { width, channels, data } = picture;
  const side = 1 << level;
  const w = Math.max(1, width >> level);
  const h = Math.max(1, picture.height >> level);
  const count = colourChannels(channels) < 3 ? 1 : 3;
  const planes = Array.from({ length: count }, () => new Float32Array(w * h));
  const scale = 255 / whiteOf(data) / (side * side);
  for (let c = 0; c < count; c++) blockMeans(picture, c, level, planes[c]!, scale);
  return layerFrom(planes, w, h);
}

/** The grey of {@link layerAt} alone. */
export function greyAt(picture: Raster, level: number): Plane {
  if (level > 0) return layerAt(picture, level).grey;
  return { width: picture.width, height: picture.height, values: greyOf(picture) };
}

/** Sums of one channel over square blocks, scaled. */
function blockMeans(
  picture: Raster,
  channel: number,
  level: number,
  out: Float32Array,
  scale: number,
): void {
  const { data, width, channels } = picture;
  const side = 1 << level;
  const w = Math.max(1, width >> level);
  const rows = Math.max(1, picture.height >> level) * side;
  for (let y = 0; y < rows; y++) {
    const from = y * width * channels + channel;
    const to = (y >> level) * w;
    if (side === 1) {
      for (let x = 0, i = from; x < w; x++, i += channels) out[to + x] = data[i]! * scale;
      continue;
    }
    for (let x = 0, i = from; x < w; x++) {
      let sum = 0;
      for (let u = 0; u < side; u++, i += channels) sum += data[i]!;
      out[to + x] = out[to + x]! + sum * scale;
    }
  }
}

/** A level and the next ones, each half the size. @param levels how many */
export function layersFrom(picture: Raster, level: number, levels: number): Layer[] {
  const layers = [layerAt(picture, level)];
  while (layers.length < levels) {
    const { grey, colours } = layers.at(-1)!;
    if (Math.min(grey.width, grey.height) < 32) break;
    layers.push({ grey: halved(grey), colours: colours.map(halved) });
  }
  return layers;
}

function layerFrom(planes: readonly Float32Array[], width: number, height: number): Layer {
  if (planes.length < 3) return { grey: { width, height, values: planes[0]! }, colours: [] };
  const [r, g, b] = planes as [Float32Array, Float32Array, Float32Array];
  const values = new Float32Array(r.length);
  // ITU-R BT.601
  for (let p = 0; p < values.length; p++) values[p] = 0.299 * r[p]! + 0.587 * g[p]! + 0.114 * b[p]!;
  return {
    grey: { width, height, values },
    colours: planes.map((v) => ({ width, height, values: v })),
  };
}
