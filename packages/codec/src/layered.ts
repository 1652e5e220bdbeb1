import type { Point, Raster, Rect } from '@tersum/core';
import {
  bordersOf,
  colourChannels,
  createRaster,
  crop,
  depthOf,
  frameOf,
  grow,
  intersect,
  isEmpty,
  MOST_PIXELS,
  unite,
  whiteOf,
} from '@tersum/core';
import type { LayeredPicture, OpenLayer } from './openraster.js';
import { UserProblem } from './problem.js';

/** A layer as something that was copied onto what lies below it. */
export interface LaidLayer {
  readonly name: string;
  readonly visible: boolean;
  /** Outlines round all it covers, a little beyond. */
  readonly outlines: readonly (readonly Point[])[];
  /** Place of a pixel in the sheet less its place in the picture, px. */
  readonly shift: readonly [number, number];
}

/** A layered picture taken apart: what lies lowest, and a sheet of what each layer shows over all below it. */
export interface LaidOut {
  readonly base: Raster;
  /** Null where no layer covers anything. */
  readonly sheet: Raster | null;
  readonly layers: readonly LaidLayer[];
}

/** px by which outlines pass what a layer covers, so that none of it is cut off. */
const BEYOND = 2;

/**
 * Takes a layered picture apart so that its layers stay layers: copying each from the sheet, in order, gives the merged
 * picture. Layers are laid over each other plainly, by alpha and opacity.
 * @throws UserProblem when the layers come to more than can be held
 */
export function laidOut({ width, height, layers }: LayeredPicture): LaidOut {
  const [lowest, ...upper] = layers;
  const colour = layers.some(({ raster }) => colourChannels(raster.channels) === 3);
  const deep = layers.some(({ raster }) => depthOf(raster.data) === 'u16');
  const canvas = createRaster(width, height, colour ? 3 : 1, deep ? 'u16' : 'u8');
  canvas.data.fill(whiteOf(canvas.data));
  if (lowest) lay(canvas, lowest, frameOf(canvas));
  const base = { ...canvas, data: canvas.data.slice() };
  const crops: Raster[] = [];
  const laid: LaidLayer[] = [];
  let [top, pixels] = [0, 0];
  for (const layer of upper) {
    const covered = coveredBy(layer, width, height);
    const rect = intersect(grow(boxOf(covered, width), BEYOND + 1), frameOf(canvas));
    if (!covered.length || isEmpty(rect)) continue;
    pixels += rect.width * rect.height;
    if (pixels > MOST_PIXELS)
      throw new UserProblem(
        413,
        'The layers of this file come to more than 200 megapixels. Merge some of them first.',
      );
    const shown = layer.visible ? canvas : { ...canvas, data: canvas.data.slice() };
    lay(shown, layer, rect);
    crops.push(crop(shown, rect));
    laid.push({
      name: layer.name,
      visible: layer.visible,
      outlines: bordersOf(grown(covered, rect, width), width),
      shift: [-rect.x, top - rect.y],
    });
    top += rect.height;
  }
  return { base, sheet: crops.length ? stacked(crops) : null, layers: laid };
}

/** Lays the part of a layer that is in a rectangle over a canvas (Porter and Duff 1984, source over). */
function lay(canvas: Raster, { x, y, opacity, raster }: OpenLayer, within: Rect): void {
  const rect = intersect({ x, y, width: raster.width, height: raster.height }, within);
  const colours = colourChannels(raster.channels);
  const hasAlpha = raster.channels === 2 || raster.channels === 4;
  const scale = whiteOf(canvas.data) / whiteOf(raster.data);
  const white = whiteOf(raster.data);
  for (let v = rect.y; v < rect.y + rect.height; v++)
    for (let u = rect.x; u < rect.x + rect.width; u++) {
      const from = ((v - y) * raster.width + u - x) * raster.channels;
      const to = (v * canvas.width + u) * canvas.channels;
      const share = opacity * (hasAlpha ? raster.data[from + colours]! / white : 1);
      for (let c = 0; c < canvas.channels; c++) {
        const value = raster.data[from + (colours === 1 ? 0 : c)]! * scale;
        const below = canvas.data[to + c]!;
        canvas.data[to + c] =
          share === 1 ? Math.round(value) : Math.round(below + (value - below) * share);
      }
    }
}

/** Pixels of the picture that a layer changes, in reading order. */
function coveredBy(
  { x, y, opacity, raster }: OpenLayer,
  width: number,
  height: number,
): Int32Array {
  const rect = intersect(
    { x, y, width: raster.width, height: raster.height },
    { x: 0, y: 0, width, height },
  );
  const hasAlpha = raster.channels === 2 || raster.channels === 4;
  const covered: number[] = [];
  if (opacity > 0)
    for (let v = rect.y; v < rect.y + rect.height; v++)
      for (let u = rect.x; u < rect.x + rect.width; u++) {
        const at = ((v - y) * raster.width + u - x) * raster.channels;
        if (!hasAlpha || raster.data[at + raster.channels - 1]! > 0) covered.push(v * width + u);
      }
  return Int32Array.from(covered);
}

function boxOf(pixels: Int32Array, width: number): Rect {
  let box: Rect = { x: 0, y: 0, width: 0, height: 0 };
  for (const p of pixels)
    box = unite(box, { x: p % width, y: Math.floor(p / width), width: 1, height: 1 });
  return box;
}

/** Pixels and those up to {@link BEYOND} from them, within a rectangle, in reading order. */
function grown(pixels: Int32Array, rect: Rect, width: number): Int32Array {
  const mask = new Uint8Array(rect.width * rect.height);
  for (const p of pixels) {
    const [x, y] = [(p % width) - rect.x, Math.floor(p / width) - rect.y];
    for (let v = Math.max(0, y - BEYOND); v <= Math.min(rect.height - 1, y + BEYOND); v++)
      mask.fill(
        1,
        v * rect.width + Math.max(0, x - BEYOND),
        v * rect.width + Math.min(rect.width - 1, x + BEYOND) + 1,
      );
  }
  const found: number[] = [];
  mask.forEach((m, k) => {
    if (m) found.push((rect.y + Math.floor(k / rect.width)) * width + rect.x + (k % rect.width));
  });
  return Int32Array.from(found);
}

/** Rasters below each other. */
function stacked(parts: readonly Raster[]): Raster {
  const { channels, data } = parts[0]!;
  const width = Math.max(...parts.map((p) => p.width));
  const height = parts.reduce((sum, p) => sum + p.height, 0);
  const sheet = createRaster(width, height, channels, depthOf(data));
  let top = 0;
  for (const part of parts) {
    for (let y = 0; y < part.height; y++)
      sheet.data.set(
        part.data.subarray(y * part.width * channels, (y + 1) * part.width * channels),
        (top + y) * width * channels,
      );
    top += part.height;
  }
  return sheet;
}
