import { rm, writeFile } from 'node:fs/promises';
import { extname } from 'node:path';
import type { Decoded } from '@tersum/codec';
import { decode, encode, readMetadata } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import { compileFillKernels, depthOf } from '@tersum/core';
import type { FlatFormat } from '@tersum/document';
import { BadUsage } from './usage.js';

const FORMATS: Record<string, FlatFormat> = {
  '.png': 'png',
  '.tif': 'tiff',
  '.tiff': 'tiff',
  '.jpg': 'jpeg',
  '.jpeg': 'jpeg',
  '.webp': 'webp',
};

/** Time, processor and memory of one command. */
export class Meter {
  private readonly ms = { load: 0, engine: 0, save: 0 };
  private cpu = 0;

  async time<T>(part: 'load' | 'engine' | 'save', act: () => Promise<T> | T): Promise<T> {
    const start = performance.now();
    const before = process.cpuUsage();
    try {
      return await act();
    } finally {
      this.ms[part] += performance.now() - start;
      const { user, system } = process.cpuUsage(before);
      if (part === 'engine') this.cpu += (user + system) / 1000;
    }
  }

  report() {
    return {
      ms: this.ms,
      cpu_ms: this.cpu,
      peak_mb: process.resourceUsage().maxRSS / 1024,
    };
  }
}

/** Reads what is to be filled, while the fill's kernels are compiled. */
export async function readToFill<T>(read: () => Promise<T>): Promise<T> {
  const [found] = await Promise.all([read(), compileFillKernels()]);
  return found;
}

/** Reads a picture. @throws BadUsage, UserProblem */
export async function readPicture(path: string): Promise<Decoded> {
  try {
    return await decode(path);
  } catch (error) {
    throw (error as NodeJS.ErrnoException).code === 'ENOENT'
      ? new BadUsage(`there is no file '${path}'`)
      : error;
  }
}

/** Reads a mask of the picture's size: 1 where its first channel is over 127. @throws BadUsage */
export async function readMask(path: string, picture: Raster): Promise<Uint8Array> {
  const { raster, bits } = await readPicture(path);
  if (raster.width !== picture.width || raster.height !== picture.height)
    throw new BadUsage(
      `the mask is ${raster.width} x ${raster.height} px, the picture ${picture.width} x ${picture.height}`,
    );
  const mask = new Uint8Array(raster.width * raster.height);
  const limit = bits === 16 ? 127 * 257 : 127;
  for (let p = 0; p < mask.length; p++) if (raster.data[p * raster.channels]! > limit) mask[p] = 1;
  return mask;
}

/** Writes a picture in the format its name asks for; nothing is left behind when that fails. */
export async function writePicture(
  path: string,
  raster: Raster,
  source: string,
  ppi: number | null,
): Promise<void> {
  const format = FORMATS[extname(path).toLowerCase()];
  if (!format) throw new BadUsage(`'${path}' must end in .png, .tif, .jpg or .webp`);
  if (depthOf(raster.data) === 'u16' && (format === 'jpeg' || format === 'webp'))
    process.stderr.write(`tersum: ${format} holds 8 bits a channel; the picture has 16\n`);
  const { icc, exif } = await readMetadata(source);
  const file = await encode(raster, format, 92, { icc: icc ?? null, exif: exif ?? null, ppi });
  try {
    await writeFile(path, file);
  } catch (error) {
    await rm(path, { force: true });
    throw error;
  }
}

/** Writes what was done, to a file or, for '-', to standard output. */
export async function writeReport(to: string | undefined, report: object): Promise<void> {
  if (!to) return;
  const text = `${JSON.stringify(report)}\n`;
  if (to === '-') process.stdout.write(text);
  else await writeFile(to, text);
}
