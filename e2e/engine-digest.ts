import type { Raster } from '@tersum/core';
import {
  clone,
  createRaster,
  digest,
  fill,
  frameOf,
  graft,
  packDonorMap,
  searchFill,
  seededRandom,
} from '@tersum/core';

/** Digests of what the engine makes of a made-up picture. */
export function engineDigest(): Record<string, string> {
  const picture = madeUp(140, 110);
  const frame = frameOf(picture);
  const hole = new Uint8Array(140 * 110);
  for (let y = 40; y < 66; y++) for (let x = 50; x < 84; x++) hole[y * 140 + x] = 1;
  const coverage = Float32Array.from(hole, (v, p) => v * (0.5 + 0.5 * ((p % 7) / 7)));
  const map = searchFill(picture, frame, hole, new Uint8Array(hole.length), { seed: 11 });
  const donor = madeUp(140, 110, 9);
  const valid = new Uint8Array(hole.length).fill(1);
  const input = { below: picture, donor, valid, coverage };
  return {
    map: digest(packDonorMap(map)),
    fill: sum(fill({ below: picture, origin: frame, map, coverage }, 0.8)),
    graft: sum(graft(input, 0.9)),
    clone: sum(clone(input, 0.7)),
  };
}

function madeUp(width: number, height: number, seed = 4): Raster {
  const random = seededRandom(seed);
  const raster = createRaster(width, height, 3, 'u16');
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let c = 0; c < 3; c++)
        raster.data[i++] =
          ((x >> 3) + (y >> 2)) % 3 ? 30_000 + random.between(0, 9000) : 12_000 + 90 * x + c * 800;
  return raster;
}

function sum({ data }: Raster): string {
  return digest(new Uint8Array(data.buffer, data.byteOffset, data.byteLength));
}
