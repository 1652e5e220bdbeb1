import { open, readFile } from 'node:fs/promises';
import type { Baggage } from '@tersum/codec';
import {
  decodeOpenRaster,
  encode,
  encodeOpenRaster,
  laidOut,
  layerRaster,
  readMetadata,
} from '@tersum/codec';
import type { Raster, Task } from '@tersum/core';
import {
  checkpoint,
  createRaster,
  crop,
  depthOf,
  frameOf,
  intersect,
  portionOf,
  prepare,
  quadOf,
  throughMap,
} from '@tersum/core';
import type { FlatFormat } from '@tersum/document';
import { finished, layerOf } from '@tersum/document';
import type { Answers, TaskOf } from './tasks.js';

/** Writes a picture file with what came along with its source. */
export async function save(
  {
    source,
    ppi,
    to,
    xmp = null,
    profile = 'kept',
  }: {
    readonly source: string;
    readonly ppi: number | null;
    readonly to: string;
    readonly xmp?: string | null;
    readonly profile?: 'kept' | 'srgb';
  },
  raster: Raster,
  format: FlatFormat,
  quality: number,
): Promise<{ bytes: number }> {
  const baggage = { ...(await baggageOf(source, ppi)), xmp };
  return keep(to, await encode(raster, format, quality, baggage, profile));
}

/** Writes the lowest layer of a layered file, and a sheet of what the others show. */
export async function takenApart({
  path,
  base,
  sheet,
}: TaskOf<'layers'>): Promise<Answers['layers']> {
  const file = await decodeOpenRaster(await readFile(path));
  const laid = laidOut(file);
  const baggage = { icc: file.icc, exif: null, ppi: file.ppi };
  await keep(base, await encode(laid.base, 'png', 100, baggage));
  if (laid.sheet) await keep(sheet, await encode(laid.sheet, 'png', 100, baggage));
  return { layers: laid.layers };
}

/** Writes what repairs begin from: the original's depth, without losses. */
export async function prepared(
  { original, how, source, to }: TaskOf<'prepare'>,
  watch: Task,
): Promise<{ bytes: number }> {
  const { width, height, channels, data } = original;
  const into = createRaster(width, height, channels, depthOf(data));
  prepare(original, how, into, watch);
  return save({ source, ppi: null, to }, into, 'tiff', 100);
}

/** Writes a finished picture in the format that is asked for. */
export function exported(task: TaskOf<'export'>, watch: Task): Promise<{ bytes: number }> {
  const rendering = portionOf(watch, 0, 0.8);
  const whole = finished(task.original, task.patches, task.finishing, rendering);
  checkpoint(watch, 0.8);
  const { format } = task;
  if (format === 'ora') return saveLayered(task, whole);
  return save(task, reduced(whole, task.longest), format, task.quality);
}

/** Writes the original, the repair layers and the merged picture as one layered file. */
async function saveLayered(
  { source, ppi, to, original, layers, below, finishing }: TaskOf<'export'>,
  merged: Raster,
): Promise<{ bytes: number }> {
  const { width, height, at: [left, top] = [0, 0] } = original;
  const stack = layers.flatMap(({ name, patches }) => {
    const part = layerOf(original, patches);
    if (!part) return [];
    const { rect, mask, samples } = part;
    const raster = layerRaster(samples, mask);
    return [{ name, x: rect.x - left, y: rect.y - top, visible: true, opacity: 1, raster }];
  });
  const own = intersect(
    { x: 0, y: 0, ...(finishing.size ?? { width, height }) },
    frameOf(original),
  );
  const raster = crop(original, own);
  const base = { name: below, x: own.x - left, y: own.y - top, visible: true, opacity: 1, raster };
  const picture = { width, height, layers: [base, ...stack] };
  return keep(to, await encodeOpenRaster(picture, merged, await baggageOf(source, ppi)));
}

async function baggageOf(source: string, ppi: number | null): Promise<Baggage> {
  const { icc, exif } = await readMetadata(source);
  return { icc: icc ?? null, exif: exif ?? null, ppi };
}

/** Writes a file; it is on disk when this returns. */
async function keep(to: string, file: Uint8Array): Promise<{ bytes: number }> {
  const handle = await open(to, 'w');
  try {
    await handle.writeFile(file);
    await handle.sync();
  } finally {
    await handle.close();
  }
  return { bytes: file.length };
}

/** A picture made smaller so that its longer side is `longest` px; smaller ones stay as they are. */
function reduced(raster: Raster, longest: number | null): Raster {
  const now = Math.max(raster.width, raster.height);
  if (longest === null || longest >= now) return raster;
  const [width, height] = [raster.width, raster.height].map((v) =>
    Math.max(1, Math.round((v * longest) / now)),
  ) as [number, number];
  return throughMap(raster, quadOf(frameOf(raster)), width, height);
}
