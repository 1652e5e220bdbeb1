import type { Raster } from '@tersum/core';
import { colourChannels, createRaster, depthOf, MOST_PIXELS, whiteOf } from '@tersum/core';
import { XMLBuilder, XMLParser } from 'fast-xml-parser';
import type { Zippable } from 'fflate';
import { unzipSync, zipSync } from 'fflate';
import sharp from 'sharp';
import type { Baggage } from './carrier.js';
import { encode } from './encode.js';
import { UserProblem } from './problem.js';

/** One layer of a layered file. */
export interface OpenLayer {
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly visible: boolean;
  /** 0..1 */
  readonly opacity: number;
  /** Four channels, or one or three where the layer is opaque. */
  readonly raster: Raster;
}

/** A layered picture, the lowest layer first. */
export interface LayeredPicture {
  readonly width: number;
  readonly height: number;
  readonly layers: readonly OpenLayer[];
}

/** A layered file as it was read. */
export interface LayeredFile extends LayeredPicture {
  /** Profile of its lowest layer, and samples per inch; null where it does not say. */
  readonly icc: Buffer | null;
  readonly ppi: number | null;
}

const MIMETYPE = 'image/openraster';
const PLAIN = 'svg:src-over';
const THUMBNAIL = 256;
/** PNG is packed already. */
const STORED = { level: 0 } as const;

/**
 * Writes an OpenRaster file (freedesktop.org, "OpenRaster", baseline 0.0.6): the type first and stored, the layers as
 * PNG at their own depth, the merged picture and a thumbnail.
 * @param merged the picture as it is to be seen; tone steps and frame may be in it
 */
export async function encodeOpenRaster(
  { width, height, layers }: LayeredPicture,
  merged: Raster,
  baggage: Baggage,
): Promise<Uint8Array> {
  const files: Zippable = { mimetype: [Buffer.from(MIMETYPE), STORED] };
  const entries: object[] = [];
  for (const [k, layer] of layers.entries()) {
    const src = `data/layer${String(k).padStart(3, '0')}.png`;
    const plain = { icc: baggage.icc, exif: null, ppi: null };
    files[src] = [await encode(layer.raster, 'png', 100, plain), STORED];
    entries.unshift({
      '@name': layer.name,
      '@src': src,
      '@x': layer.x,
      '@y': layer.y,
      '@opacity': layer.opacity.toFixed(3),
      '@visibility': layer.visible ? 'visible' : 'hidden',
      '@composite-op': PLAIN,
    });
  }
  const ppi = baggage.ppi ? Math.round(baggage.ppi) : null;
  files['stack.xml'] = Buffer.from(stackXml(width, height, ppi, entries));
  const whole = await encode(merged, 'png', 100, { ...baggage, exif: null });
  files['mergedimage.png'] = [whole, STORED];
  const small = sharp(whole, { limitInputPixels: false })
    .resize(THUMBNAIL, THUMBNAIL, { fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb')
    .png();
  files['Thumbnails/thumbnail.png'] = [await small.toBuffer(), STORED];
  return zipSync(files);
}

function stackXml(width: number, height: number, ppi: number | null, layers: object[]): string {
  const builder = new XMLBuilder({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    format: true,
    suppressEmptyNode: true,
  });
  return builder.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    image: {
      '@version': '0.0.6',
      '@w': width,
      '@h': height,
      ...(ppi ? { '@xres': ppi, '@yres': ppi } : {}),
      stack: { layer: layers },
    },
  });
}

/** Reads an OpenRaster file with its layers. @throws UserProblem when it is none or lacks something */
export async function decodeOpenRaster(bytes: Uint8Array): Promise<LayeredFile> {
  try {
    return await layersOf(unzipSync(bytes));
  } catch (error) {
    if (error instanceof UserProblem) throw error;
    throw broken();
  }
}

const broken = (): UserProblem =>
  new UserProblem(
    422,
    'This layered file is damaged: a part of it is missing. Write it again from where it came.',
  );

async function layersOf(files: Record<string, Uint8Array>): Promise<LayeredFile> {
  const type = files['mimetype'];
  if (!type || Buffer.from(type).toString().trim() !== MIMETYPE)
    throw new UserProblem(415, 'This is not an OpenRaster file.');
  const xml = files['stack.xml'];
  if (!xml) throw broken();
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    isArray: (name) => name === 'layer',
  });
  const { image } = parser.parse(Buffer.from(xml).toString()) as { image?: StackImage };
  const listed = image?.stack?.layer ?? [];
  if (!listed.length) throw broken();
  if (image?.stack?.stack || listed.some((l) => (l['@composite-op'] ?? PLAIN) !== PLAIN))
    throw new UserProblem(
      422,
      'Layers of this file are grouped or blended. Write it with plain layers, or take in its merged picture.',
    );
  const [width, height] = [Number(image?.['@w']), Number(image?.['@h'])];
  if (!(width >= 1 && height >= 1 && width * height <= MOST_PIXELS)) throw broken();
  const layers = await Promise.all(
    [...listed].reverse().map(async (entry): Promise<OpenLayer> => {
      const file = files[entry['@src'] ?? ''];
      if (!file) throw broken();
      return {
        name: entry['@name'] ?? '',
        x: finite(entry['@x'] ?? 0),
        y: finite(entry['@y'] ?? 0),
        visible: entry['@visibility'] !== 'hidden',
        opacity: finite(entry['@opacity'] ?? 1),
        raster: await rasterOf(file),
      };
    }),
  );
  const lowest = files[listed.at(-1)!['@src'] ?? '']!;
  const { icc } = await sharp(lowest).metadata();
  return { width, height, layers, icc: icc ?? null, ppi: Number(image?.['@xres']) || null };
}

function finite(told: string | number): number {
  const value = Number(told);
  if (!Number.isFinite(value)) throw broken();
  return value;
}

/** Whether a file begins as a layered one does: its type stands first, so that it is known without unpacking. */
export function isOpenRaster(head: Uint8Array): boolean {
  return (
    Buffer.from(head.subarray(30, 30 + 8 + MIMETYPE.length)).toString() === `mimetype${MIMETYPE}`
  );
}

interface StackImage {
  readonly '@w'?: string;
  readonly '@h'?: string;
  readonly '@xres'?: string;
  readonly stack?: { readonly layer?: readonly Record<string, string>[]; readonly stack?: unknown };
}

async function rasterOf(png: Uint8Array): Promise<Raster> {
  const { channels, depth } = await sharp(png).metadata();
  const deep = depth === 'ushort';
  const grey = channels <= 2;
  const { data, info } = await sharp(png, { ignoreIcc: true })
    .toColourspace(deep ? (grey ? 'grey16' : 'rgb16') : grey ? 'b-w' : 'srgb')
    .raw({ depth: deep ? 'ushort' : 'uchar' })
    .toBuffer({ resolveWithObject: true });
  const raster = createRaster(
    info.width,
    info.height,
    info.channels as 1 | 2 | 3 | 4,
    deep ? 'u16' : 'u8',
  );
  new Uint8Array(raster.data.buffer).set(data);
  return raster;
}

/** The part of a picture a mask covers, as a layer's samples: opaque inside, nothing outside. @param mask of the part's size */
export function layerRaster(part: Raster, mask: Uint8Array): Raster {
  const colours = colourChannels(part.channels);
  const out = createRaster(part.width, part.height, colours === 3 ? 4 : 2, depthOf(part.data));
  const white = whiteOf(part.data);
  for (let p = 0; p < mask.length; p++) {
    if (!mask[p]) continue;
    for (let c = 0; c < colours; c++)
      out.data[p * out.channels + c] = part.data[p * part.channels + c]!;
    out.data[p * out.channels + colours] = white;
  }
  return out;
}
