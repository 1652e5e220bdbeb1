import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decode } from '@tersum/codec';
import sharp from 'sharp';

const photos = join(import.meta.dirname, '..', 'packages/demo/photos');

/** A picture of so many megapixels, made from a demo photograph: enlarged, with grain of its own. */
export async function largePicture(megapixels: number): Promise<string> {
  const height = Math.round(Math.sqrt((megapixels * 1e6) / 1.5));
  const width = Math.round(height * 1.5);
  const noise = { type: 'gaussian', mean: 128, sigma: 9 } as const;
  const grain = await sharp({
    create: { width, height, channels: 3, background: '#808080', noise },
  })
    .png({ compressionLevel: 1 })
    .toBuffer();
  const file = await sharp(join(photos, 'wires.jpg'))
    .resize(width, height, { fit: 'fill', kernel: 'cubic' })
    .composite([{ input: grain, blend: 'soft-light' }])
    .jpeg({ quality: 92 })
    .toBuffer();
  const path = join(await mkdtemp(join(tmpdir(), 'tersum-bench-')), `large-${megapixels}.jpg`);
  await writeFile(path, file);
  return path;
}

export const demoPicture = async (name: string) => (await decode(join(photos, name))).raster;

/** An open photograph that a registry package carries. */
export const openPicture = async (name: string) =>
  (
    await decode(
      join(import.meta.dirname, `../node_modules/@stdlib/datasets-img-${name}/data/image.jpg`),
    )
  ).raster;
