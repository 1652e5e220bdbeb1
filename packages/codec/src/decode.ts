import { open, readFile } from 'node:fs/promises';
import type { Channels, Raster } from '@tersum/core';
import { MOST_PIXELS } from '@tersum/core';
import type { Picture } from '@tersum/document';
import { decode as readBmp } from 'bmp-ts';
import type { Metadata } from 'sharp';
import sharp from 'sharp';
import { UserProblem } from './problem.js';
import { identify } from './identify.js';
import { profileName } from './icc.js';
import { sharedRaster } from './shared.js';

/** A file's pixels and what it says about them. */
export interface Decoded {
  readonly raster: Raster;
  readonly format: Picture['format'];
  readonly bits: 8 | 16;
  readonly ppi: number | null;
  readonly profile: string | null;
}

/**
 * Reads a picture file: samples as stored (profiles are kept, not applied), turned upright by EXIF
 * orientation, over shared memory.
 * @throws UserProblem with a sentence for the person when the file cannot be used
 */
export async function decode(path: string): Promise<Decoded> {
  const head = await firstBytes(path, 32);
  if (!head.length) throw new UserProblem(422, 'This file is empty. Choose a picture file.');
  const format = identify(head);
  if (!format)
    throw new UserProblem(
      415,
      'This is not a picture Tersum can read. Use PNG, JPEG, TIFF, WebP or BMP.',
    );
  return format === 'bmp' ? decodeBmp(path, head) : decodeWithSharp(path, format);
}

/** What sharp knows of a file without decoding it. @throws UserProblem */
export async function readMetadata(path: string): Promise<Metadata> {
  try {
    return await sharp(path, { limitInputPixels: false, ignoreIcc: true }).metadata();
  } catch {
    throw new UserProblem(
      422,
      'The beginning of this file is damaged, so its size cannot be read. Export it again from where it came.',
    );
  }
}

async function decodeWithSharp(path: string, format: Picture['format']): Promise<Decoded> {
  const meta = await readMetadata(path);
  expectSize(meta.width, meta.height);
  if (meta.depth === 'float' || meta.depth === 'double' || meta.depth === 'complex')
    throw new UserProblem(
      422,
      'This file stores floating-point samples. Save it with 8 or 16 bits a channel.',
    );
  const deep = meta.depth === 'ushort' || meta.depth === 'short' || meta.depth === 'uint';
  const grey = meta.channels <= 2;
  const space = deep ? (grey ? 'grey16' : 'rgb16') : grey ? 'b-w' : 'srgb';
  const pipeline = sharp(path, {
    limitInputPixels: MOST_PIXELS,
    failOn: 'truncated',
    ignoreIcc: true,
  })
    .autoOrient()
    .toColourspace(space)
    .raw({ depth: deep ? 'ushort' : 'uchar' });
  try {
    const { data, info } = await pipeline.toBuffer({ resolveWithObject: true });
    const raster = sharedRaster(
      info.width,
      info.height,
      info.channels as Channels,
      deep ? 'u16' : 'u8',
    );
    new Uint8Array(raster.data.buffer).set(data);
    return {
      raster,
      format,
      bits: deep ? 16 : 8,
      ppi: ppiOf(meta),
      profile: meta.icc ? profileName(meta.icc) : null,
    };
  } catch {
    throw new UserProblem(
      422,
      'This file is cut short or damaged: its pixels could not all be read. Copy or export it again.',
    );
  }
}

async function decodeBmp(path: string, head: Buffer): Promise<Decoded> {
  if (head.length < 26)
    throw new UserProblem(422, 'This file is cut short: even its size is missing. Copy it again.');
  expectSize(Math.abs(head.readInt32LE(18)), Math.abs(head.readInt32LE(22)));
  try {
    const { data, width, height } = readBmp(await readFile(path), { toRGBA: false });
    const raster = sharedRaster(width, height, 3, 'u8');
    if (data.length < width * height * 4) throw new Error('short');
    // Four bytes a pixel: alpha, blue, green, red.
    for (let p = 0; p < width * height; p++)
      for (let c = 0; c < 3; c++) raster.data[3 * p + c] = data[4 * p + 3 - c]!;
    return { raster, format: 'bmp', bits: 8, ppi: null, profile: null };
  } catch {
    throw new UserProblem(
      422,
      'This file is cut short or damaged: its pixels could not all be read. Copy or export it again.',
    );
  }
}

function expectSize(width: number | undefined, height: number | undefined): void {
  if (!width || !height)
    throw new UserProblem(422, 'This file says that the picture has no size. Export it again.');
  if (width * height > MOST_PIXELS)
    throw new UserProblem(
      413,
      `This picture claims ${width} x ${height} pixels. Up to ${MOST_PIXELS / 1e6} megapixels can be taken in; make it smaller first.`,
    );
}

/** Files without a real density report 72 by default, JPEG ones even by standard: only a stated one counts. */
function ppiOf(meta: Metadata): number | null {
  return meta.density && meta.density > 1 && meta.density !== 72 ? meta.density : null;
}

async function firstBytes(path: string, count: number): Promise<Buffer> {
  const handle = await open(path, 'r');
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(count), 0, count, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}
