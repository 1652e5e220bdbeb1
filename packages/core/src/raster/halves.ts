import type { Layer } from './layers.js';
import { layerAt } from './layers.js';
import type { Plane } from './plane.js';
import { halved } from './plane.js';
import type { Raster } from './raster.js';
import { colourChannels, whiteOf } from './raster.js';

/** A picture and its half, from which all coarser layers come: a large picture is read but once. */
export interface Halves {
  readonly picture: Raster;
  readonly half: Layer;
}

/** The picture with its half. */
export function halvesOf(picture: Raster): Halves {
  const half = roomForHalf(picture);
  halveRows(picture, half, 0, half.grey.height);
  return { picture, half };
}

/**
 * An empty half of a picture; an odd last row or column is left out.
 * @param room memory for so many values; shared where several threads fill it
 */
export function roomForHalf(
  { width, height, channels }: Raster,
  room: (values: number) => Float32Array = (values) => new Float32Array(values),
): Layer {
  const w = Math.max(1, width >> 1);
  const h = Math.max(1, height >> 1);
  const plane = (): Plane => ({ width: w, height: h, values: room(w * h) });
  const colours = colourChannels(channels) < 3 ? [] : [plane(), plane(), plane()];
  return { grey: plane(), colours };
}

/** Fills some rows of a half, 0..255: means of two by two pixels. @param to the first row that is left */
export function halveRows(picture: Raster, half: Layer, from: number, to: number): void {
  const scale = 255 / whiteOf(picture.data) / 4;
  if (!half.colours.length) grey(picture, half, from, to, scale);
  else inColour(picture, half, from, to, scale);
}

function grey(
  { width, height, channels, data }: Raster,
  { grey }: Layer,
  from: number,
  to: number,
  scale: number,
): void {
  const right = width > 1 ? channels : 0;
  const down = height > 1 ? width * channels : 0;
  for (let y = from; y < to; y++) {
    let i = 2 * y * width * channels;
    for (let p = y * grey.width; p < (y + 1) * grey.width; p++, i += 2 * channels) {
      const j = i + down;
      grey.values[p] = (data[i]! + data[i + right]! + data[j]! + data[j + right]!) * scale;
    }
  }
}

function inColour(
  { width, height, channels, data }: Raster,
  { grey, colours }: Layer,
  from: number,
  to: number,
  scale: number,
): void {
  const w = grey.width;
  const luma = grey.values;
  const [r, g, b] = colours.map(({ values }) => values) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const right = width > 1 ? channels : 0;
  const down = height > 1 ? width * channels : 0;
  for (let y = from; y < to; y++) {
    let i = 2 * y * width * channels;
    for (let p = y * w; p < (y + 1) * w; p++, i += 2 * channels) {
      const k = i + right;
      const j = i + down;
      const l = j + right;
      const red = (data[i]! + data[k]! + data[j]! + data[l]!) * scale;
      const green = (data[i + 1]! + data[k + 1]! + data[j + 1]! + data[l + 1]!) * scale;
      const blue = (data[i + 2]! + data[k + 2]! + data[j + 2]! + data[l + 2]!) * scale;
      r[p] = red;
      g[p] = green;
      b[p] = blue;
      // ITU-R BT.601
      luma[p] = 0.299 * red + 0.587 * green + 0.114 * blue;
    }
  }
}

/** A layer of the picture: itself, its half, or the half halved as often as it takes. */
export function layerOf({ picture, half }: Halves, level: number): Layer {
  if (level === 0) return layerAt(picture, 0);
  let layer = half;
  for (let k = 1; k < level; k++) layer = halvedLayer(layer);
  return layer;
}

/** A level and the next ones, each half the size, while they tell anything. @param levels how many */
export function layersOf(halves: Halves, level: number, levels: number): Layer[] {
  const layers = [layerOf(halves, level)];
  if (
    level === 0 &&
    levels > 1 &&
    Math.min(halves.picture.width, halves.picture.height) >= SMALLEST
  )
    layers.push(halves.half);
  while (layers.length < levels) {
    const last = layers.at(-1)!;
    if (Math.min(last.grey.width, last.grey.height) < SMALLEST) break;
    layers.push(halvedLayer(last));
  }
  return layers;
}

/** What is smaller is halved no further, px. */
const SMALLEST = 32;

const halvedLayer = ({ grey, colours }: Layer): Layer => ({
  grey: halved(grey),
  colours: colours.map(halved),
});
