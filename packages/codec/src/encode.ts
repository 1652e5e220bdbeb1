import type { Raster } from '@tersum/core';
import { colourChannels, depthOf } from '@tersum/core';
import type { FlatFormat } from '@tersum/document';
import type { Sharp } from 'sharp';
import sharp from 'sharp';
import type { Baggage } from './carrier.js';
import { carrierTiff } from './carrier.js';
import { withDensity } from './density.js';
import { withExif } from './exif.js';

/**
 * Writes a picture file. PNG and TIFF keep the samples exactly at 8 and 16 bits; JPEG and WebP are 8-bit and
 * lossy. ICC profile, EXIF, XMP and ppi come along.
 * @param quality 1..100, JPEG and WebP only
 * @param profile 'srgb' converts colours from the profile that came along (perceptual intent) to sRGB, IEC 61966-2-1
 */
export async function encode(
  raster: Raster,
  format: FlatFormat,
  quality: number,
  baggage: Baggage,
  profile: 'kept' | 'srgb' = 'kept',
): Promise<Buffer> {
  const deep = depthOf(raster.data) === 'u16';
  const grey = colourChannels(raster.channels) === 1;
  const exact = format === 'png' || format === 'tiff';
  const space = deep && exact ? (grey ? 'grey16' : 'rgb16') : grey ? 'b-w' : 'srgb';
  const converted = profile === 'srgb' && baggage.icc !== null && !grey;
  let pipeline = sharp(carrierTiff(raster, baggage.icc), {
    limitInputPixels: false,
    ignoreIcc: !converted,
  }).toColourspace(space);
  if (converted) pipeline = pipeline.withIccProfile('srgb');
  else if (baggage.icc) pipeline = pipeline.keepIccProfile();
  if (baggage.xmp) pipeline = pipeline.withXmp(baggage.xmp);
  const ppi = baggage.ppi ?? 72;
  switch (format) {
    case 'png':
      pipeline = pipeline.png({ compressionLevel: 6 });
      break;
    case 'tiff':
      pipeline = pipeline.tiff({
        compression: 'deflate',
        predictor: 'horizontal',
        xres: ppi / 25.4,
        yres: ppi / 25.4,
        resolutionUnit: 'inch',
      });
      break;
    case 'jpeg':
      pipeline = pipeline.jpeg({ quality, chromaSubsampling: '4:4:4' });
      break;
    case 'webp':
      pipeline = pipeline.webp({ quality });
  }
  const plain = await pipeline.toBuffer();
  const file = baggage.ppi ? withDensity(plain, format, baggage.ppi) : plain;
  return baggage.exif ? withExif(file, format, baggage.exif, baggage.ppi) : file;
}

/** A small JPEG for lists. */
export function encodeThumb(raster: Raster, side: number): Promise<Buffer> {
  return rawSharp(raster)
    .resize(side, side, { fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 86 })
    .toBuffer();
}

/** A JPEG of 8-bit samples at exactly a size. */
export function encodeJpeg(
  raster: Raster,
  { width, height }: { readonly width: number; readonly height: number },
): Promise<Buffer> {
  return rawSharp(raster).resize(width, height, { fit: 'fill' }).jpeg({ quality: 90 }).toBuffer();
}

function rawSharp({ width, height, channels, data }: Raster): Sharp {
  return sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), {
    raw: { width, height, channels },
  });
}
