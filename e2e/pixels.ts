import { join } from 'node:path';
import { decode } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import { psnr } from '@tersum/core';

/** A picture of the demo's photos folder. */
export function photo(name: string): string {
  return join(import.meta.dirname, '..', 'packages/demo/photos', name);
}

export async function pixelsOf(path: string): Promise<Raster> {
  return (await decode(path)).raster;
}

/** 1 where any sample differs. */
export function changed(one: Raster, two: Raster): Uint8Array {
  const mask = new Uint8Array(one.width * one.height);
  for (let i = 0; i < one.data.length; i++)
    if (one.data[i] !== two.data[i]) mask[Math.floor(i / one.channels)] = 1;
  return mask;
}

export function both(a: Uint8Array, b: Uint8Array): Uint8Array {
  return a.map((v, p) => v & b[p]!);
}

export function count(mask: Uint8Array): number {
  return mask.reduce((sum, v) => sum + v, 0);
}

/** 1 where a mask picture is over 127. */
export async function maskOf(path: string): Promise<Uint8Array> {
  const { data, channels, width, height } = await pixelsOf(path);
  return Uint8Array.from({ length: width * height }, (_, p) => (data[p * channels]! > 127 ? 1 : 0));
}

/** How much nearer to the truth a mended area is than before, dB. */
export function gain(before: Raster, after: Raster, truth: Raster, mask: Uint8Array): number {
  return psnr(after, truth, mask) - psnr(before, truth, mask);
}
