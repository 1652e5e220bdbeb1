import type { Layer, Reading } from './layers.js';
import { layerAt, readingAt, readingIn } from './layers.js';
import type { Plane } from './plane.js';
import { halved, halvePlaneRows } from './plane.js';
import type { Raster } from './raster.js';
import { colourChannels, whiteOf } from './raster.js';

/** A picture and its halvings, each half the size of the one before: a large picture is read but once. */
export interface Halves {
  readonly picture: Raster;
  readonly layers: readonly Layer[];
}

/** So many halvings are kept; coarser ones are quickly made. */
const KEPT = 5;
/** What is smaller is halved no further, px. */
const SMALLEST = 32;

/** The picture with its halvings. */
export function halvesOf(picture: Raster): Halves {
  const halves = roomForHalves(picture);
  halveRows(halves, 0, halves.layers[0]!.grey.height);
  return halves;
}

/**
 * A picture with empty halvings; odd last rows and columns are left out.
 * @param room memory for so many values; shared where several threads fill it
 */
export function roomForHalves(
  picture: Raster,
  room: (values: number) => Float32Array = (values) => new Float32Array(values),
): Halves {
  const count = colourChannels(picture.channels) < 3 ? 0 : 3;
  const layers: Layer[] = [];
  let [width, height] = [picture.width, picture.height];
  do {
    [width, height] = [Math.max(1, width >> 1), Math.max(1, height >> 1)];
    const plane = (): Plane => ({ width, height, values: room(width * height) });
    layers.push({ grey: plane(), colours: Array.from({ length: count }, plane) });
  } while (layers.length < KEPT && Math.min(width, height) >= SMALLEST);
  return { picture, layers };
}

/** Rows of the first halving that can be filled apart from one another, from and to the first that is left. */
export function stripsOf({ layers }: Halves, strips: number): [from: number, to: number][] {
  const { height } = layers[0]!.grey;
  // Rows that all coarser halvings have a whole row of.
  const whole = 2 ** (layers.length - 1);
  const row = (k: number): number =>
    k === strips ? height : Math.min(height, whole * Math.round((k * height) / strips / whole));
  return Array.from({ length: strips }, (_, k) => [row(k), row(k + 1)]);
}

/**
 * Fills some rows of the first halving, 0..255, and what follows from them of the others: means of two by two pixels.
 * @param from and to: see {@link stripsOf}
 */
export function halveRows({ picture, layers }: Halves, from: number, to: number): void {
  const first = layers[0]!;
  const scale = 255 / whiteOf(picture.data) / 4;
  if (!first.colours.length) grey(picture, first, from, to, scale);
  else inColour(picture, first, from, to, scale);
  const isLast = to === first.grey.height;
  for (let k = 1; k < layers.length; k++) {
    const [finer, layer] = [planesOf(layers[k - 1]!), planesOf(layers[k]!)];
    layer.forEach((plane, c) =>
      halvePlaneRows(finer[c]!, plane, from >> k, isLast ? plane.height : to >> k),
    );
  }
}

const planesOf = ({ grey, colours }: Layer): Plane[] => [grey, ...colours];

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

/** A layer of the picture: itself, or the picture halved as often as it takes. */
export function layerOf({ picture, layers }: Halves, level: number): Layer {
  if (level === 0) return layerAt(picture, 0);
  let layer = layers[Math.min(level, layers.length) - 1]!;
  for (let k = layers.length; k < level; k++) layer = halvedLayer(layer);
  return layer;
}

/** The same as far as it is read for few of its pixels. */
export function readingOf(halves: Halves, level: number): Reading {
  return level === 0 ? readingAt(halves.picture) : readingIn(layerOf(halves, level));
}

/** A level and the next ones, each half the size, while they tell anything. @param levels how many */
export function layersOf(halves: Halves, level: number, levels: number): Layer[] {
  const layers = [layerOf(halves, level)];
  while (layers.length < levels) {
    const { width, height } = layers.at(-1)!.grey;
    if (Math.min(width, height) < SMALLEST) break;
    layers.push(layerOf(halves, level + layers.length));
  }
  return layers;
}

const halvedLayer = ({ grey, colours }: Layer): Layer => ({
  grey: halved(grey),
  colours: colours.map(halved),
});
